import type { LimitKey } from '../engineType/engineType.js';
import { assessReading } from './assessReading.js';
import type { JobDocument } from './jobDocument.js';
import { bandsOf, decodedMarks, markedBands, partCount } from './jobMarks.js';
import {
  featuresOf,
  type MeasuredPart,
  mainStations,
  measuredParts,
  partName,
  placedRods,
  rodStations,
} from './jobStations.js';
import type { Feature, Reading } from './reading.js';
import { stationVerdict } from './stationVerdict.js';

/** The stages of the work, in order. Nothing forces the order. */
export const STAGES = ['data', 'codes', 'bores', 'journals', 'bigEnds', 'pins', 'drawer', 'choose', 'sheet'] as const;
export type Stage = (typeof STAGES)[number];

export type StageState = 'open' | 'started' | 'done' | 'attention';

export interface JobProgress {
  /** The stages that this job has: those of the rods only where the rods are part of it. */
  readonly stages: Readonly<Partial<Record<Stage, StageState>>>;
  /** Where the next thing to do is. */
  readonly next: Stage;
  /** The next thing to do, as one asks a colleague. */
  readonly todo: string;
}

/** Where each feature is measured, and what one calls it. */
const MEASURED: Readonly<Record<Feature, { stage: Stage; word: string }>> = {
  mainBore: { stage: 'bores', word: 'bore' },
  mainJournal: { stage: 'journals', word: 'journal' },
  bigEnd: { stage: 'bigEnds', word: 'big end' },
  pin: { stage: 'pins', word: 'pin' },
};

const LIMIT_WORDS: Readonly<Record<LimitKey, string>> = {
  mainBore: 'main bore',
  mainJournal: 'main journal',
  mainClearance: 'oil clearance',
  bigEnd: 'big end',
  pin: 'crankpin',
  rodClearance: 'rod oil clearance',
  outOfRound: 'out-of-round',
  taper: 'taper',
  endPlay: 'end play',
  runout: 'runout',
};

/** The limits that a job needs from its data sheet. */
export function limitsNeeded(job: Pick<JobDocument, 'withRods'>): LimitKey[] {
  const mains: LimitKey[] = ['mainBore', 'mainJournal', 'mainClearance'];
  return job.withRods ? [...mains, 'bigEnd', 'pin', 'rodClearance'] : mains;
}

function plural(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** The features of a job whose marks its data sheet knows. */
export function codedFeatures(job: Pick<JobDocument, 'sheet' | 'withRods'>): Feature[] {
  return featuresOf(job).filter((feature) => bandsOf(job.sheet, feature).length > 0);
}

/** Whether the marks of a feature are typed as a row that cannot be read whole; a rod carries its own. */
function isUnread(job: JobDocument, feature: Feature): boolean {
  if (feature === 'bigEnd') {
    const known = bandsOf(job.sheet, feature);
    return Object.values(job.rods).some(({ mark }) => mark !== '' && !known.some((band) => band.mark === mark));
  }
  const decoded = decodedMarks(job, feature);
  return decoded !== null && (!decoded.ok || decoded.marks.some(({ mark }) => mark === null));
}

/** How far a job is, and what is the next thing to do. */
export function jobProgress(job: JobDocument, readings: readonly Reading[]): JobProgress {
  const chosen = job.choice?.stations ?? {};
  const placed = placedRods(chosen);
  const stations = [...mainStations(job, readings), ...rodStations(job, readings, placed)];
  const features = featuresOf(job);
  const needed = limitsNeeded(job);
  const missingLimits = needed.filter((key) => !job.limits[key]);
  const parts = features.map((feature) => ({ feature, parts: measuredParts(job, readings, feature) }));
  const blocked = parts.flatMap((one) => one.parts.filter(({ findings }) => findings.length > 0));
  const doubtful = readings.filter((reading) => {
    if (!features.includes(reading.feature)) return false;
    const others = readings.filter((other) => other !== reading);
    const { kind } = assessReading(reading.text, reading.setting, reading.feature, job, others);
    return kind === 'doubtful' || kind === 'unreadable';
  });
  const [doubt] = doubtful;
  const byCodes = job.depth === 'codes';
  /** Whether readings are still to be taken: a mark is enough where the fitter chooses by marks alone. */
  const isWanting = ({ missing, mark }: MeasuredPart) => missing > 0 && !(byCodes && mark !== null);
  const measuring = ({ feature, parts: own }: (typeof parts)[number]): StageState => {
    const isOff = own.some(({ findings }) => findings.length > 0);
    if (isOff || doubtful.some((reading) => reading.feature === feature)) return 'attention';
    if (own.every((part) => !isWanting(part))) return 'done';
    return own.some(({ size }) => size !== null && size.count > 0) ? 'started' : 'open';
  };
  const coded = codedFeatures(job);
  const isMarked = (feature: Feature) => markedBands(job, feature).size === partCount(job.layout, feature);
  const isAnyMarkTyped = coded.some((feature) =>
    feature === 'bigEnd'
      ? Object.values(job.rods).some(({ mark }) => mark !== '')
      : (job.marks[feature]?.text.trim() ?? '') !== '',
  );
  const unread = coded.filter((feature) => isUnread(job, feature));
  const disagreeing = parts.some((one) => one.parts.some(({ disagreement }) => disagreement !== null));
  const codesState: StageState =
    unread.length > 0 || disagreeing
      ? 'attention'
      : coded.every(isMarked)
        ? 'done'
        : coded.some((feature) => markedBands(job, feature).size > 0)
          ? 'started'
          : 'open';
  const unmarked = byCodes ? coded.filter((feature) => !isMarked(feature) && !unread.includes(feature)) : [];
  const shells = Object.keys(job.shells).length;
  const unchosen = stations.filter((station) => !chosen[station.id]);
  const broken = stations.filter((station) => {
    const { state } = stationVerdict(job, station, chosen[station.id] ?? null);
    return state === 'tight' || state === 'loose';
  });
  const stages: Partial<Record<Stage, StageState>> = {
    data: missingLimits.length === 0 ? 'done' : missingLimits.length < needed.length ? 'started' : 'open',
    ...(coded.length > 0 ? { codes: codesState } : {}),
    ...Object.fromEntries(parts.map((one) => [MEASURED[one.feature].stage, measuring(one)])),
    drawer: shells > 0 ? 'done' : 'open',
    choose: broken.length > 0 ? 'attention' : !job.choice ? 'open' : unchosen.length > 0 ? 'started' : 'done',
    sheet: 'open',
  };
  const listed = (list: readonly string[]) => [...new Set(list)].join(', ');
  const ids = (list: readonly { id: string }[]) => listed(list.map(({ id }) => id));

  const steps: { when: boolean; next: Stage; todo: string }[] = [
    {
      when: missingLimits.length > 0,
      next: 'data',
      todo:
        missingLimits.length === needed.length
          ? 'Enter the limits of the data sheet with their source'
          : `Enter the ${missingLimits.map((key) => LIMIT_WORDS[key]).join(', ')} limits with their source`,
    },
    {
      when: doubt !== undefined,
      next: doubt === undefined ? 'bores' : MEASURED[doubt.feature].stage,
      todo: doubt ? `Look again at ${partName(doubt.feature, doubt.station)}: “${doubt.text}” cannot be right` : '',
    },
    {
      when: blocked.length > 0,
      next: blocked[0] ? MEASURED[blocked[0].feature].stage : 'bores',
      todo: `${listed(blocked.map(({ name }) => name))} outside the data sheet: read again, then machine`,
    },
    {
      when: coded.length > 0 && !isAnyMarkTyped && readings.every(({ text }) => text === ''),
      next: 'codes',
      todo: `Write down the marks before cleaning: ${coded.map((feature) => `${MEASURED[feature].word}s`).join(', ')}`,
    },
    ...[...unread, ...unmarked].slice(0, 1).map((feature) => ({
      when: true,
      next: 'codes' as const,
      todo: `${unread.includes(feature) ? 'Look again at' : 'Type'} the marks of the ${MEASURED[feature].word}s`,
    })),
    ...parts.map(({ feature, parts: own }) => {
      const missing = own.filter(isWanting);
      const { stage, word } = MEASURED[feature];
      return {
        when: missing.length > 0,
        next: stage,
        todo: `Read the ${word} at ${listed(missing.map(({ name }) => name))}`,
      };
    }),
    { when: shells === 0, next: 'drawer', todo: 'Enter the halves in the drawer' },
    {
      when: broken.length > 0,
      next: 'choose',
      todo: `${ids(broken)} outside its limits with the accepted halves: choose again`,
    },
    {
      when: unchosen.length > 0,
      next: 'choose',
      todo: job.choice
        ? `Choose halves for ${ids(unchosen)}`
        : `Choose halves for ${plural(job.layout.mains, 'main', 'mains')}${job.withRods ? ` and ${plural(stations.length - job.layout.mains, 'rod', 'rods')}` : ''}`,
    },
  ];
  const first = steps.find((step) => step.when);
  return { stages, next: first?.next ?? 'sheet', todo: first?.todo ?? 'Print the sheet and keep it with the engine' };
}

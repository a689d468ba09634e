import { assessReading } from './assessReading.js';
import type { JobDocument } from './jobDocument.js';
import { mainStations } from './mainStations.js';
import type { Reading } from './reading.js';
import { stationVerdict } from './stationVerdict.js';

/** The stages of the work, in order. Nothing forces the order. */
export const STAGES = ['data', 'bores', 'journals', 'drawer', 'choose', 'sheet'] as const;
export type Stage = (typeof STAGES)[number];

export type StageState = 'open' | 'started' | 'done' | 'attention';

export interface JobProgress {
  readonly stages: Readonly<Record<Stage, StageState>>;
  /** Where the next thing to do is. */
  readonly next: Stage;
  /** The next thing to do, as one asks a colleague. */
  readonly todo: string;
}

function plural(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** How far a job is, and what is the next thing to do. */
export function jobProgress(job: JobDocument, readings: readonly Reading[]): JobProgress {
  const stations = mainStations(job, readings);
  const limitNames = { mainBore: 'main bore', mainJournal: 'main journal', mainClearance: 'oil clearance' } as const;
  const missingLimits = (Object.keys(limitNames) as (keyof typeof limitNames)[]).filter((key) => !job.limits[key]);
  const missing = {
    mainBore: stations.filter((station) => station.missing.mainBore > 0),
    mainJournal: stations.filter((station) => station.missing.mainJournal > 0),
  };
  const blocked = stations.filter((station) => station.findings.length > 0);
  const blockedIn = (feature: 'mainBore' | 'mainJournal') =>
    blocked.some((station) => station.findings.some((finding) => finding.feature === feature));
  const doubtful = readings.filter((reading) => {
    const others = readings.filter((other) => other !== reading);
    const { kind } = assessReading(reading.text, reading.setting, reading.feature, job, others);
    return kind === 'doubtful' || kind === 'unreadable';
  });
  const [doubt] = doubtful;
  const measuring = (feature: 'mainBore' | 'mainJournal'): StageState => {
    if (blockedIn(feature) || doubtful.some((reading) => reading.feature === feature)) return 'attention';
    if (missing[feature].length === 0) return 'done';
    return readings.some((reading) => reading.feature === feature && reading.nm !== null) ? 'started' : 'open';
  };
  const shells = Object.keys(job.shells).length;
  const chosen = job.choice?.stations ?? {};
  const unchosen = stations.filter((station) => !chosen[station.id]);
  const broken = stations.filter((station) => {
    const { state } = stationVerdict(job, station, chosen[station.id] ?? null);
    return state === 'tight' || state === 'loose';
  });
  const stages: Record<Stage, StageState> = {
    data: missingLimits.length === 0 ? 'done' : missingLimits.length < 3 ? 'started' : 'open',
    bores: measuring('mainBore'),
    journals: measuring('mainJournal'),
    drawer: shells > 0 ? 'done' : 'open',
    choose: broken.length > 0 ? 'attention' : !job.choice ? 'open' : unchosen.length > 0 ? 'started' : 'done',
    sheet: 'open',
  };
  const listed = (list: readonly { id: string }[]) => list.map(({ id }) => id).join(', ');

  const steps: { when: boolean; next: Stage; todo: string }[] = [
    {
      when: missingLimits.length > 0,
      next: 'data',
      todo:
        missingLimits.length === 3
          ? 'Enter the limits of the data sheet with their source'
          : `Enter the ${missingLimits.map((key) => limitNames[key]).join(', ')} limits with their source`,
    },
    {
      when: doubt !== undefined,
      next: doubt?.feature === 'mainJournal' ? 'journals' : 'bores',
      todo: `Look again at M${doubt?.station}: “${doubt?.text}” cannot be right`,
    },
    {
      when: blocked.length > 0,
      next: blockedIn('mainBore') ? 'bores' : 'journals',
      todo: `${listed(blocked)} outside the data sheet: read again, then machine`,
    },
    { when: missing.mainBore.length > 0, next: 'bores', todo: `Read the bore at ${listed(missing.mainBore)}` },
    {
      when: missing.mainJournal.length > 0,
      next: 'journals',
      todo: `Read the journal at ${listed(missing.mainJournal)}`,
    },
    { when: shells === 0, next: 'drawer', todo: 'Enter the halves in the drawer' },
    {
      when: broken.length > 0,
      next: 'choose',
      todo: `${listed(broken)} outside its limits with the accepted halves: choose again`,
    },
    {
      when: unchosen.length > 0,
      next: 'choose',
      todo: job.choice
        ? `Choose halves for ${listed(unchosen)}`
        : `Choose halves for ${plural(stations.length, 'main', 'mains')}`,
    },
  ];
  const first = steps.find((step) => step.when);
  return { stages, next: first?.next ?? 'sheet', todo: first?.todo ?? 'Print the sheet and keep it with the engine' };
}

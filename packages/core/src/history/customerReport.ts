import { jobAssembly } from '../assembly/assemblyFacts.js';
import { halfWords, isDescribed } from '../cameApart/foundApart.js';
import { endPlayNow } from '../endPlay/endPlayRounds.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { columnText, lengthText, workedOutText } from '../measure/lengthText.js';
import type { ShownUnit } from '../measure/shownUnit.js';
import { FEATURE_TABLE } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { MeasuredPart, SizeFinding } from '../reading/measuredParts.js';
import { pressureText } from '../running/pressure.js';
import {
  isRunningBegun,
  PRESSURE_WORDS,
  pressureLimitText,
  pressuresNow,
  recheckDueText,
  recheckStates,
  START_WORDS,
  startChecks,
} from '../running/runningFacts.js';
import type { SignOff } from '../sheet/buildSheetSchema.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { isPassDone, jobPassStates } from '../torque/tightenFacts.js';
import { thenAndNow } from './thenAndNow.js';

/** A sentence for the customer; a moment is told by whoever shows it. */
export interface ReportLine {
  readonly text: string;
  readonly at?: string;
}

/** A table for the customer. */
export interface ReportTable {
  readonly head: readonly string[];
  /** Which columns hold figures. */
  readonly figures: readonly boolean[];
  readonly rows: readonly (readonly string[])[];
}

/** A part of the report under its title. */
export interface ReportSection {
  readonly title: string;
  readonly lines: readonly ReportLine[];
  readonly table: ReportTable | null;
}

/** A picture with what is to be seen on it. */
export interface ReportPicture {
  readonly photo: string;
  readonly caption: string;
}

/** What the customer of an engine is told, in plain words. */
export interface CustomerReport {
  readonly engine: string;
  readonly serial: string;
  readonly sections: readonly ReportSection[];
  readonly pictures: readonly ReportPicture[];
}

/** What a report is made of: an engine that is as its sheet was signed. */
interface Signed {
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  readonly signOff: SignOff;
  /** True if the people who did the work are named. */
  readonly isNamed: boolean;
  /** What small lengths are told in: the unit of the engine, or thousandths where that is inches. */
  readonly shown: ShownUnit;
}

/** Open work that is listed one by one; more is counted. */
const MOST_OPEN = 8;

function listed(all: readonly string[], most: number): string[] {
  return all.length <= most ? [...all] : [...all.slice(0, most), `and ${all.length - most} more`];
}

const FINDING_WORDS: Readonly<Record<SizeFinding['kind'], (side: SizeFinding['side']) => string>> = {
  size: (side) => (side === 'under' ? 'below its limit' : 'above its limit'),
  'out-of-round': () => 'out of round beyond its limit',
  taper: () => 'tapered beyond its limit',
};

function partFound({ name, feature, findings }: MeasuredPart, shown: ShownUnit): string {
  const said = findings.map(({ kind, by, side }) => `${lengthText(by, shown)} ${FINDING_WORDS[kind](side)}`);
  return `${name}, ${FEATURE_TABLE[feature].name.toLowerCase()}: ${said.join(', ')}`;
}

/** What was found when the engine came, and what was measured on it. */
function foundSection({ document, readings, shown }: Signed): ReportSection {
  const facts = jobFacts(document, readings);
  const { cameApart, before, unit } = document;
  const shells = facts.stations.flatMap(({ id }) => {
    const old = cameApart.stations[id];
    if (!old) return [];
    const sides = (['upper', 'lower'] as const).flatMap((side) => {
      const words = halfWords(old[side]);
      return isDescribed(old[side]) && words !== '' ? [`${side} shell ${words}`] : [];
    });
    return sides.length === 0 ? [] : [`${id}: ${sides.join('; ')}`];
  });
  const off = facts.features.flatMap((feature) => facts.parts[feature].filter(({ findings }) => findings.length > 0));
  const worn = thenAndNow(facts).filter(({ isWorn }) => isWorn);
  const ran = before?.run ? `It had run ${before.run.value} ${before.run.unit} since we built it last.` : '';
  const lines = [
    ran,
    cameApart.words === '' ? '' : `${cameApart.words}.`,
    ...shells,
    ...off.map((part) => `Measured outside the engine maker’s limits: ${partFound(part, shown)}`),
  ].filter((text) => text !== '');
  const said = lines.length > 0 || worn.length > 0 ? lines : ['No notes on its condition when dismantled.'];
  return {
    title: 'Condition as received',
    lines: said.map((text) => ({ text })),
    table:
      worn.length === 0
        ? null
        : {
            head: ['Worn since the last build', `Then, ${unit}`, `Now, ${unit}`, `Worn, ${shown}`],
            figures: [false, true, true, true],
            rows: worn.map(({ name, feature, was, now, worn: by }) => [
              `${name}, ${FEATURE_TABLE[feature].name.toLowerCase()}`,
              workedOutText(was, unit),
              workedOutText(now!, unit),
              workedOutText(by!, shown),
            ]),
          },
  };
}

/** The stations with their clearance before and now, each column with one number of decimals. */
function stationRows({ document, readings, shown }: Signed) {
  const { cameApart, before, choice } = document;
  const all = jobFacts(document, readings).stations.flatMap((station) => {
    const halves = choice?.stations[station.id];
    if (!halves) return [];
    const { clearance, isMeasured, judged, state } = stationVerdict(document, station, halves);
    const old = cameApart.stations[station.id]?.clearance?.nm ?? null;
    const then = before?.fitted[station.id]?.clearance ?? null;
    return [{ station, halves, clearance, isMeasured, judged, state, old, earlier: old ?? then }];
  });
  const figure = columnText(
    all.flatMap(({ clearance, earlier }) => [clearance?.nominal ?? null, earlier]),
    shown,
  );
  return all.map(({ station, halves, clearance, isMeasured, judged, state, old, earlier }) => ({
    clearance,
    isMeasured,
    isInside: clearance === null || judged === null || state === 'blocked' ? null : judged.margin >= 0,
    cells: [
      station.id,
      `${halves.upper.label} / ${halves.lower.label}`,
      earlier === null ? '' : `${figure(earlier)}${old === null ? ' as built last' : ' as it came'}`,
      clearance === null ? 'not known' : figure(clearance.nominal),
      station.limits === null
        ? 'no limit'
        : `${workedOutText(station.limits.low, shown)} to ${workedOutText(station.limits.high, shown)}`,
      clearance === null ? '' : isMeasured ? 'measured' : 'worked out',
    ],
  }));
}

function clearanceLine(rows: ReturnType<typeof stationRows>): string {
  if (rows.length === 0) return 'No shells were selected.';
  const inside = rows.filter(({ isInside }) => isInside === true).length;
  const outside = rows.filter(({ isInside }) => isInside === false).map(({ cells }) => cells[0]);
  const unjudged = rows.filter(({ isInside }) => isInside === null).map(({ cells }) => cells[0]);
  const measured = rows.filter(({ isMeasured }) => isMeasured).length;
  const how =
    measured === rows.length
      ? 'all measured with the shells in'
      : measured === 0
        ? 'worked out from the measured parts'
        : `${measured} measured with the shells in, the others worked out from the measured parts`;
  const off = outside.length === 0 ? '' : ` Outside: ${outside.join(', ')}.`;
  const open =
    unjudged.length === 0
      ? ''
      : ` Not judged, as a limit or a size is missing or a part is out of limits: ${unjudged.join(', ')}.`;
  return `Oil clearance inside the engine maker’s limits at ${inside} of ${rows.length} bearings, ${how}.${off}${open}`;
}

/** What was fitted, with the clearances before and now. */
function doneSection(signed: Signed): ReportSection {
  const { document, readings, shown } = signed;
  const { limits, cameApart, before } = document;
  const rows = stationRows(signed);
  const now = endPlayNow(document.endPlay);
  const earlier = cameApart.endPlay?.nm ?? before?.endPlay ?? null;
  const passes = jobPassStates(document);
  const done = passes.filter(isPassDone).length;
  const { stations } = jobFacts(document, readings);
  const checks = jobAssembly(document, stations).flatMap((one) => [...one.before, ...one.after]);
  const made = checks.filter((one) => one.made !== null && !one.isOutdated).length;
  const endPlay =
    now === null
      ? []
      : [
          [
            `End play of the crankshaft: ${lengthText(Math.round(now.mean), shown)}`,
            ...(earlier === null ? [] : [`before ${lengthText(earlier, shown)}`]),
            ...(limits.endPlay
              ? [`limits ${workedOutText(limits.endPlay.low, shown)} to ${lengthText(limits.endPlay.high, shown)}`]
              : []),
          ].join(', '),
        ];
  return {
    title: 'Work done, before and after',
    lines: [
      clearanceLine(rows),
      ...endPlay,
      ...(passes.length === 0 ? [] : [`Bolts tightened: ${done} of ${passes.length} passes done.`]),
      ...(made === 0 ? [] : [`Checks during assembly: ${made} of ${checks.length} made.`]),
    ].map((text) => ({ text })),
    table:
      rows.length === 0
        ? null
        : withoutEmpty({
            head: ['Bearing', 'Shells fitted', `Clearance before, ${shown}`, `Now, ${shown}`, 'Limits', 'Basis'],
            figures: [false, false, true, true, true, false],
            rows: rows.map(({ cells }) => cells),
          }),
  };
}

/** The same table without columns in which nothing stands. */
function withoutEmpty({ head, figures, rows }: ReportTable): ReportTable {
  const isFilled = head.map((_, at) => rows.some((row) => row[at] !== ''));
  const kept = <Cell>(cells: readonly Cell[]) => cells.filter((_, at) => isFilled[at]);
  return { head: kept(head), figures: kept(figures), rows: rows.map(kept) };
}

function findingsOf({ document, readings }: Signed) {
  const { stations } = jobFacts(document, readings);
  return jobAssembly(document, stations)
    .flatMap((one) => [...one.before, ...one.after])
    .flatMap(({ station, what, made }) => (made?.state === 'found' ? [{ station, what, made }] : []));
}

/** What was refused and why, and problems with what was decided about them. */
function refusedSection(signed: Signed): ReportSection {
  const { document } = signed;
  const found = findingsOf(signed).map(
    ({ station, what, made }) =>
      `${station}, ${what.toLowerCase()}: ${made.words}. ${made.decision === null ? 'Not decided yet' : `Decided: ${made.decision.words}`}`,
  );
  const lines = [...(document.report.refused === '' ? [] : [document.report.refused]), ...found];
  return {
    title: 'Refused, and why',
    lines: (lines.length === 0 ? ['Nothing noted as refused.'] : lines).map((text) => ({ text })),
    table: null,
  };
}

/** What became of it since, and what is to be done again. */
function afterSection({ document: { running } }: Signed): ReportSection[] {
  if (!isRunningBegun(running)) return [];
  const read = pressuresNow(running).map(({ moment, read: one, state, limit }) => {
    const word =
      state === 'inside' ? 'inside' : state === 'no-limit' ? '' : `too ${state === 'under' ? 'low' : 'high'}:`;
    const said = limit === null ? '' : `, ${word} ${pressureLimitText(limit)}`;
    return `Oil pressure ${PRESSURE_WORDS[moment]}: ${pressureText(one)}${said}`;
  });
  const found = startChecks(running).flatMap(([check, made]) =>
    made?.state === 'found' ? [`At the first start: ${made.words || `problem: ${START_WORDS[check].what}`}`] : [],
  );
  const again = recheckStates(running).flatMap((one) =>
    one.done === null ? [`Re-check, ${recheckDueText(one, running.unit)}: ${one.what}`] : [],
  );
  const lines = [...read, ...found, ...again];
  return lines.length === 0 ? [] : [{ title: 'After the build', lines: lines.map((text) => ({ text })), table: null }];
}

/** Pictures of old shells, then of problems, with their stations. */
function picturesOf(signed: Signed): ReportPicture[] {
  const { document, readings } = signed;
  const old = jobFacts(document, readings).stations.flatMap(({ id }) =>
    (['upper', 'lower'] as const).flatMap((side) => {
      const half = document.cameApart.stations[id]?.[side];
      if (!half?.photo) return [];
      const words = halfWords(half);
      return [{ photo: half.photo, caption: `${id}, old ${side} shell${words === '' ? '' : `: ${words}`}` }];
    }),
  );
  const found = findingsOf(signed).flatMap(({ station, made }) =>
    made.photo === null ? [] : [{ photo: made.photo, caption: `${station}: ${made.words}` }],
  );
  return [...old, ...found];
}

/** Who did the work, in the order of the alphabet: who read, who assembled, who signed. */
function people({ document, readings, signOff }: Signed): string[] {
  const { assembly, cameApart, torque } = document;
  const named = [
    ...readings.filter(({ nm }) => nm !== null).map(({ by }) => by),
    ...Object.values(assembly.checks).map(({ by }) => by),
    ...Object.values(cameApart.stations).map(({ by }) => by),
    ...Object.values(torque.passes).map(({ by }) => by),
    signOff.signedBy,
  ];
  return [...new Set(named)].sort((one, other) => one.localeCompare(other));
}

/**
 * What the customer of an engine is told, in plain words: what was found, what was done, what was refused and why, before and after. Its figures
 * are those of the signed sheet, which is named by its hash where it is printed.
 *
 * @param signed an engine that is as its sheet says: the caller has compared the two
 */
export function customerReport(signed: Signed): CustomerReport {
  const { document, signOff, isNamed } = signed;
  const open = listed(signOff.open, MOST_OPEN);
  return {
    engine: document.name,
    serial: document.serial,
    sections: [
      foundSection(signed),
      doneSection(signed),
      refusedSection(signed),
      ...(open.length === 0 ? [] : [{ title: 'Open when signed', lines: open.map((text) => ({ text })), table: null }]),
      ...afterSection(signed),
      ...(document.report.words === ''
        ? []
        : [{ title: 'From the workshop', lines: [{ text: document.report.words }], table: null }]),
      {
        title: 'How sure the figures are',
        lines: [
          { text: `Build sheet, revision ${signOff.revision}, signed`, at: signOff.signedAt },
          ...(isNamed ? [{ text: `Work by ${people(signed).join(', ')}; signed by ${signOff.signedBy}.` }] : []),
          {
            text: 'Oil clearance is the gap between shaft and shell that the oil fills; end play is how far the crankshaft moves lengthways. Sizes are as good as the readings. The engine maker’s data decide.',
          },
        ],
        table: null,
      },
    ],
    pictures: picturesOf(signed),
  };
}

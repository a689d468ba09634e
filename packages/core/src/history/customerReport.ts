import { jobAssembly } from '../assembly/assemblyFacts.js';
import { halfWords, isDescribed } from '../cameApart/foundApart.js';
import { jobFacts } from '../job/jobFacts.js';
import { lengthText, workedOutText } from '../measure/lengthText.js';
import type { ShownUnit } from '../measure/shownUnit.js';
import { FEATURE_TABLE } from '../part/feature.js';
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
import { doneSection } from './doneSection.js';
import type { ReportSection, SignedEngine } from './reportSection.js';
import { thenAndNow } from './thenAndNow.js';

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
function foundSection({ document, readings, shown }: SignedEngine): ReportSection {
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

function findingsOf({ document, readings }: SignedEngine) {
  const { stations } = jobFacts(document, readings);
  return jobAssembly(document, stations)
    .flatMap((one) => [...one.before, ...one.after])
    .flatMap(({ station, what, made }) => (made?.state === 'found' ? [{ station, what, made }] : []));
}

/** What was refused and why, and problems with what was decided about them. */
function refusedSection(signed: SignedEngine): ReportSection {
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
function afterSection({ document: { running } }: SignedEngine): ReportSection[] {
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
function picturesOf(signed: SignedEngine): ReportPicture[] {
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
function people({ document, readings, signOff }: SignedEngine): string[] {
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
export function customerReport(signed: SignedEngine): CustomerReport {
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

import { bandsOf } from '../codes/markedBands.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { budgetUncertainty, sumBudget } from '../measure/budget.js';
import type { Family } from '../part/family.js';
import type { Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { assemblyOffset } from '../station/assemblyOffset.js';
import type { JobStation } from '../station/jobStations.js';
import { isTelling } from '../station/stationOffsets.js';
import type { StationTrial } from '../station/stationTrial.js';
import { fastenersWords } from '../torque/fastenersWords.js';

/** What the trials of an engine say of one family, one series of shells and one set of fasteners. */
export interface OffsetEvidence {
  readonly family: Family;
  readonly series: string;
  /** In words; empty: nobody said. */
  readonly fasteners: string;
  /** nm. */
  readonly offset: number;
  /** Standard uncertainty, nm. */
  readonly u: number;
  readonly trials: number;
}

/** A trial that earlier trials of the engine had predicted. */
export interface CheckEvidence {
  readonly station: string;
  readonly family: Family;
  readonly series: string;
  readonly at: string;
  readonly by: string;
  /** Measured less what its parts and the earlier trials let expect, nm. */
  readonly off: number;
  /** Standard uncertainty of that, nm. */
  readonly u: number;
}

/** A part with what it carries and what it measures. */
export interface PartEvidence {
  readonly feature: Feature;
  readonly number: number;
  /** Empty: none that the data sheet knows. */
  readonly mark: string;
  /** Mean of its readings, nm; null: not read. */
  readonly size: number | null;
}

/** The wall of a kind of shells that was measured, and the band that its grade promises. */
export interface WallEvidence {
  readonly shell: string;
  readonly family: Family;
  readonly series: string;
  readonly grade: string;
  readonly half: 'upper' | 'lower' | 'either';
  readonly wall: number;
  readonly low: number | null;
  readonly high: number | null;
}

/** How many shells of a grade were accepted. */
export interface UseEvidence {
  readonly family: Family;
  readonly series: string;
  readonly grade: string;
  readonly half: 'upper' | 'lower';
  readonly count: number;
}

/** What one engine tells the workshop. */
export interface EngineEvidence {
  /** Its engine type, by the name of the data sheet; empty: none. */
  readonly type: string;
  /** When its selection was accepted, and by whom. */
  readonly at: string;
  readonly by: string;
  readonly offsets: readonly OffsetEvidence[];
  readonly checks: readonly CheckEvidence[];
  readonly parts: readonly PartEvidence[];
  readonly walls: readonly WallEvidence[];
  readonly uses: readonly UseEvidence[];
}

interface Told {
  readonly station: string;
  readonly family: Family;
  readonly series: string;
  readonly fasteners: string;
  readonly tried: StationTrial & { readonly difference: NonNullable<StationTrial['difference']> };
}

/** Every trial that tells something, in the order in which they were made. */
function toldTrials(job: JobDocument, stations: readonly JobStation[]): Told[] {
  const all = stations.flatMap(({ id, family, tried, earlier }) =>
    [...earlier, ...(tried ? [tried] : [])].flatMap((one): Told[] => {
      const { upper, lower, madeOf } = one.trial;
      if (!isTelling(one) || upper.series !== lower.series || one.u <= 0) return [];
      const fasteners = fastenersWords(madeOf?.fasteners ?? job.fasteners[family]);
      return [{ station: id, family, series: upper.series, fasteners, tried: one as Told['tried'] }];
    }),
  );
  return all.sort((one, other) => (one.tried.trial.at < other.tried.trial.at ? -1 : 1));
}

const groupOf = ({ family, series, fasteners }: Told) => `${family}\n${series}\n${fasteners}`;

const asDifference = ({ station, tried }: Told) => ({
  station,
  difference: tried.difference,
  budget: tried.budget,
});

function offsetEvidence(told: readonly Told[]): OffsetEvidence[] {
  return [...new Set(told.map(groupOf))].map((group) => {
    const own = told.filter((one) => groupOf(one) === group);
    const { offset, u } = assemblyOffset(own.map(asDifference))!;
    const { family, series, fasteners } = own[0]!;
    return { family, series, fasteners, offset, u, trials: own.length };
  });
}

/**
 * Each trial against the offset of those before it: what Fettle would have told of it. The first of a group tells the offset and checks nothing.
 */
function checkEvidence(told: readonly Told[]): CheckEvidence[] {
  return told.flatMap((one, at) => {
    const before = told.slice(0, at).filter((other) => groupOf(other) === groupOf(one));
    const known = assemblyOffset(before.map(asDifference));
    if (known === null) return [];
    const u = budgetUncertainty(
      sumBudget([
        [one.tried.budget, 1],
        [known.budget, -1],
      ]),
    );
    const { station, family, series, tried } = one;
    return [
      { station, family, series, at: tried.trial.at, by: tried.trial.by, off: tried.difference - known.offset, u },
    ];
  });
}

/**
 * What a grade is counted under where shells are used up: those of an undersize are others.
 *
 * @example gradeUsed({ grade: 'Teal', undersize: '0.25' }) // 'Teal, 0.25 under'
 */
export function gradeUsed({
  grade,
  undersize,
}: {
  readonly grade: string;
  readonly undersize?: string | undefined;
}): string {
  return undersize === undefined ? grade : `${grade}, ${undersize} under`;
}

/**
 * What an engine whose selection was accepted tells the workshop: what its trials say of the assembly, whether they came as predicted, marks and sizes
 * of its parts, walls that were measured, shells that were taken.
 *
 * @param readings current readings, any order
 * @returns null while nothing is accepted
 */
export function engineEvidence(job: JobDocument, readings: readonly Reading[]): EngineEvidence | null {
  const { choice, sheet } = job;
  if (choice === null) return null;
  const { parts, stations, features } = jobFacts(job, readings);
  const told = toldTrials(job, stations);
  const uses = new Map<string, UseEvidence>();
  const taken = new Set<string>();
  for (const { upper, lower } of Object.values(choice.stations)) {
    for (const [half, { shell }] of [['upper', upper] as const, ['lower', lower] as const]) {
      const kind = job.shells[shell];
      if (!kind) continue;
      taken.add(shell);
      const { family, series } = kind;
      const grade = gradeUsed(kind);
      const key = `${family}\n${series}\n${grade}\n${half}`;
      uses.set(key, { family, series, grade, half, count: (uses.get(key)?.count ?? 0) + 1 });
    }
  }
  const walls = [...taken].flatMap((shell): WallEvidence[] => {
    const { family, series, grade, half, wall, band, undersize } = job.shells[shell]!;
    if (band) return [];
    const codes = sheet?.[family];
    const grades =
      undersize === undefined
        ? (codes?.grades ?? [])
        : (codes?.undersizes.find(({ name }) => name === undersize)?.grades ?? []);
    const promised = grades.find(({ mark }) => mark === grade);
    return [{ shell, family, series, grade, half, wall, low: promised?.low ?? null, high: promised?.high ?? null }];
  });
  return {
    type: sheet?.name ?? '',
    at: choice.at,
    by: choice.by,
    offsets: offsetEvidence(told),
    checks: checkEvidence(told),
    parts: features.flatMap((feature) => {
      const known = new Set(bandsOf(sheet, feature).map(({ mark }) => mark));
      return parts[feature].flatMap(({ number, mark, size }): PartEvidence[] => {
        const read = size?.kind === 'read' ? size.nominal : null;
        const own = mark !== null && known.has(mark) ? mark : '';
        return read === null && own === '' ? [] : [{ feature, number, mark: own, size: read }];
      });
    }),
    walls,
    uses: [...uses.values()],
  };
}

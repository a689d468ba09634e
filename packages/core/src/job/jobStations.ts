import { clearanceAim } from '../clearance/clearanceAim.js';
import type { Family } from '../fit/fitRequest.js';
import { type EffectiveSize, effectiveSize } from '../measure/effectiveSize.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { CrankLayout } from '../station/crankLayout.js';
import type { JobDocument, Limit } from './jobDocument.js';
import type { Feature, Reading } from './reading.js';

/** A size outside the data sheet's limits: no shell cures it. */
export interface SizeFinding {
  readonly feature: Feature;
  /** Nanometres beyond the limit, above zero. */
  readonly by: Nanometres;
  readonly side: 'under' | 'over';
}

/** One measured part: a housing bore or a journal. */
export interface MeasuredPart {
  /** What it is called: `M3` for a main's bore or journal, `R2` for a rod's big end, `P2` for a pin. */
  readonly name: string;
  readonly feature: Feature;
  readonly number: number;
  readonly size: EffectiveSize | null;
  /** Slots of the measuring scheme that have no size yet. */
  readonly missing: number;
  readonly findings: readonly SizeFinding[];
}

/** What is known about one station: a main, or a crankpin with the rod that is placed on it. */
export interface JobStation {
  /** `M1` at the front; `P1` the pin of the first rod from the front. */
  readonly id: string;
  readonly family: Family;
  readonly number: number;
  /** Number of the rod on a pin; null at a main, or while no rod is placed. */
  readonly rod: number | null;
  readonly bore: EffectiveSize | null;
  readonly journal: EffectiveSize | null;
  /** Clearance limits of the data sheet, or null. */
  readonly limits: Limit | null;
  /** Clearance aimed at, or null when what it is counted from is missing. */
  readonly aim: Nanometres | null;
  readonly findings: readonly SizeFinding[];
}

const PREFIX: Readonly<Record<Feature, string>> = { mainBore: 'M', mainJournal: 'M', bigEnd: 'R', pin: 'P' };

/**
 * The name of a measured part.
 *
 * @example partName('bigEnd', 2) // 'R2'
 */
export function partName(feature: Feature, number: number): string {
  return `${PREFIX[feature]}${number}`;
}

/**
 * How many rods a shaft carries: one or two on each of its pins.
 *
 * @example rodCount(usualLayout(5, 8, 2, 5).layout) // 8
 */
export function rodCount(layout: CrankLayout): number {
  return layout.pins.reduce((sum, pin) => sum + pin.rods, 0);
}

/** The features that a job measures: those of the rods only where the rods are part of it. */
export function featuresOf(job: Pick<JobDocument, 'withRods'>): readonly Feature[] {
  return job.withRods ? ['mainBore', 'mainJournal', 'bigEnd', 'pin'] : ['mainBore', 'mainJournal'];
}

function findingsOf(feature: Feature, size: EffectiveSize | null, limit: Limit | null): SizeFinding[] {
  if (!size || !limit) return [];
  const findings: SizeFinding[] = [];
  if (size.smallest < limit.low) findings.push({ feature, by: nanometres(limit.low - size.smallest), side: 'under' });
  if (size.largest > limit.high) findings.push({ feature, by: nanometres(size.largest - limit.high), side: 'over' });
  return findings;
}

/**
 * All parts of one feature from front to rear (rods by number) with their effective sizes.
 *
 * @param readings current readings only, any order; those without a size (unreadable text) do not count and stay missing
 */
export function measuredParts(job: JobDocument, readings: readonly Reading[], feature: Feature): MeasuredPart[] {
  const count = feature === 'bigEnd' || feature === 'pin' ? rodCount(job.layout) : job.layout.mains;
  return Array.from({ length: count }, (_, at) => {
    const number = at + 1;
    const sizes = readings.flatMap((reading) =>
      reading.feature === feature && reading.station === number && reading.nm !== null ? [reading.nm] : [],
    );
    const size = effectiveSize(sizes);
    return {
      name: partName(feature, number),
      feature,
      number,
      size,
      missing: Math.max(0, job.measuring.slots[feature].length - sizes.length),
      findings: findingsOf(feature, size, job.limits[feature]),
    };
  });
}

function stationOf(job: JobDocument, family: Family, bore: MeasuredPart | null, journal: MeasuredPart): JobStation {
  const id = journal.name;
  const limits = family === 'main' ? job.limits.mainClearance : job.limits.rodClearance;
  const aim = family === 'main' ? job.rules.aim : job.rules.rodAim;
  const extra = job.rules.extras[id] ?? nanometres(0);
  return {
    id,
    family,
    number: journal.number,
    rod: family === 'rod' ? (bore?.number ?? null) : null,
    bore: bore?.size ?? null,
    journal: journal.size,
    limits,
    aim: clearanceAim(aim, limits, journal.size?.nominal ?? null, extra),
    findings: [...(bore?.findings ?? []), ...journal.findings],
  };
}

/** The mains of a job from front to rear with their effective sizes, limits and aims. */
export function mainStations(job: JobDocument, readings: readonly Reading[]): JobStation[] {
  const bores = measuredParts(job, readings, 'mainBore');
  return measuredParts(job, readings, 'mainJournal').map((journal, at) => stationOf(job, 'main', bores[at]!, journal));
}

/**
 * The crankpins of a job from front to rear, each with the rod placed on it; none where the rods are not part of the job.
 *
 * @param placed per pin (`P1`) the number of its rod; a pin that is left out has no rod yet
 */
export function rodStations(
  job: JobDocument,
  readings: readonly Reading[],
  placed: Readonly<Record<string, number>>,
): JobStation[] {
  if (!job.withRods) return [];
  const rods = measuredParts(job, readings, 'bigEnd');
  return measuredParts(job, readings, 'pin').map((pin) => {
    const rod = placed[pin.name];
    return stationOf(job, 'rod', rod === undefined ? null : (rods[rod - 1] ?? null), pin);
  });
}

/** The pins that rods are kept on by the fitter's wish: per pin the rod's number. */
export function pinnedRods(job: JobDocument): Record<string, number> {
  const placed: Record<string, number> = {};
  for (const [rod, { pin }] of Object.entries(job.rods)) if (pin !== null) placed[partName('pin', pin)] = Number(rod);
  return placed;
}

/** The rods that a choice puts on the pins: per pin the rod's number. */
export function placedRods(stations: NonNullable<JobDocument['choice']>['stations']): Record<string, number> {
  return Object.fromEntries(
    Object.entries(stations).flatMap(([id, { rod }]) => (rod === null ? [] : [[id, rod] as const])),
  );
}

/** What a rod is called: its number, and its mark where it has one. */
export function rodLabel(job: Pick<JobDocument, 'rods'>, number: number): string {
  const mark = job.rods[String(number)]?.mark ?? '';
  return mark === '' ? `R${number}` : `R${number} ${mark}`;
}

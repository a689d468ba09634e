import { REFERENCE_C, sizeAt20 } from '../clearance/temperature.js';
import { type MarkDisagreement, markDisagreement } from '../codes/markDisagreement.js';
import { bandsOf, markedBands } from '../codes/markedBands.js';
import { onceFor } from '../document/onceFor.js';
import { limitAt } from '../engineType/limits.js';
import { type EffectiveSize, markedSize, type ReadBy, readSize } from '../measure/effectiveSize.js';
import type { Limit } from '../measure/lengthSchema.js';
import { meanOf } from '../measure/mean.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { featuresOf } from '../part/familiesOf.js';
import { FAMILY_TABLE } from '../part/family.js';
import type { Feature } from '../part/feature.js';
import { eachFeature, FEATURE_TABLE, featureOf, partCount, partName, tellsSize } from '../part/feature.js';
import type { Material } from '../part/material.js';
import type { Reading, ReadingReason } from '../part/reading.js';
import { isSwappedSince } from '../part/swappedSince.js';
import type { Undersize } from '../shell/undersize.js';
import { undersizeOf } from '../shell/undersize.js';
import type { MeasuredJob } from './measuredJob.js';
import { type PartShape, partShape } from './partShape.js';
import {
  driftCorrected,
  type InstrumentThen,
  instrumentAt,
  instrumentInUse,
  instrumentThen,
  readWith,
} from './readWith.js';
import { suspectReadings } from './suspectReadings.js';

/** A size, or a shape, outside the data sheet's limits: no shell cures it. */
export interface SizeFinding {
  readonly feature: Feature;
  readonly kind: 'size' | 'out-of-round' | 'taper';
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
  /** From readings, or, where there are none, from the band of its mark. */
  readonly size: EffectiveSize | null;
  /** The mark it carries, where its data sheet knows it. */
  readonly mark: string | null;
  /** Where its readings and its mark disagree: the readings decide. */
  readonly disagreement: MarkDisagreement | null;
  /** The undersize that a journal was ground to; null for a standard one. */
  readonly undersize: Undersize | null;
  /** True if it is a housing that was read with other fasteners than hold it now. */
  readonly isOutdated: boolean;
  /** When the last of its readings was taken after it was machined; null: none was. */
  readonly machinedAt: string | null;
  /** When the last of its readings took the place of a wrong one; null: none did. */
  readonly correctedAt: string | null;
  readonly shape: PartShape;
  /** What was added to the mean of its readings for the errors of their instruments, nm; 0 where nothing was. */
  readonly correction: Nanometres;
  /** Slots of the measuring scheme that have no size yet. */
  readonly missing: number;
  readonly findings: readonly SizeFinding[];
}

/** True if readings are still to be taken: a mark is enough where the fitter chooses by marks alone. */
export function isWanting({ depth }: Pick<MeasuredJob, 'depth'>, { missing, mark }: MeasuredPart): boolean {
  return missing > 0 && !(depth === 'codes' && mark !== null);
}

/** When the last of some readings was taken that has one of some reasons; null: none. */
function lastFor(readings: readonly Reading[], reasons: readonly ReadingReason[]): string | null {
  return readings.reduce<string | null>((last, { taken, at }) => {
    const isOne = reasons.some((reason) => reason === taken?.reason);
    return isOne && (last === null || at > last) ? at : last;
  }, null);
}

/** True if any of some readings was taken before a moment. */
function isReadBefore(readings: readonly Reading[], moment: string | null): boolean {
  return moment !== null && readings.some(({ nm, at }) => nm !== null && at < moment);
}

/** True if any of some readings of a housing was taken with a cap that has changed places since. */
function isWithOtherCap(job: MeasuredJob, name: string, readings: readonly Reading[]): boolean {
  return readings.some(({ nm, at }) => nm !== null && isSwappedSince(job.assembly, [name], ['cap'], at));
}

function findingsOf(feature: Feature, size: EffectiveSize | null, limit: Limit | null): SizeFinding[] {
  if (!size || !limit) return [];
  const findings: SizeFinding[] = [];
  const found = (by: number, side: SizeFinding['side']) =>
    findings.push({ feature, kind: 'size', by: nanometres(by), side });
  if (size.smallest < limit.low) found(limit.low - size.smallest, 'under');
  if (size.largest > limit.high) found(size.largest - limit.high, 'over');
  return findings;
}

/** The limits of shape that hold for a bore, and for a journal or pin. */
const SHAPE_LIMITS = {
  housing: { 'out-of-round': 'boreOutOfRound', taper: 'boreTaper' },
  journal: { 'out-of-round': 'outOfRound', taper: 'taper' },
} as const;

/** Out-of-round and taper of a part beyond the data sheet's limits. */
function shapeFindings(job: MeasuredJob, feature: Feature, { outOfRound, taper }: PartShape): SizeFinding[] {
  const shapes = [
    { kind: 'out-of-round', value: outOfRound ?? 0 },
    { kind: 'taper', value: taper ?? 0 },
  ] as const;
  return shapes.flatMap(({ kind, value }): SizeFinding[] => {
    const limit = job.limits[SHAPE_LIMITS[FEATURE_TABLE[feature].role][kind]];
    return limit && value > limit.high ? [{ feature, kind, by: nanometres(value - limit.high), side: 'over' }] : [];
  });
}

/** What a part is made of, by its coefficient of expansion; null where that is not known. Journals and pins are of steel. */
export function expansionOf(
  { materials, warm }: Pick<MeasuredJob, 'materials' | 'warm'>,
  feature: Feature,
): number | null {
  const alpha = (material: Material) => (material === 'unknown' ? null : warm[material]);
  if (FEATURE_TABLE[feature].role === 'journal') return warm.steel;
  const { heldBy } = FAMILY_TABLE[FEATURE_TABLE[feature].family];
  const [upper, lower] = [alpha(materials[heldBy[0]]), alpha(materials[heldBy[1]])];
  return upper === null || lower === null ? null : (upper + lower) / 2;
}

/** What a reading comes to, step by step. */
export interface ReadingSteps {
  /** As it was read. */
  readonly read: Nanometres;
  readonly instrument: InstrumentThen;
  /** What the instrument showed too much by its calibration, and had drifted by where that is corrected, nm. */
  readonly error: Nanometres;
  readonly drift: Nanometres;
  /** What counts: without both, at 20 °C. */
  readonly size: Nanometres;
}

/**
 * What a reading comes to: less the error of its instrument by the calibration of then, less what it had drifted by where the fitter says so, at
 * 20 °C where temperatures were taken and it is known what the part is made of.
 *
 * @returns null for a reading that is no size
 */
export function readingSteps(job: MeasuredJob, reading: Reading): ReadingSteps | null {
  const { nm, feature, taken } = reading;
  if (nm === null) return null;
  const setOn = setOnOf(job, reading);
  // Zeroed in the bore, it is the micrometer brought to the gauge that said the size.
  const instrument =
    setOn === undefined
      ? instrumentThen(job, reading)
      : instrumentAt(job, setOn, { size: nm, travel: null, at: reading.at });
  const error = instrument.error?.kind === 'known' ? instrument.error.error : nanometres(0);
  const drift = nanometres(driftCorrected(instrument, reading));
  const corrected = nanometres(nm - error - drift);
  const alpha = expansionOf(job, feature);
  const gauge = { alpha: job.warm.steel, celsius: taken?.gaugeCelsius ?? REFERENCE_C };
  const isWarm = taken?.celsius != null && alpha !== null;
  const size = isWarm ? sizeAt20(corrected, { alpha, celsius: taken.celsius! }, gauge) : corrected;
  return { read: nm, instrument, error, drift, size };
}

/** The size at 20 °C that a reading tells; null for one that is no size. */
export function sizeAtReference(job: MeasuredJob, reading: Reading): Nanometres | null {
  return readingSteps(job, reading)?.size ?? null;
}

/**
 * What a reading shares its errors with: the instrument, or, where a gauge was zeroed in the bore, the micrometer that was brought to it. Which
 * micrometer that was is told by what journals of the family are read with.
 */
function setOnOf(job: MeasuredJob, { feature, taken }: Reading): string | undefined {
  const { role, family } = FEATURE_TABLE[feature];
  return role === 'housing' && taken?.mode === 'bore' ? instrumentInUse(job, featureOf(family, 'journal')) : undefined;
}

/** What some readings of a part were taken with: how many with each instrument, and what its calibration is known to there. */
function readByOf(job: MeasuredJob, readings: readonly Reading[], steps: readonly ReadingSteps[]): ReadBy[] {
  const found = new Map<string, ReadBy & { readonly squares: number }>();
  for (const [at, { instrument: then }] of steps.entries()) {
    const reading = readings[at]!;
    const setOn = setOnOf(job, reading);
    const alpha = reading.taken?.celsius == null ? null : expansionOf(job, reading.feature);
    const gauge = readWith(job, reading);
    const key = `${gauge} ${setOn ?? ''} ${alpha ?? ''}`;
    const before = found.get(key);
    const count = (before?.count ?? 0) + 1;
    const squares = (before?.squares ?? 0) + (then.error?.kind === 'known' ? then.error.u : 0) ** 2;
    found.set(key, {
      instrument: gauge,
      setOn,
      ...(alpha === null ? {} : { alpha }),
      count,
      squares,
      scale: Math.sqrt(squares / count),
    });
  }
  return [...found.values()].map(({ squares: _, ...one }) => one);
}

/**
 * All parts of one feature from front to rear (rods by number) with their effective sizes: from readings; from the band of its mark
 * where a part was not read.
 *
 * @param readings current readings only, any order; those without a size (unreadable text) do not count and stay missing
 */
export function measuredParts(job: MeasuredJob, readings: readonly Reading[], feature: Feature): MeasuredPart[] {
  const marked = markedBands(job, feature);
  const { family, role } = FEATURE_TABLE[feature];
  const isJournal = role === 'journal';
  const byPart = new Map<number, Reading[]>();
  // What is suspect stands apart and counts nowhere until it is confirmed.
  const suspect = new Set(suspectReadings(job, readings));
  for (const reading of readings) {
    if (reading.feature !== feature || suspect.has(reading)) continue;
    const own = byPart.get(reading.station);
    if (own) own.push(reading);
    else byPart.set(reading.station, [reading]);
  }
  return Array.from({ length: partCount(job.layout, feature) }, (_, at) => {
    const number = at + 1;
    const own = byPart.get(number) ?? [];
    const sized = own.filter(({ nm }) => nm !== null);
    const each = sized.map((reading) => readingSteps(job, reading)!);
    const telling = sized.filter(({ slot }) => tellsSize(feature, slot));
    const steps = each.filter((_, nth) => tellsSize(feature, sized[nth]!.slot));
    const shape = partShape(sized.map(({ slot }, nth) => ({ slot, size: each[nth]!.size })));
    const read = readSize(
      steps.map(({ size }) => size),
      readByOf(job, telling, steps),
    );
    const band = marked.get(number) ?? null;
    const standard = findingsOf(feature, read, limitAt(job, feature, number));
    const undersize =
      read && isJournal && standard.length > 0 ? undersizeOf(read, job.sheet?.[family].undersizes ?? []) : null;
    return {
      name: partName(feature, number),
      feature,
      number,
      size: read ?? (band && markedSize(band)),
      mark: band?.mark ?? null,
      disagreement:
        read && band
          ? markDisagreement(
              isJournal ? 'journal' : 'bore',
              read.nominal,
              band.mark,
              bandsOf(job.sheet, feature),
              job.measuring.uncertainty,
            )
          : null,
      undersize,
      machinedAt: lastFor(own, ['part machined since']),
      correctedAt: lastFor(own, ['typed wrong', 'misread']),
      isOutdated:
        !isJournal &&
        (isReadBefore(own, job.fasteners[family].since) || isWithOtherCap(job, partName(feature, number), own)),
      shape,
      correction: correctionOf(steps),
      missing: Math.max(0, job.measuring.slots[feature].length - sized.length),
      findings: [...(undersize ? [] : standard), ...shapeFindings(job, feature, shape)],
    };
  });
}

/** What some readings were corrected by for their instruments, on average, nm. */
function correctionOf(steps: readonly ReadingSteps[]): Nanometres {
  if (steps.length === 0) return nanometres(0);
  return nanometres(Math.round(-meanOf(steps.map(({ error, drift }) => error + drift))));
}

/** All parts of every feature; none of a feature that the job does not measure. */
export type MeasuredParts = Readonly<Record<Feature, readonly MeasuredPart[]>>;

/**
 * All parts of an engine, each measured once for a document and its readings, whoever asks.
 *
 * @param readings current readings only, any order
 */
export const allParts: (job: MeasuredJob, readings: readonly Reading[]) => MeasuredParts = onceFor((job, readings) => {
  const features = featuresOf(job);
  return eachFeature((feature) => (features.includes(feature) ? measuredParts(job, readings, feature) : []));
});

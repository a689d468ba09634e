import { limitAt } from '../engineType/limits.js';
import { readingUncertainty } from '../measure/instrument.js';
import { judgedReading } from '../measure/misreading.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Needle } from '../measure/parseLength.js';
import type { Unit } from '../measure/unit.js';
import { FEATURE_TABLE, type Feature, type Slot, tellsSize } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { type Plane, placeOfSlot, slotAt } from '../part/slot.js';
import type { MeasuredJob } from './measuredJob.js';
import { instrumentFor } from './readWith.js';

/** How a figure was typed, where it stands already: in the unit and with the needle of then. Left out, as it is typed now. */
export interface TypedHow {
  readonly unit?: Unit | undefined;
  readonly needle?: Needle | null | undefined;
  readonly slot?: Slot | undefined;
  /** When it was read; null or left out: now. */
  readonly at?: string | null | undefined;
  /** True if the reader was asked about it and says that it is right. */
  readonly isConfirmed?: boolean | undefined;
}

/** The part that a figure is of; without a number what holds for every one is asked. */
export interface Place {
  readonly feature: Feature;
  readonly station: number | null;
}

/**
 * Readings of one part further apart than this many standard uncertainties of their difference are asked about. Five: by chance once in
 * a million. A setting of ours, to be seen in what is said.
 */
const FAR = 5;

/** How far two readings of one bore may be apart by how its gauge repeats, nm. */
function farApart(job: MeasuredJob, feature: Feature): number {
  return FAR * Math.SQRT2 * readingUncertainty({ ...instrumentFor(job, feature), setting: nanometres(0) }, 1);
}

/**
 * How far a reading in the middle plane of a journal lies beyond those at both ends, in its direction; null where it lies between them, or one of them
 * is missing. Taper and wear from end to end do not do that; the edge of an oil hole does, and a barrel.
 */
function offBothEnds(beside: readonly Reading[], slot: Slot, nm: Nanometres): number | null {
  const { plane, angle } = placeOfSlot(slot);
  const at = (end: Plane) => beside.find((one) => one.slot === slotAt('journal', end, angle))?.nm ?? null;
  const [front, rear] = [at('front'), at('rear')];
  if (plane !== 'middle' || front === null || rear === null) return null;
  const isBeyond = nm > Math.max(front, rear) || nm < Math.min(front, rear);
  return isBeyond ? Math.min(Math.abs(nm - front), Math.abs(nm - rear)) : null;
}

/** True if a size can be that of its part: one that cannot accuses no other. */
export function isBelievable(job: MeasuredJob, { feature, station }: Place, nm: Nanometres): boolean {
  const limit = limitAt(job, feature, station);
  return limit === null || judgedReading(nm, { ...limit, unit: job.unit }).verdict !== 'implausible';
}

/**
 * How far the nearest of the other readings of a bore in the bolt direction is from a figure; of a journal, which may be out of round and tapered, how
 * far its middle lies beyond both ends. Null where that is little, or they do not tell.
 */
export function farFrom(
  job: MeasuredJob,
  { feature, station }: Place,
  nm: Nanometres,
  { slot, at }: TypedHow,
  others: readonly Reading[],
): number | null {
  if (slot === undefined || !tellsSize(feature, slot)) return null;
  const beside = others.filter(
    (one) =>
      one.feature === feature &&
      one.station === station &&
      one.slot !== slot &&
      one.nm !== null &&
      tellsSize(feature, one.slot) &&
      isBelievable(job, { feature, station }, one.nm),
  );
  if (FEATURE_TABLE[feature].role === 'journal') {
    const off = offBothEnds(beside, slot, nm);
    return off !== null && off > farApart(job, feature) ? off : null;
  }
  // Of two that differ the later one is asked about: nothing says which of them is right.
  const [only] = beside;
  if (beside.length === 1 && at != null && (only!.at > at || (only!.at === at && only!.slot > slot))) return null;
  const nearest = Math.min(...beside.map((one) => Math.abs(nm - one.nm!)));
  return beside.length > 0 && nearest > farApart(job, feature) ? nearest : null;
}

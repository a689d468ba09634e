import { divideRounded, type Nanometres, nanometres } from './nanometres.js';

/** The sizes of one feature that count for its clearance. */
export interface EffectiveSize {
  /** Mean of the readings, to the nearest nanometre, halves away from zero. */
  readonly nominal: Nanometres;
  readonly smallest: Nanometres;
  readonly largest: Nanometres;
  /** How many readings stand behind it. */
  readonly count: number;
}

/**
 * The effective size of a bore (its readings in the bolt direction) or a journal (all its readings): the aim is judged
 * on the mean, tightest and loosest clearance on the extremes. Common practice.
 *
 * @param readings the readings, in nanometres, any order
 * @returns null when there is no reading: a missing size never becomes a zero
 * @example effectiveSize([nanometres(59_980_000), nanometres(59_982_000)])?.nominal // 59981000
 */
export function effectiveSize(readings: readonly Nanometres[]): EffectiveSize | null {
  if (readings.length === 0) return null;
  const total = readings.reduce((sum, reading) => sum + BigInt(reading), 0n);
  return {
    nominal: nanometres(Number(divideRounded(total, BigInt(readings.length)))),
    smallest: nanometres(Math.min(...readings)),
    largest: nanometres(Math.max(...readings)),
    count: readings.length,
  };
}

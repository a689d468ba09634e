import { chiSquareQuantile } from '../measure/distributions.js';

/** How far readings of one place that were taken again repeat. */
export interface Repeats {
  /** Pairs that count. */
  readonly pairs: number;
  /** Pairs that lie too far apart to be repeats: one of the two was a slip. */
  readonly slips: number;
  /** Standard deviation of one reading, in the unit of the pairs. */
  readonly sd: number;
  /** Interval that holds it with a chance of 95 %. */
  readonly low: number;
  readonly high: number;
}

/** A pair so many standard deviations of its difference apart is a slip and no repeat: by chance once in a million. A setting of ours. */
const SLIP = 5;

/**
 * The repeatability that pairs of readings of one place show: `s² = Σ d²/(2 n)`, with n degrees of freedom, its interval by chi-square. What was
 * read again because it looked wrong is no repeat: pairs further apart than readings are by what is known of them are left out, and counted.
 *
 * @param differences second reading less the first, any unit
 * @param expected standard deviation of one reading as it is known now, above 0, in the same unit
 * @returns null where no pair counts
 * @example repeatsOf([2, -2], 1).sd.toFixed(3) // '1.414'
 */
export function repeatsOf(differences: readonly number[], expected: number): Repeats | null {
  const counted = differences.filter((one) => Math.abs(one) <= SLIP * Math.SQRT2 * expected);
  const pairs = counted.length;
  if (pairs === 0) return null;
  const squares = counted.reduce((sum, one) => sum + one ** 2, 0) / 2;
  const end = (chance: number) => Math.sqrt(squares / chiSquareQuantile(chance, pairs));
  return {
    pairs,
    slips: differences.length - pairs,
    sd: Math.sqrt(squares / pairs),
    low: end(0.975),
    high: end(0.025),
  };
}

import { fQuantile } from '../measure/distributions.js';

/** A share of a number, with the interval that it lies in with a chance of 95 %. */
export interface Share {
  readonly share: number;
  readonly low: number;
  readonly high: number;
  readonly of: number;
}

/** Half of the chance that is left outside. */
const OUTSIDE = 0.025;

/**
 * The share of trials that came out one way, with its exact interval (Clopper and Pearson, 1934; cited from memory).
 *
 * @param count 0 to `of`
 * @returns null of none
 * @example shareInside(5, 10)?.low.toFixed(4) // '0.1871'
 */
export function shareInside(count: number, of: number): Share | null {
  if (of === 0) return null;
  const [out, left] = [count, of - count];
  const low = out === 0 ? 0 : 1 / (1 + (left + 1) / (out * fQuantile(OUTSIDE, 2 * out, 2 * (left + 1))));
  const reach = left === 0 ? 0 : (out + 1) * fQuantile(1 - OUTSIDE, 2 * (out + 1), 2 * left);
  return { share: count / of, low, high: left === 0 ? 1 : reach / (left + reach), of };
}

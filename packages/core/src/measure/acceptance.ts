import { normalChance } from './normalChance.js';

/** Limits within which a figure is accepted; null where no figure would be. */
export type Acceptance = { readonly low: number; readonly high: number } | null;

/** So often an interval is halved: a nanometre of a metre needs 30. */
const HALVINGS = 60;

/**
 * The figures that lie inside their limits with a chance of at least p, each known to a standard uncertainty: the acceptance interval for
 * a given conformance probability (JCGM 106:2012, 8; cited from memory). Narrower than the limits, and none where they are too narrow. At
 * 0.97725 it is the limits less a guard band of one expanded uncertainty of 2u at either end (ISO 14253-1:2017; cited from memory).
 *
 * @param u standard uncertainty in the unit of the limits, 0 or above
 * @param least from 0.5 to below 1
 * @example acceptance({ low: 0, high: 100 }, 0, 0.95) // { low: 0, high: 100 }
 */
export function acceptance(
  limits: { readonly low: number; readonly high: number },
  u: number,
  least: number,
): Acceptance {
  if (u === 0) return limits;
  const middle = (limits.low + limits.high) / 2;
  if (normalChance(middle, u, limits) < least) return null;
  // From the middle outward the chance only falls.
  let [good, bad] = [middle, limits.low];
  for (let step = 0; step < HALVINGS; step += 1) {
    const at = (good + bad) / 2;
    if (normalChance(at, u, limits) >= least) good = at;
    else bad = at;
  }
  return { low: good, high: limits.low + limits.high - good };
}

import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { OilClearance } from './oilClearance.js';

export interface ClearanceLimits {
  readonly low: Nanometres;
  readonly high: Nanometres;
}

export interface ClearanceVerdict {
  readonly state: 'inside' | 'close' | 'tight' | 'loose';
  /** Room to the nearer limit, nm; negative by how much the limit is broken. */
  readonly margin: Nanometres;
  /** The limit that `margin` is counted to. */
  readonly side: 'low' | 'high';
}

/**
 * Judges a clearance against its limits: the low limit on the tightest, the high limit on the loosest clearance.
 *
 * @param closeFraction part of the range next to either limit that counts as close, 0 to 0.5
 * @example clearanceVerdict({ nominal: 22_000, tightest: 19_000, loosest: 25_000 }, { low: 20_000, high: 50_000 }, 0.1) // { state: 'tight', margin: -1000, side: 'low' }
 */
export function clearanceVerdict(
  clearance: OilClearance,
  limits: ClearanceLimits,
  closeFraction: number,
): ClearanceVerdict {
  const toLow = clearance.tightest - limits.low;
  const toHigh = limits.high - clearance.loosest;
  const side = toLow <= toHigh ? 'low' : 'high';
  const margin = nanometres(Math.min(toLow, toHigh));
  if (margin < 0) return { state: side === 'low' ? 'tight' : 'loose', margin, side };
  const isClose = margin < closeFraction * (limits.high - limits.low);
  return { state: isClose ? 'close' : 'inside', margin, side };
}

import { type ModelEndPlay, type ModelHousing, type ModelStation, offsetOfPair } from './fitModel.js';
import type { ShellPair } from './shellPairs.js';

/**
 * How much of what is possible a list of options holds. Of very long lists of shells only the pairs are listed that a plan of least
 * cost can need: `all`: nothing is missing; `without spread`: nothing is missing where no spread is limited; `part`: there may be
 * cheaper options, and a problem without a choice is not proven to have none.
 */
export type OptionsHeld = 'all' | 'without spread' | 'part';

/**
 * Cost of a clearance that misses the aim by `deviation` nm, in whole cost units.
 *
 * @example deviationCost(-2000, 2) // 8000000
 */
export function deviationCost(deviation: number, tightWeight: number): number {
  return Math.round((deviation < 0 ? tightWeight : 1) * deviation * deviation);
}

/**
 * The end play that a pair leaves, nm; null where its halves have no flanges.
 *
 * @example endPlayWith({ free: 25_120_000 }, { width: 25_000_000 }) // 120000
 */
export function endPlayWith({ free }: ModelEndPlay, { width }: Pick<ShellPair, 'width'>): number | null {
  return width === null ? null : free - width;
}

/**
 * What a pair's flanges cost, in whole cost units; null where they do not keep the end play inside its limits.
 *
 * @example endPlayCost({ free: 25_120_000, low: 100_000, high: 200_000, aim: 150_000, weight: 1 }, { width: 25_000_000 }, 2) // 1800000000
 */
export function endPlayCost(endPlay: ModelEndPlay, pair: ShellPair, tightWeight: number): number | null {
  const left = endPlayWith(endPlay, pair);
  if (left === null || left < endPlay.low || left > endPlay.high) return null;
  const off = left - endPlay.aim;
  return Math.round(endPlay.weight * (off < 0 ? tightWeight : 1) * off * off);
}

/**
 * `bore − journal − walls + offset` in nm: the oil clearance before it is compared with anything.
 *
 * @example clearanceWith({ journal: 60_000_000, offset: 2000, offsets: new Map() }, { bore: 64_010_000 }, { walls: 3_980_000, series: null }) // 32000
 */
export function clearanceWith(station: ModelStation, housing: ModelHousing, pair: ShellPair): number {
  return housing.bore - station.journal - pair.walls + offsetOfPair(station, pair.series);
}

import { type ModelEndPlay, type ModelHousing, type ModelStation, offsetOfPair } from './fitModel.js';
import type { ShellPair } from './shellPairs.js';

/**
 * How much of what is possible a list of options holds. Of very long lists of shells only the pairs are listed that a plan of least
 * cost can need: `all`: nothing is missing; `without spread`: nothing is missing where no spread is limited; `part`: there may be
 * cheaper options, and a problem without a choice is not proven to have none.
 */
export type OptionsHeld = 'all' | 'without spread' | 'part';

/** Cost of a clearance that misses the aim by `deviation` nm, in whole cost units. */
export function deviationCost(deviation: number, tightWeight: number): number {
  return Math.round((deviation < 0 ? tightWeight : 1) * deviation * deviation);
}

/** The end play that a pair leaves, nm; null where its halves have no flanges. */
export function endPlayWith({ free }: ModelEndPlay, { width }: Pick<ShellPair, 'width'>): number | null {
  return width === null ? null : free - width;
}

/** What a pair's flanges cost, in whole cost units; null where they do not keep the end play inside its limits. */
export function endPlayCost(endPlay: ModelEndPlay, pair: ShellPair, tightWeight: number): number | null {
  const left = endPlayWith(endPlay, pair);
  if (left === null || left < endPlay.low || left > endPlay.high) return null;
  const off = left - endPlay.aim;
  return Math.round(endPlay.weight * (off < 0 ? tightWeight : 1) * off * off);
}

/** `bore − journal − walls + offset` in nm: the oil clearance before it is compared with anything. */
export function clearanceWith(station: ModelStation, housing: ModelHousing, pair: ShellPair): number {
  return housing.bore - station.journal - pair.walls + offsetOfPair(station, pair.series);
}

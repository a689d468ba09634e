import { clearanceVerdict } from '../clearance/clearanceVerdict.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { JobStation } from '../station/jobStations.js';
import { clearanceOf, evenPairs, isMeasured, type PairStock } from './alikePairs.js';

/** What the pairs at hand would give at a station, without naming each. */
export interface ClearancesAtHand {
  /** How many pairs the rules allow. */
  readonly count: number;
  /** Each clearance that some pair gives, tightest first, and whether one of these pairs is inside the limits all through. */
  readonly clearances: readonly { readonly nominal: Nanometres; readonly isInside: boolean }[];
}

/**
 * The clearances that the pairs at hand would give at a station, each once: what is drawn beside its limits.
 *
 * @returns none when the station is not measured
 */
export function clearancesAtHand(job: PairStock, station: JobStation): ClearancesAtHand {
  if (!isMeasured(station)) return { count: 0, clearances: [] };
  const pairs = evenPairs(job, station.family, station.position ?? '');
  const inside = new Map<Nanometres, boolean>();
  for (const { first } of pairs) {
    const clearance = clearanceOf(station, first);
    const isInside =
      station.limits !== null && clearanceVerdict(clearance, station.limits, job.rules.closeFraction).margin >= 0;
    inside.set(clearance.nominal, isInside || (inside.get(clearance.nominal) ?? false));
  }
  return {
    count: pairs.reduce((sum, { count }) => sum + count, 0),
    clearances: [...inside].map(([nominal, isInside]) => ({ nominal, isInside })).sort((a, b) => a.nominal - b.nominal),
  };
}

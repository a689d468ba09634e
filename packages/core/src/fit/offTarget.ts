import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { FitSolution } from './model/fitSolution.js';

/** How far stations are off their targets. */
export interface OffTarget {
  /** Mean of the distances, nm: what "on average" means everywhere. */
  readonly mean: Nanometres;
  readonly worst: Nanometres;
  /** The station that is furthest off. */
  readonly station: string;
}

/**
 * The mean and the largest distance from the target: `Σ |d| / n`. Common practice.
 *
 * @param deviations clearance − target of each station, nm
 * @returns null without any
 * @example offTarget([{ station: 'M1', deviation: 1000 }, { station: 'M2', deviation: -3000 }])?.mean // 2000
 */
export function offTarget(
  deviations: readonly { readonly station: string; readonly deviation: number }[],
): OffTarget | null {
  if (deviations.length === 0) return null;
  const worst = deviations.reduce((most, next) => (Math.abs(next.deviation) > Math.abs(most.deviation) ? next : most));
  const sum = deviations.reduce((total, { deviation }) => total + Math.abs(deviation), 0);
  return {
    mean: nanometres(Math.round(sum / deviations.length)),
    worst: nanometres(Math.abs(worst.deviation)),
    station: worst.station,
  };
}

/** How far the stations of a plan are off their targets; null for a plan without stations. */
export function planOffTarget({ stations }: Pick<FitSolution, 'stations'>): OffTarget | null {
  return offTarget(stations.map(({ id, deviation }) => ({ station: id, deviation })));
}

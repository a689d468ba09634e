import { oilClearance } from '../clearance/oilClearance.js';
import type { Budget } from '../measure/budget.js';
import { nanometres } from '../measure/nanometres.js';
import { type Simulated, simulatedBudget } from '../measure/simulated.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { type JobStation, offsetAt, seriesOfHalves } from './jobStations.js';
import type { StationJob } from './stationJob.js';
import { predictedBudget } from './stationVerdict.js';

/** A predicted clearance, to be drawn again and again: plain data for a worker. */
export interface ClearanceDraw {
  /** What it is without any error, nm. */
  readonly mean: number;
  /** Its sources, each drawn once a draw: what two sizes have in common moves both. */
  readonly budget: Budget;
  readonly limits: { readonly low: number; readonly high: number };
}

type Halves = Pick<AcceptedChoice['stations'][string], 'upper' | 'lower'>;

/**
 * What is drawn for a predicted clearance: readings and settings normally, marks and grades evenly over their bands.
 *
 * @returns null where a size or the limits are missing, or where it rests on what was measured there with other halves
 */
export function clearanceDraw(job: StationJob, station: JobStation, halves: Halves): ClearanceDraw | null {
  const { bore, journal, limits } = station;
  const budget = predictedBudget(job, station, halves);
  if (!bore || !journal || !limits || !budget) return null;
  const offset = offsetAt(station, seriesOfHalves(job, halves));
  if (offset?.isOwn) return null;
  const { nominal } = oilClearance({
    bore,
    journal,
    upperWall: halves.upper.wall,
    lowerWall: halves.lower.wall,
    upperBand: halves.upper.band,
    lowerBand: halves.lower.band,
    offset: offset?.offset ?? nanometres(0),
  });
  return { mean: nominal, budget, limits: { low: limits.low, high: limits.high } };
}

/**
 * A predicted clearance drawn so many times: its mean and standard uncertainty in nanometres, and the share that is inside its limits. A
 * second way beside the law of propagation (JCGM 101:2008; cited from memory).
 *
 * @param draws 200,000 tell a share to about 0.1 %
 * @param seed the same seed gives the same answer
 */
export function drawnClearance({ mean, budget, limits }: ClearanceDraw, draws: number, seed: number): Simulated {
  return simulatedBudget(mean, budget, limits, draws, seed);
}

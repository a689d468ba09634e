import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { JobStation } from './jobStations.js';
import type { StationJob } from './stationJob.js';
import { changeTo, warmParts } from './trialAt20.js';

/**
 * What the oil clearance of a station is when the engine runs, all parts at one temperature, where the shells follow the housing freely: held
 * by crush they resist, so that it is the far end of what may be. Shells and shaft are of steel.
 *
 * @param clearance at 20 °C
 * @param walls of the two halves
 * @returns null where a size, or what the housing is made of, is not known
 */
export function warmClearance(
  job: Pick<StationJob, 'materials' | 'warm'>,
  { family, bore, journal }: Pick<JobStation, 'family' | 'bore' | 'journal'>,
  clearance: number,
  walls: readonly [number, number],
): Nanometres | null {
  const sizes = { bore: bore?.nominal ?? null, journal: journal?.nominal ?? null };
  const parts = warmParts(job, family, sizes, walls);
  return parts && nanometres(Math.round(clearance + changeTo(parts, job.warm.celsius)));
}

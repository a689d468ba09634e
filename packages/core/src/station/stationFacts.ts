import type { MeasuringFacts } from '../reading/measuringFacts.js';
import type { JobStation } from './jobStations.js';
import type { StationJob } from './stationJob.js';

/** What is known of an engine with its stations. */
export interface StationFacts<Job extends StationJob = StationJob> extends MeasuringFacts<Job> {
  /** Mains and pins; a pin carries the rod that the accepted choice has put there, or that is kept on it. */
  readonly stations: readonly JobStation[];
}

import type { Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { MeasuredJob } from './measuredJob.js';
import type { MeasuredParts } from './measuredParts.js';

/** What is known of an engine from its readings and marks. */
export interface MeasuringFacts<Job extends MeasuredJob = MeasuredJob> {
  readonly job: Job;
  readonly readings: readonly Reading[];
  /** What this job measures, in the order of the work. */
  readonly features: readonly Feature[];
  /** Those of them whose marks the data sheet knows. */
  readonly coded: readonly Feature[];
  readonly parts: MeasuredParts;
  /** Readings of what this job measures that cannot be right, or cannot be read. */
  readonly doubtful: readonly Reading[];
}

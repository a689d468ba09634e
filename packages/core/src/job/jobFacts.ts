import { eachFeature, type Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { doubtfulReadings } from './assessReading.js';
import type { JobDocument } from './jobDocument.js';
import { featuresOf } from './jobFamilies.js';
import { codedFeatures } from './jobMarks.js';
import {
  type JobStation,
  type MeasuredPart,
  mainStations,
  measuredParts,
  pinnedRods,
  placedRods,
  rodStations,
} from './jobStations.js';

/** What is known of a job, worked out once for all that ask: its parts with their sizes, its stations, figures that cannot be right. */
export interface JobFacts {
  readonly job: JobDocument;
  readonly readings: readonly Reading[];
  /** What this job measures, in the order of the work. */
  readonly features: readonly Feature[];
  /** Those of them whose marks the data sheet knows. */
  readonly coded: readonly Feature[];
  /** All parts of every feature; none of a feature that the job does not measure. */
  readonly parts: Readonly<Record<Feature, readonly MeasuredPart[]>>;
  /** Mains and pins; a pin carries the rod that the accepted choice has put there, or that is kept on it. */
  readonly stations: readonly JobStation[];
  /** Readings of what this job measures that cannot be right, or cannot be read. */
  readonly doubtful: readonly Reading[];
}

/**
 * Works out what is known of a job. Grows with its parts and its readings.
 *
 * @param readings current readings only, any order
 */
export function jobFacts(job: JobDocument, readings: readonly Reading[]): JobFacts {
  const features = featuresOf(job);
  const placed = { ...pinnedRods(job), ...placedRods(job.choice?.stations ?? {}) };
  return {
    job,
    readings,
    features,
    coded: codedFeatures(job),
    parts: eachFeature((feature) => (features.includes(feature) ? measuredParts(job, readings, feature) : [])),
    stations: [...mainStations(job, readings), ...rodStations(job, readings, placed)],
    doubtful: doubtfulReadings(job, readings).filter(({ feature }) => features.includes(feature)),
  };
}

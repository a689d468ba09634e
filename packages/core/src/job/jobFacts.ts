import { codedFeatures } from '../codes/markedBands.js';
import { onceFor } from '../document/onceFor.js';
import { featuresOf } from '../part/familiesOf.js';
import type { Reading } from '../part/reading.js';
import { allParts } from '../reading/measuredParts.js';
import { doubtfulReadings } from '../reading/suspectReadings.js';
import { jobStations } from '../station/jobStations.js';
import type { StationFacts } from '../station/stationFacts.js';
import type { JobDocument } from './jobDocument.js';

/** What is known of a job: its parts with their sizes, its stations, figures that cannot be right. */
export type JobFacts = StationFacts<JobDocument>;

/**
 * Works out what is known of a job, once for a document and its readings, whoever asks. Grows with its parts and its readings.
 *
 * @param readings current readings only, any order
 */
export const jobFacts: (job: JobDocument, readings: readonly Reading[]) => JobFacts = onceFor((job, readings) => {
  const features = featuresOf(job);
  return {
    job,
    readings,
    features,
    coded: codedFeatures(job),
    parts: allParts(job, readings),
    stations: jobStations(job, readings),
    doubtful: doubtfulReadings(job, readings).filter(({ feature }) => features.includes(feature)),
  };
});

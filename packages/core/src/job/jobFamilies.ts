import { FAMILIES, type Family } from '../part/family.js';
import { type Feature, featuresOfFamilies } from '../part/feature.js';
import type { JobDocument } from './jobDocument.js';

/** The families that a job fits: the rods only where they are part of it. */
export function familiesOf(job: Pick<JobDocument, 'withRods'>): readonly Family[] {
  return job.withRods ? FAMILIES : ['main'];
}

/** The features that a job measures: those of the rods only where the rods are part of it. */
export function featuresOf(job: Pick<JobDocument, 'withRods'>): readonly Feature[] {
  return featuresOfFamilies(familiesOf(job));
}

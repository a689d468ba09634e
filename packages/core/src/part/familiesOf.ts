import { FAMILIES, FAMILY_TABLE, type Family } from './family.js';
import { type Feature, featuresOfFamilies } from './feature.js';

/** The families that a job fits: the rods only where they are part of it. */
export function familiesOf(job: { readonly withRods: boolean }): readonly Family[] {
  return FAMILIES.filter((family) => job.withRods || !FAMILY_TABLE[family].isWithRods);
}

/** The features that a job measures: those of the rods only where the rods are part of it. */
export function featuresOf(job: { readonly withRods: boolean }): readonly Feature[] {
  return featuresOfFamilies(familiesOf(job));
}

import { FAMILY_TABLE } from '../part/family.js';
import type { JobStation } from '../station/jobStations.js';
import type { SelectionJob } from './selectionJob.js';

/** True if a station counts in the largest spread of its family: all rods, and the mains among which it was asked for. */
export function countsInSpread(
  { spreadMains }: Pick<SelectionJob['rules'], 'spreadMains'>,
  { family, number }: Pick<JobStation, 'family' | 'number'>,
): boolean {
  return !FAMILY_TABLE[family].isInLine || spreadMains == null || spreadMains.includes(number);
}

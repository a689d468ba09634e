import { assessReading, type Feature, isCoarse, type Reading } from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { howTyped, type Place, settingFor } from './useSaveReading.js';

/** What is to be said of the reading that stands at a place: it may change with the others. */
export function readingVerdictKey(
  job: Pick<OpenJob, 'document' | 'readings'>,
  place: Place,
  standing: Reading | null,
): string {
  const text = standing?.text ?? '';
  const { feature, station } = place;
  const others = job.readings.filter((reading) => reading !== standing);
  const how = howTyped(standing, place, text, false);
  const { kind } = assessReading(text, settingFor(job, place, text), feature, job.document, others, station, how);
  return `${kind} ${how.unit ?? ''} ${isCoarse(text, textsOf(others, feature))}`;
}

/** What was typed for the other places of a feature. */
export function textsOf(others: readonly Reading[], feature: Feature): string[] {
  return others.flatMap((other) => (other.feature === feature && other.nm !== null ? [other.text] : []));
}

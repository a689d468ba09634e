import { type AcceptedChoice, assessReading, isCoarse, type JobDocument, type Reading, slotKey } from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { textsOf } from './readingVerdictKey.js';
import type { InHand } from './useMeasuring.js';
import { draftOf, readingAt } from './useSaveReading.js';

/** The best halves for an engine as it will be when the figure that is being typed stands. */
export interface Foreseen {
  readonly document: JobDocument;
  /** Its readings, with that figure among them. */
  readonly readings: readonly Reading[];
  readonly halves: AcceptedChoice['stations'];
}

/** What was foreseen, if that is how the engine is now; null where it is not. */
export function foreseenFor(
  foreseen: Foreseen | null,
  { document, readings }: Pick<OpenJob, 'document' | 'readings'>,
): AcceptedChoice['stations'] | null {
  if (foreseen?.document !== document || foreseen.readings.length !== readings.length) return null;
  const isSame = foreseen.readings.every((one, at) => {
    const other = readings[at]!;
    return (
      one === other ||
      (slotKey(one) === slotKey(other) &&
        one.text === other.text &&
        one.setting === other.setting &&
        one.nm === other.nm)
    );
  });
  return isSame ? foreseen.halves : null;
}

/**
 * What a search found for the figures as they are; until it has answered what was foreseen for them; else what was found before.
 *
 * @param found what the search found last; null while it searches
 * @param isCurrent whether it was asked about the figures as they are
 * @param before what was shown till now
 */
export function halvesSoFar(
  found: AcceptedChoice['stations'] | null,
  isCurrent: boolean,
  foreseen: AcceptedChoice['stations'] | null,
  before: AcceptedChoice['stations'],
): AcceptedChoice['stations'] {
  return (isCurrent && found) || (foreseen ?? found ?? before);
}

/**
 * The engine's readings as they will be once a figure stands.
 *
 * @returns null where the figure is not whole yet, is doubted, or stands there already
 */
export function readingsOnceTyped(
  { document, readings }: Pick<OpenJob, 'document' | 'readings'>,
  { place, text: typed }: Pick<InHand, 'place' | 'text'>,
): Reading[] | null {
  const text = typed.trim();
  const standing = readingAt(readings, place);
  if (standing?.text === text) return null;
  const { feature } = place;
  const others = readings.filter((reading) => reading !== standing);
  const setting = document.measuring.setting[feature];
  const assessment = assessReading(text, setting, feature, document, others, place.station, { slot: place.slot });
  if (assessment.kind !== 'fine' || isCoarse(text, textsOf(others, feature))) return null;
  const draft = draftOf({ document }, place, text, setting, standing, { reason: '', by: '' });
  const once = { ...draft, id: '', nm: assessment.nm };
  return [...new Map([...readings, once].map((reading) => [slotKey(reading), reading])).values()];
}

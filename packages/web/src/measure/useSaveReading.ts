import type {
  Feature,
  JobDocument,
  Nanometres,
  Needle,
  Reading,
  ReadingDraft,
  Slot,
  Taken,
  TypedHow,
  Unit,
} from '@fettle/core';
import {
  instrumentByKey,
  instrumentInUse,
  knownInstrument,
  needleOf,
  readingOfDraft,
  sizeOfDraft,
  slotKey,
  typedHow,
} from '@fettle/core';
import { type RefObject, useCallback } from 'react';
import { newId } from '../base/newId.js';
import { useAppDispatch } from '../base/store.js';
import { type ReadingPut, stepTaken } from '../job/undoSlice.js';
import type { OpenJob } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { readingPlace } from '../saving/clashWords.js';
import { parcelAdded } from '../saving/savingSlice.js';

export interface Place {
  readonly feature: Feature;
  readonly station: number;
  readonly slot: Slot;
}

/** The current reading of a place, or null. */
export function readingAt(readings: readonly Reading[], place: Place): Reading | null {
  const key = slotKey(place);
  return readings.find((reading) => slotKey(reading) === key) ?? null;
}

/**
 * The setting size that a text at a place is read against: the one it was saved with; while it could not be read, the
 * one the gauge is zeroed on now.
 */
export function settingFor(job: Pick<OpenJob, 'document' | 'readings'>, place: Place, text: string): Nanometres | null {
  const standing = readingAt(job.readings, place);
  return standing && standing.text === text && standing.nm !== null
    ? standing.setting
    : job.document.measuring.setting[place.feature];
}

/**
 * How a text at a place was typed: one that stands there in the unit and with the needle of then, whatever the engine's unit is now; any
 * other as it is typed now.
 */
export function howTyped(standing: Reading | null, place: Place, text: string, isTyped: boolean): TypedHow {
  const isStanding = !isTyped && standing !== null && standing.text === text && standing.nm !== null;
  return isStanding ? typedHow(standing) : { slot: place.slot };
}

/** True if a figure is a deviation from the size that the gauge was zeroed on. */
export function isDeviation(text: string): boolean {
  return /^[+\-−–]/u.test(text.trim());
}

/** How a reading of a feature is taken now: with which instrument, at which temperatures, and what its needle says. */
function takenNow(document: JobDocument, feature: Feature, reason: string): Taken {
  const { measuring } = document;
  const key = instrumentInUse(document, feature);
  return {
    instrument: instrumentByKey(document, key).name,
    ...(knownInstrument(document, key) ? { instrumentId: key } : {}),
    needle: needleOf(document, feature),
    celsius: measuring.celsius[feature],
    gaugeCelsius: measuring.celsius[feature] === null ? null : measuring.gaugeCelsius,
    ...(measuring.mode[feature] === null ? {} : { mode: measuring.mode[feature] }),
    reason,
  };
}

/** What a figure that is typed at a place is to be kept as. */
export function draftOf(
  { document }: Pick<OpenJob, 'document'>,
  { feature, station, slot }: Place,
  text: string,
  setting: Nanometres | null,
  standing: Reading | null,
  { reason, by }: { readonly reason: string; readonly by: string },
): ReadingDraft {
  return {
    feature,
    station,
    slot,
    text,
    unit: document.unit,
    setting,
    replaces: standing?.id ?? null,
    by,
    at: new Date().toISOString(),
    taken: takenNow(document, feature, standing === null || standing.text === '' ? '' : reason),
  };
}

/**
 * Saves what was typed at a place, if it differs from what stands there, or if it could not be read then and can be now.
 * Where the gauge's setting size is given, a deviation counts from it, also one that stood there on another.
 *
 * @param latest the engine as it is when it is saved
 * @param reason why a reading takes the place of another
 * @returns saves a text at a place; `began`: the reading that stood there when typing began, null for none, left out where nothing was typed
 */
export function useSaveReading(
  latest: RefObject<OpenJob>,
  reason = '',
): (place: Place, text: string, setting?: Nanometres | null, began?: string | null) => void {
  const dispatch = useAppDispatch();
  const by = useBy();
  return useCallback(
    (place, text, given, began) => {
      const job = latest.current;
      const setting = given === undefined ? job.document.measuring.setting[place.feature] : given;
      const standing = readingAt(job.readings, place);
      const draft = draftOf(job, place, text, setting, standing, { reason, by });
      // The same figure, typed anew on another setting size, in another unit or with another needle, is another size.
      const isMoved = given !== undefined && sizeOfDraft(draft) !== (standing?.nm ?? null);
      const isSame = (standing?.text ?? '') === text && !isMoved;
      const isReadableNow = standing?.nm === null && sizeOfDraft(draft) !== null;
      if (isSame && !isReadableNow) return;
      // A figure takes the place of what stood there when typing began: what came meanwhile is asked about, never replaced unseen.
      const typed = began === undefined ? draft : { ...draft, replaces: began };
      const id = newId();
      const put = { put: readingOfDraft(id, typed), before: standing };
      const what = `${readingPlace(place)}: ${text === '' ? 'removed' : text}`;
      dispatch(stepTaken({ job: job.id, changes: [], readings: [put], what }));
      dispatch(parcelAdded({ kind: 'reading', id, jobId: job.id, draft: typed }));
    },
    [dispatch, by, latest, reason],
  );
}

function takenAs(before: Taken, now: KeptAs): Taken {
  if ('confirmed' in now) return { ...before, confirmed: true };
  return 'needle' in now ? { ...before, needle: now.needle } : { ...before, reason: 'typed wrong' };
}

/** What is said of readings that stand: that they are right, the unit they are in, or what a + on their needle means. */
export type KeptAs = { readonly confirmed: true } | { readonly unit: Unit } | { readonly needle: Needle };

/**
 * Confirms a suspect reading, or reads those that stand in another unit, or by the needle's way: each is kept once more, as it was typed, with what is said of it now.
 *
 * @param latest the engine as it is then
 */
export function useKeepAgain(latest: RefObject<OpenJob>): (readings: readonly Reading[], now: KeptAs) => void {
  const dispatch = useAppDispatch();
  const by = useBy();
  return useCallback(
    (readings, now) => {
      const { document, id: jobId } = latest.current;
      const puts: ReadingPut[] = [];
      for (const standing of readings) {
        const { id, feature, station, slot, text, unit, setting, taken } = standing;
        const before = taken ?? takenNow(document, feature, '');
        const draft: ReadingDraft = {
          feature,
          station,
          slot,
          text,
          unit: 'unit' in now ? now.unit : unit,
          setting: 'needle' in now ? (setting ?? document.measuring.setting[feature]) : setting,
          replaces: id,
          by,
          at: new Date().toISOString(),
          taken: takenAs(before, now),
        };
        const parcel = newId();
        puts.push({ put: readingOfDraft(parcel, draft), before: standing });
        dispatch(parcelAdded({ kind: 'reading', id: parcel, jobId, draft }));
      }
      const [first] = readings;
      if (!first) return;
      const named = readings.length === 1 ? readingPlace(first) : `${readings.length} readings`;
      const what = `${named}: ${'confirmed' in now ? 'confirmed' : 'unit' in now ? 'unit' : 'needle'}`;
      dispatch(stepTaken({ job: jobId, changes: [], readings: puts, what }));
    },
    [dispatch, by, latest],
  );
}

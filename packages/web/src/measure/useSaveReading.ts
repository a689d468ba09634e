import { type Feature, type Reading, type Slot, slotKey } from '@fettle/core';
import { useCallback } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import type { OpenJob } from '../job/useJob.js';
import { NOBODY } from '../person/personSlice.js';
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

/** Saves what was typed at a place, if it differs from what stands there. */
export function useSaveReading(job: OpenJob): (place: Place, text: string) => void {
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  return useCallback(
    (place, text) => {
      const standing = readingAt(job.readings, place);
      if ((standing?.text ?? '') === text) return;
      dispatch(
        parcelAdded({
          kind: 'reading',
          id: crypto.randomUUID(),
          jobId: job.id,
          draft: {
            ...place,
            text,
            unit: job.document.unit,
            setting: job.document.measuring.setting[place.feature],
            replaces: standing?.id ?? null,
            by,
            at: new Date().toISOString(),
          },
        }),
      );
    },
    [dispatch, by, job],
  );
}

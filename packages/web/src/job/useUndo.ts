import { type ReadingDraft, slotKey } from '@fettle/core';
import { useEffect } from 'react';
import { newId } from '../base/newId.js';
import { useAppDispatch, useAppSelector, useAppStore } from '../base/store.js';
import { NOBODY } from '../person/personSlice.js';
import { knownDocument } from '../saving/knownEngine.js';
import { parcelAdded } from '../saving/savingSlice.js';
import { withoutStep } from '../saving/withoutStep.js';
import { engineLeft, engineOpened, type ReadingPut, stepUndone } from './undoSlice.js';
import type { OpenJob } from './useJob.js';

export interface Undo {
  /** Takes the last step back; null when there is none. */
  readonly undo: (() => void) | null;
  /** What it would take back. */
  readonly what: string | null;
  /** True if the last undo left something as it is, because it was changed again since. */
  readonly isPartial: boolean;
}

/** Keeps what is done to an engine for as long as it is open. */
export function useUndoSteps(id: string): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    dispatch(engineOpened(id));
    return () => {
      dispatch(engineLeft());
    };
  }, [dispatch, id]);
}

/** The reading that puts back what stood at a place before; null where somebody has put another one there since. */
function readingTakenBack({ readings }: OpenJob, { put, before }: ReadingPut, by: string): ReadingDraft | null {
  const standing = readings.find((reading) => slotKey(reading) === slotKey(put));
  if (standing?.id !== put.id) return null;
  const { id: replaces, feature, station, slot, unit, setting } = put;
  const how = before ?? put;
  return {
    feature,
    station,
    slot,
    text: before?.text ?? '',
    unit: before?.unit ?? unit,
    setting: before ? before.setting : setting,
    replaces,
    by,
    at: new Date().toISOString(),
    ...(how.taken ? { taken: { ...how.taken, reason: 'typed wrong' } } : {}),
  };
}

/** Takes back, step by step, what this person did to the engine since it was opened; what others did since stays. */
export function useUndo(job: OpenJob | null): Undo {
  const store = useAppStore();
  const { steps, isPartial } = useAppSelector((state) => state.undo);
  const last = steps.at(-1);
  return {
    undo:
      job && last
        ? () => {
            const { saving, person } = store.getState();
            const by = person.name || NOBODY;
            const base = knownDocument(saving, job.id) ?? job.document;
            const back = withoutStep(base, last.changes);
            const drafts = (last.readings ?? []).map((step) => readingTakenBack(job, step, by));
            store.dispatch(stepUndone(back.isPartial || drafts.includes(null)));
            for (const draft of drafts) {
              if (draft) store.dispatch(parcelAdded({ kind: 'reading', id: newId(), jobId: job.id, draft }));
            }
            if (last.changes.length === 0) return;
            const parcel = { kind: 'document', id: newId(), jobId: job.id, by } as const;
            store.dispatch(parcelAdded({ ...parcel, base, ours: back.document }));
          }
        : null,
    what: last?.what ?? null,
    isPartial,
  };
}

import { useEffect } from 'react';
import { newId } from '../app/newId.js';
import { useAppDispatch, useAppSelector, useAppStore } from '../app/store.js';
import { NOBODY } from '../person/personSlice.js';
import { knownDocument, parcelAdded } from '../saving/savingSlice.js';
import type { OpenJob } from './useJob.js';
import { stepUndone, visitBegan, visitEnded } from './visitSlice.js';
import { withoutStep } from './withoutStep.js';

export interface Undo {
  /** Takes the last step back; null when there is none. */
  readonly undo: (() => void) | null;
  /** What it would take back. */
  readonly what: string | null;
  /** Whether the last undo left something as it is, because it was changed again since. */
  readonly isPartial: boolean;
}

/** Keeps what is done to an engine for as long as it is open. */
export function useVisit(id: string): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    dispatch(visitBegan(id));
    return () => {
      dispatch(visitEnded());
    };
  }, [dispatch, id]);
}

/** Takes back, step by step, what this person did to the engine since it was opened; what others did since stays. */
export function useUndo(job: OpenJob | null): Undo {
  const store = useAppStore();
  const { steps, isPartial } = useAppSelector((state) => state.visit);
  const last = steps.at(-1);
  return {
    undo:
      job && last
        ? () => {
            const { saving, person } = store.getState();
            const base = knownDocument(saving, job.id) ?? job.document;
            const back = withoutStep(base, last.changes);
            store.dispatch(stepUndone(back.isPartial));
            const parcel = { kind: 'document', id: newId(), jobId: job.id, by: person.name || NOBODY } as const;
            store.dispatch(parcelAdded({ ...parcel, base, ours: back.document }));
          }
        : null,
    what: last?.what ?? null,
    isPartial,
  };
}

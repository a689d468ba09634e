import type { JobView, Json, Reading } from '@fettle/core';
import { changesBetween, type JobDocument, placeWords } from '@fettle/core';
import { useCallback, useMemo, useRef } from 'react';
import { newId } from '../base/newId.js';
import { useAppSelector, useAppStore } from '../base/store.js';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { NOBODY } from '../person/personSlice.js';
import { knownDocument, knownReadings } from '../saving/knownEngine.js';
import { parcelAdded } from '../saving/savingSlice.js';
import { api } from '../wire/api.js';
import { isAskFault } from '../wire/ask.js';
import { stepTaken } from './undoSlice.js';

/** How often an open engine is looked up for other people's changes, ms. */
const LOOK_EVERY_MS = 4000;

/** Fetches an engine and keeps it current while a view of it is open. @returns why the server will not tell of it, or null */
export function useJobLoading(id: string): { readonly fault: string | null } {
  const isBeingMade = useAppSelector((state) =>
    state.saving.parcels.some((parcel) => parcel.kind === 'create' && parcel.jobId === id),
  );
  const { error } = api.useGetJobQuery({ id }, { ...useLookedAtEvery(LOOK_EVERY_MS), skip: isBeingMade });
  return { fault: isAskFault(error) && error.kind === 'refused' ? error.problem.detail : null };
}

export interface OpenJob {
  readonly id: string;
  readonly view: JobView | null;
  /** With everything that is not on the server yet. */
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
}

/** The readings as before where nothing of them is new: one that has arrived is what it was, but for a name that it may be sent under. */
function unlessNew(readings: readonly Reading[], before: readonly Reading[]): readonly Reading[] {
  const known = new Map(before.map((reading) => [reading.id, reading]));
  const same = readings.map((reading) => {
    const old = known.get(reading.id);
    return old?.by === reading.by ? old : reading;
  });
  return same.length === before.length && same.every((reading, at) => reading === before[at]) ? before : same;
}

/** An engine as this device knows it: the server's state with unsent changes laid over it; null until it is there. */
export function useJob(id: string): OpenJob | null {
  const view = useAppSelector((state) => state.saving.jobs[id]) ?? null;
  const own = useAppSelector((state) => state.saving.parcels);
  const elsewhere = useAppSelector((state) => state.saving.elsewhere);
  const before = useRef<readonly Reading[]>([]);
  return useMemo(() => {
    const here = { jobs: view ? { [id]: view } : {}, parcels: own, elsewhere };
    const document = knownDocument(here, id);
    if (!document) return null;
    before.current = unlessNew(knownReadings(here, id), before.current);
    return { id, view, document, readings: before.current };
  }, [id, view, own, elsewhere]);
}

/**
 * Changes the document of an engine: at once here, on the server as soon as it can be reached. What it did can be taken back for as long
 * as the engine is open.
 *
 * @param what says what the change does; left out, the place that it changes
 */
export type ChangeDocument = (change: (document: JobDocument) => JobDocument, what?: string) => void;

export function useChangeDocument({ id, document }: Pick<OpenJob, 'id' | 'document'>): ChangeDocument {
  const store = useAppStore();
  return useCallback(
    (change, what) => {
      const { saving, person } = store.getState();
      // As it is now, not as it was shown last: of two changes before it is drawn again, the second knows the first.
      const base = knownDocument(saving, id) ?? document;
      const ours = change(base);
      const changes = changesBetween(base as unknown as Json, ours as unknown as Json);
      const [first] = changes;
      if (!first) return;
      store.dispatch(stepTaken({ job: id, changes, what: what ?? placeWords(first.path, ours) }));
      const by = person.name || NOBODY;
      store.dispatch(parcelAdded({ kind: 'document', id: newId(), jobId: id, by, base, ours }));
    },
    [store, id, document],
  );
}

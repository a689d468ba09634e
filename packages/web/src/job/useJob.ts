import {
  changesBetween,
  type JobDocument,
  type JobView,
  type Json,
  type Reading,
  sizeOfDraft,
  slotKey,
} from '@fettle/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { newId } from '../app/newId.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { NOBODY } from '../person/personSlice.js';
import { fetchJob, RefusedError, UnreachableError } from '../saving/api.js';
import { documentWith, jobArrived, parcelAdded, serverAnswered, serverLost } from '../saving/savingSlice.js';

/** How often an open engine is looked up for other people's changes, ms. */
const LOOK_EVERY_MS = 4000;

/** Fetches an engine and keeps it current while a view of it is open. */
export function useJobLoading(id: string): { readonly fault: string | null } {
  const dispatch = useAppDispatch();
  const [fault, setFault] = useState<string | null>(null);
  const job = useAppSelector((state) => state.saving.jobs[id]);
  const isBeingMade = useAppSelector((state) =>
    state.saving.parcels.some((parcel) => parcel.kind === 'create' && parcel.jobId === id),
  );
  const busy = useAppSelector((state) => state.saving.sending !== null);
  const revision = useRef<number | null>(null);
  revision.current = job?.revision ?? null;
  const isBusy = useRef(busy);
  isBusy.current = busy;

  useEffect(() => {
    if (isBeingMade) return;
    let stopped = false;
    const look = async () => {
      // While something is on its way its answer brings the news.
      if (document.hidden || isBusy.current) return;
      try {
        const arrived = await fetchJob(id, revision.current);
        if (stopped) return;
        if (arrived && !isBusy.current) dispatch(jobArrived(arrived));
        dispatch(serverAnswered());
        setFault(null);
      } catch (error) {
        if (stopped) return;
        if (error instanceof RefusedError) setFault(error.problem.detail);
        else dispatch(serverLost(error instanceof UnreachableError && error.isDatabase));
      }
    };
    void look();
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => {
      stopped = true;
      clearInterval(timer);
    };
  }, [id, isBeingMade, dispatch]);
  return { fault };
}

export interface OpenJob {
  readonly id: string;
  readonly view: JobView | null;
  /** With everything that is not on the server yet. */
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
}

/** An engine as this device knows it: the server's state with unsent changes laid over it; null until it is there. */
export function useJob(id: string): OpenJob | null {
  const view = useAppSelector((state) => state.saving.jobs[id]) ?? null;
  const parcels = useAppSelector((state) => state.saving.parcels);
  return useMemo(() => {
    const made = parcels.find((parcel) => parcel.kind === 'create' && parcel.jobId === id);
    const server = view?.document ?? (made?.kind === 'create' ? made.document : null);
    if (!server) return null;
    const bySlot = new Map((view?.readings ?? []).map((reading) => [slotKey(reading), reading]));
    for (const parcel of parcels) {
      if (parcel.kind !== 'reading' || parcel.jobId !== id) continue;
      bySlot.set(slotKey(parcel.draft), { ...parcel.draft, id: parcel.id, nm: sizeOfDraft(parcel.draft) });
    }
    return { id, view, document: documentWith(server, parcels, id), readings: [...bySlot.values()] };
  }, [id, view, parcels]);
}

/** Changes the document of an engine: at once here, on the server as soon as it can be reached. */
export function useChangeDocument(job: OpenJob): (change: (document: JobDocument) => JobDocument) => void {
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { id, document } = job;
  return useCallback(
    (change) => {
      const ours = change(document);
      if (changesBetween(document as unknown as Json, ours as unknown as Json).length === 0) return;
      dispatch(parcelAdded({ kind: 'document', id: newId(), jobId: id, by, base: document, ours }));
    },
    [dispatch, by, id, document],
  );
}

import {
  type JobDocument,
  type JobView,
  type Json,
  mergeThreeWays,
  type Reading,
  readingOfDraft,
  slotKey,
} from '@fettle/core';
import type { Parcel } from './outbox.js';

/** What this device knows of engines: what the server told, and what is not there yet. */
export interface KnownHere {
  readonly jobs: Readonly<Record<string, JobView>>;
  /** Own changes, oldest first. */
  readonly parcels: readonly Parcel[];
  /** What other tabs of this browser have waiting. */
  readonly elsewhere: readonly Parcel[];
}

/** A job document as the plain JSON that changes are told of. */
export function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/** What of an engine is not on the server yet: what other tabs have waiting goes first. */
function waitingFor({ parcels, elsewhere }: KnownHere, id: string): readonly Parcel[] {
  return [...elsewhere, ...parcels].filter(({ jobId }) => jobId === id);
}

/** An engine's document as this device knows it now: what the server has, with what is not there yet laid over it; null where it is not known. */
export function knownDocument(here: KnownHere, id: string): JobDocument | null {
  const waiting = waitingFor(here, id);
  const made = waiting.find(({ kind }) => kind === 'create') as (Parcel & { kind: 'create' }) | undefined;
  const told = here.jobs[id]?.document ?? made?.document;
  if (!told) return null;
  return waiting.reduce((document, parcel) => {
    if (parcel.kind !== 'document') return document;
    return mergeThreeWays(asJson(parcel.base), asJson(parcel.ours), asJson(document))
      .document as unknown as JobDocument;
  }, told);
}

/** The readings of an engine as this device knows them now, one a place. */
export function knownReadings(here: KnownHere, id: string): Reading[] {
  const bySlot = new Map((here.jobs[id]?.readings ?? []).map((reading) => [slotKey(reading), reading]));
  for (const parcel of waitingFor(here, id)) {
    if (parcel.kind === 'reading') bySlot.set(slotKey(parcel.draft), readingOfDraft(parcel.id, parcel.draft));
  }
  return [...bySlot.values()];
}

/** Of two tellings of one engine the one that counts: news that is older than what is known is none. */
export function newerEngine(known: JobView | undefined, told: JobView): JobView {
  return known && known.revision > told.revision ? known : told;
}

/** An engine once a reading has arrived at the server, which counts a new one as a revision: a look that set out before it is old news. */
export function engineWithReading(job: JobView, reading: Reading): JobView {
  const key = slotKey(reading);
  const readings = [...job.readings.filter((other) => slotKey(other) !== key), reading];
  const isNew = !job.readings.some(({ id }) => id === reading.id);
  return { ...job, revision: job.revision + (isNew ? 1 : 0), readings };
}

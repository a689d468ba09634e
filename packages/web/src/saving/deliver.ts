import { changesBetween, type JobDocument, type Json, jobViewSchema, patchStepOf, readingSchema } from '@fettle/core';
import type { Store } from '../app/store.js';
import { createJob, fetchJob, patchJob, putReading, RefusedError, UnreachableError } from './api.js';
import { keepWaiting, type Parcel, recallWaiting, type Waiting } from './outbox.js';
import {
  documentOvertaken,
  jobArrived,
  keepingFailed,
  parcelDelivered,
  parcelRefused,
  readingArrived,
  readingOvertaken,
  sendingFailed,
  sendingStarted,
  waitingRecalled,
} from './savingSlice.js';

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 8000;

function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/**
 * Carries parcels to the server one after another, oldest first, and keeps them in the browser until they are there. When
 * the server cannot be reached it tries again by itself.
 */
class Delivery {
  private readonly store: Store;
  private wait = FIRST_WAIT_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private kept: Waiting | null = null;
  private keeping: Promise<void> = Promise.resolve();
  private recalled = false;

  constructor(store: Store) {
    this.store = store;
  }

  async start(): Promise<void> {
    try {
      const waiting = await recallWaiting();
      if (waiting) this.store.dispatch(waitingRecalled(waiting));
    } catch (error) {
      this.store.dispatch(keepingFailed((error as Error).message));
    }
    this.recalled = true;
    this.store.subscribe(() => this.look());
    addEventListener('online', () => this.retryNow());
    this.look();
  }

  private retryNow(): void {
    this.wait = FIRST_WAIT_MS;
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.look();
  }

  private look(): void {
    const { parcels, sending, refusals, clashes } = this.store.getState().saving;
    if (!this.recalled) return;
    if (this.kept?.parcels !== parcels || this.kept.clashes !== clashes || this.kept.refusals !== refusals) {
      const waiting = { parcels, clashes, refusals };
      this.kept = waiting;
      this.keeping = this.keeping
        .then(() => keepWaiting(waiting))
        .catch((error: Error) => {
          if (this.store.getState().saving.notKept === null) this.store.dispatch(keepingFailed(error.message));
        });
    }
    const [first] = parcels;
    if (first && sending === null && this.timer === null) {
      this.store.dispatch(sendingStarted(first.id));
      void this.send(first);
    }
  }

  private async send(parcel: Parcel): Promise<void> {
    try {
      await this.carry(parcel);
      this.wait = FIRST_WAIT_MS;
    } catch (error) {
      if (error instanceof RefusedError) this.refused(parcel, error);
      else {
        if (!(error instanceof UnreachableError)) console.error(error);
        this.timer = setTimeout(() => {
          this.timer = null;
          this.look();
        }, this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
        this.store.dispatch(sendingFailed());
      }
    }
  }

  private async carry(parcel: Parcel): Promise<void> {
    const { dispatch } = this.store;
    switch (parcel.kind) {
      case 'create':
        dispatch(jobArrived(await createJob(parcel.jobId, parcel.by, parcel.document)));
        break;
      case 'reading':
        dispatch(
          readingArrived({ jobId: parcel.jobId, reading: await putReading(parcel.jobId, parcel.id, parcel.draft) }),
        );
        break;
      case 'document': {
        const job = this.store.getState().saving.jobs[parcel.jobId] ?? (await fetchJob(parcel.jobId, null));
        if (!job) throw new UnreachableError('The engine could not be loaded.');
        if (changesBetween(asJson(parcel.base), asJson(job.document)).length > 0) {
          // Somebody else's change has arrived since ours was made: ours is laid over it first.
          dispatch(documentOvertaken({ id: parcel.id, current: job }));
          return;
        }
        const steps = changesBetween(asJson(parcel.base), asJson(parcel.ours)).map(patchStepOf);
        if (steps.length > 0) dispatch(jobArrived(await patchJob(parcel.jobId, job.version, parcel.by, steps)));
        break;
      }
    }
    dispatch(parcelDelivered(parcel.id));
  }

  private refused(parcel: Parcel, { problem }: RefusedError): void {
    const { dispatch } = this.store;
    const isStale = problem.type.endsWith('#stale-version');
    if (isStale && parcel.kind === 'document') {
      dispatch(documentOvertaken({ id: parcel.id, current: jobViewSchema.parse(problem.current) }));
    } else if (isStale && parcel.kind === 'reading') {
      dispatch(readingOvertaken({ id: parcel.id, current: readingSchema.nullable().parse(problem.current) }));
    } else dispatch(parcelRefused({ id: parcel.id, detail: problem.detail }));
  }
}

/** Starts carrying changes to the server, first those that an earlier visit could not send. */
export async function startDelivery(store: Store): Promise<void> {
  await new Delivery(store).start();
}

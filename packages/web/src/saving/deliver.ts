import type { Json } from '@fettle/core';
import {
  changesBetween,
  type JobDocument,
  jobDocumentSchema,
  jobViewSchema,
  patchStepOf,
  problemKind,
  readingSchema,
} from '@fettle/core';
import { newId } from '../app/newId.js';
import type { Store } from '../app/store.js';
import { type AskFault, isAskFault } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { Outbox, type Parcel, type Waiting } from './outbox.js';
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
import { aliveTabs, alone, showTab, tabGone } from './tabs.js';

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 8000;
/** How often it is looked whether another tab is gone and left something, ms. */
const ADOPT_EVERY_MS = 20_000;
/** A parcel that fails so often is set aside, so that the others go on. */
const MOST_FAILURES = 2;

function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/** A document as this build writes it: one that an earlier build left waiting is brought up to date. */
function upToDate(document: JobDocument): JobDocument {
  const read = jobDocumentSchema.safeParse(document);
  return read.success ? read.data : document;
}

function ofThisBuild(parcel: Parcel): Parcel {
  if (parcel.kind === 'create') return { ...parcel, document: upToDate(parcel.document) };
  if (parcel.kind === 'document') return { ...parcel, base: upToDate(parcel.base), ours: upToDate(parcel.ours) };
  return parcel;
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
  private readonly tab = newId();
  private readonly outbox = new Outbox(this.tab);
  private readonly watched = new Set<string>();
  private readonly failures = new Map<string, number>();

  constructor(store: Store) {
    this.store = store;
  }

  async start(): Promise<void> {
    this.store.subscribe(() => this.look());
    await showTab(this.tab);
    await this.adopt();
    this.recalled = true;
    setInterval(() => void this.adopt(), ADOPT_EVERY_MS);
    addEventListener('online', () => this.retryNow());
    this.look();
  }

  /** Takes over what earlier visits, and tabs that are gone, left waiting. */
  private async adopt(): Promise<void> {
    try {
      const { waiting: left, others } = await alone('adopting', async () => this.outbox.adopt(await aliveTabs()));
      for (const tab of others) {
        // A page that is just being reloaded still holds on to its own for a moment.
        if (this.watched.has(tab)) continue;
        this.watched.add(tab);
        void tabGone(tab).then(() => this.adopt());
      }
      const known = new Set(this.store.getState().saving.parcels.map(({ id }) => id));
      const parcels = left.parcels.filter(({ id }) => !known.has(id)).map(ofThisBuild);
      if (parcels.length + left.clashes.length + left.refusals.length === 0) return;
      this.store.dispatch(waitingRecalled({ ...left, parcels }));
    } catch (error) {
      if (this.store.getState().saving.notKept === null) this.store.dispatch(keepingFailed((error as Error).message));
    }
  }

  private note(waiting: Waiting): void {
    try {
      this.outbox.note(waiting);
    } catch {
      // Local storage is full or forbidden: the rows follow in a moment all the same.
    }
  }

  private retryNow(): void {
    this.wait = FIRST_WAIT_MS;
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.look();
  }

  private look(): void {
    const { parcels, sending, refusals, clashes } = this.store.getState().saving;
    if (this.kept?.parcels !== parcels || this.kept.clashes !== clashes || this.kept.refusals !== refusals) {
      const waiting = { parcels, clashes, refusals };
      const before = this.kept;
      this.kept = waiting;
      this.note(waiting);
      this.keeping = this.keeping
        .then(() => this.outbox.keep(waiting, before))
        .then(() => {
          if (this.kept === waiting) this.outbox.noted();
        })
        .catch((error: Error) => {
          if (this.store.getState().saving.notKept === null) this.store.dispatch(keepingFailed(error.message));
        });
    }
    const [first] = parcels;
    if (this.recalled && first && sending === null && this.timer === null) {
      this.store.dispatch(sendingStarted(first.id));
      void this.send(first);
    }
  }

  private async send(parcel: Parcel): Promise<void> {
    try {
      await alone('sending', () => this.carry(parcel));
      this.failures.delete(parcel.id);
      this.wait = FIRST_WAIT_MS;
    } catch (error) {
      const fault: AskFault = isAskFault(error)
        ? error
        : { kind: 'failed', message: `It could not be sent: ${(error as Error).message}` };
      if (!isAskFault(error)) console.error(error);
      if (fault.kind === 'refused') this.refused(parcel, fault);
      // What fails again and again would keep everything behind it waiting.
      else if (fault.kind === 'failed' && this.hasFailed(parcel)) {
        this.store.dispatch(parcelRefused({ id: parcel.id, detail: fault.message }));
      } else {
        this.timer = setTimeout(() => {
          this.timer = null;
          this.look();
        }, this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
        this.store.dispatch(sendingFailed(fault.kind === 'unreachable' && fault.isDatabase));
      }
    }
  }

  /** Counts a failure. @returns whether there were enough of them */
  private hasFailed({ id }: Parcel): boolean {
    const count = (this.failures.get(id) ?? 0) + 1;
    this.failures.set(id, count);
    return count >= MOST_FAILURES;
  }

  private async carry(parcel: Parcel): Promise<void> {
    const { dispatch } = this.store;
    switch (parcel.kind) {
      case 'create':
        dispatch(
          jobArrived(await tell('createJob', { body: { id: parcel.jobId, by: parcel.by, document: parcel.document } })),
        );
        break;
      case 'reading':
        dispatch(
          readingArrived({
            jobId: parcel.jobId,
            reading: await tell('putReading', { id: parcel.jobId, reading: parcel.id, body: parcel.draft }),
          }),
        );
        break;
      case 'document': {
        const job = this.store.getState().saving.jobs[parcel.jobId] ?? (await tell('getJob', { id: parcel.jobId }));
        if (changesBetween(asJson(parcel.base), asJson(job.document)).length > 0) {
          // Somebody else's change has arrived since ours was made: ours is laid over it first.
          dispatch(documentOvertaken({ id: parcel.id, current: job }));
          return;
        }
        const steps = changesBetween(asJson(parcel.base), asJson(parcel.ours)).map(patchStepOf);
        if (steps.length > 0) {
          const body = { version: job.version, by: parcel.by, steps };
          dispatch(jobArrived(await tell('patchJob', { id: parcel.jobId, body })));
        }
        break;
      }
    }
    dispatch(parcelDelivered(parcel.id));
  }

  private refused(parcel: Parcel, { problem }: AskFault & { kind: 'refused' }): void {
    const { dispatch } = this.store;
    const isStale = problemKind(problem) === 'stale-version';
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

import type { Json } from '@fettle/core';
import { changesBetween, type JobDocument, patchStepOf, problemKind } from '@fettle/core';
import { notesInPageOnly } from '../base/localNotes.js';
import { newId } from '../base/newId.js';
import type { Store } from '../base/store.js';
import { api } from '../wire/api.js';
import { type AskFault, isAskFault, isSignedOut } from '../wire/ask.js';
import { tell, tellEngine } from '../wire/tell.js';
import { keepEngine, keepEngines } from './keepEngines.js';
import { engineWithReading, newerEngine } from './knownEngine.js';
import { maySend } from './maySend.js';
import { nextParcel } from './nextParcel.js';
import { Outbox, onlyInPage, type Parcel, type Waiting } from './outbox.js';
import {
  documentOvertaken,
  elsewhereSeen,
  jobArrived,
  keepingFailed,
  keepingWorks,
  parcelDelivered,
  parcelRefused,
  parcelRests,
  readingArrived,
  readingOvertaken,
  recallDone,
  sendingFailed,
  sendingHeld,
  sendingStarted,
  waitingRecalled,
} from './savingSlice.js';
import { aliveTabs, alone, showTab, tabGone } from './tabs.js';

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 8000;
/** How often it is looked whether another tab is gone and left something, ms. */
const ADOPT_EVERY_MS = 20_000;
/** How long what another tab has sent is still laid over what the server told, ms. */
const SENT_ELSEWHERE_MS = 1500;
/** What the server fails at rests so long before it is tried again, longer each time, ms: the others go on meanwhile. */
const FIRST_REST_MS = 2000;
const LONGEST_REST_MS = 60_000;

/** A parcel that the server failed at. */
interface Resting {
  readonly rest: number;
  readonly until: number;
}

/** What comes back of what was sent. */
type Arrival = ReturnType<typeof jobArrived> | ReturnType<typeof readingArrived>;

function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/** The schemas of an engine, fetched when something of one is to be read: the first page does without. */
const documentSchemas = () => import('./documentSchemas.js');

/** Parcels with documents as this build writes them: one that an earlier build left waiting is brought up to date. */
async function ofThisBuild(parcels: readonly Parcel[]): Promise<Parcel[]> {
  if (parcels.every(({ kind }) => kind === 'reading')) return [...parcels];
  const { jobDocumentSchema } = await documentSchemas();
  const upToDate = (document: JobDocument): JobDocument => {
    const read = jobDocumentSchema.safeParse(document);
    return read.success ? read.data : document;
  };
  return parcels.map((parcel) => {
    if (parcel.kind === 'create') return { ...parcel, document: upToDate(parcel.document) };
    if (parcel.kind === 'document') return { ...parcel, base: upToDate(parcel.base), ours: upToDate(parcel.ours) };
    return parcel;
  });
}

/**
 * Carries parcels to the server one after another, oldest first, and keeps them in the browser until they are there. When
 * the server cannot be reached it tries again by itself.
 */
class Delivery {
  private readonly store: Store;
  private wait = FIRST_WAIT_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** What was looked at last, and what was written down last: where the browser has no room the second lags behind. */
  private kept: Waiting | null = null;
  private written: Waiting | null = null;
  private keeping: Promise<void> = Promise.resolve();
  private recalled = false;
  private readonly tab = newId();
  /** Tells other tabs that something waits here, or does no longer. */
  private readonly tabs = 'BroadcastChannel' in globalThis ? new BroadcastChannel('fettle waiting') : null;
  private readonly outbox = new Outbox(this.tab);
  private readonly watched = new Set<string>();
  private readonly resting = new Map<string, Resting>();

  constructor(store: Store) {
    this.store = store;
  }

  async start(): Promise<void> {
    this.store.subscribe(() => this.look());
    await showTab(this.tab);
    await this.adopt();
    await this.lookElsewhere();
    this.tabs?.addEventListener('message', () => void this.lookElsewhere());
    this.recalled = true;
    this.store.dispatch(recallDone());
    setInterval(() => void this.adopt(), ADOPT_EVERY_MS);
    addEventListener('online', () => this.retryNow());
    // What is nowhere but in the page goes with it: whoever closes it is asked.
    addEventListener('beforeunload', (event) => {
      const { notKept, parcels } = this.store.getState().saving;
      const isOnlyHere = (notKept !== null && notKept.only > 0 && parcels.length > 0) || notesInPageOnly() > 0;
      if (isOnlyHere) event.preventDefault();
    });
    this.look();
  }

  /** Takes over what earlier visits, and tabs that are gone, left waiting. */
  private async adopt(): Promise<void> {
    try {
      // Fetched before anything is taken over: without them it stays where it is, until the next look.
      if (await this.outbox.hasLeft()) await documentSchemas();
      const { waiting: left, others } = await alone('adopting', async () => this.outbox.adopt(await aliveTabs()));
      for (const tab of others) {
        // A page that is just being reloaded still holds on to its own for a moment.
        if (this.watched.has(tab)) continue;
        this.watched.add(tab);
        void tabGone(tab).then(() => this.adopt());
      }
      if (left.parcels.length + left.clashes.length + left.refusals.length === 0) return;
      this.store.dispatch(waitingRecalled({ ...left, parcels: await ofThisBuild(left.parcels) }));
      await this.lookElsewhere();
    } catch (error) {
      if (this.store.getState().saving.notKept === null) {
        this.store.dispatch(keepingFailed({ why: (error as Error).message, only: 0 }));
      }
    }
  }

  /** Looks what other tabs have waiting, and shows that here too. */
  private async lookElsewhere(): Promise<void> {
    const before = this.store.getState().saving.elsewhere;
    const now = await this.outbox.others().catch(() => before);
    const ids = new Set(now.map(({ id }) => id));
    const isLess = before.some(({ id }) => !ids.has(id));
    if (before.length === 0 && now.length === 0) return;
    // What another tab has sent is looked up before it is laid over no longer, so that no figure goes and comes.
    if (isLess) {
      this.store.dispatch(api.util.invalidateTags(['engine']));
      await new Promise((resolve) => setTimeout(resolve, SENT_ELSEWHERE_MS));
    }
    this.store.dispatch(elsewhereSeen(isLess ? await this.outbox.others() : now));
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
      this.kept = waiting;
      const { count, isNoted } = this.outbox.note(waiting);
      this.keeping = this.keeping
        .then(() => this.outbox.keep(waiting, this.written, count))
        .then(() => {
          this.written = waiting;
          if (this.store.getState().saving.notKept !== null) this.store.dispatch(keepingWorks());
          this.tabs?.postMessage('changed');
        })
        .catch((error: Error) => {
          // What stands in the notes survives a reload all the same.
          const only = isNoted ? 0 : onlyInPage(waiting, this.written);
          this.store.dispatch(keepingFailed({ why: error.message, only }));
        });
    }
    const { access } = this.store.getState();
    // What corrects a reading that another tab has yet to send goes after it.
    const before = new Set(this.store.getState().saving.elsewhere.map(({ id }) => id));
    const first = nextParcel(
      parcels,
      (parcel) => maySend(access, parcel) && !(parcel.kind === 'reading' && before.has(parcel.draft.replaces ?? '')),
      (id) => (this.resting.get(id)?.until ?? 0) > Date.now(),
    );
    if (this.recalled && first && sending === null && this.timer === null) {
      this.store.dispatch(sendingStarted(first.id));
      void this.send(first);
    }
  }

  /** Tries a parcel again after a rest, longer each time: the others go on meanwhile. */
  private rest(parcel: Parcel, detail: string): void {
    const rest = Math.min(2 * (this.resting.get(parcel.id)?.rest ?? FIRST_REST_MS / 2), LONGEST_REST_MS);
    this.resting.set(parcel.id, { rest, until: Date.now() + rest });
    setTimeout(() => this.look(), rest + 10);
    this.store.dispatch(parcelRests({ id: parcel.id, detail }));
  }

  private async send(parcel: Parcel): Promise<void> {
    try {
      await alone('sending', () => this.carry(parcel));
      this.resting.delete(parcel.id);
      this.wait = FIRST_WAIT_MS;
    } catch (error) {
      const fault: AskFault = isAskFault(error)
        ? error
        : { kind: 'failed', message: `It could not be sent: ${(error as Error).message}` };
      if (!isAskFault(error)) console.error(error);
      // Nothing is wrong with it: it goes on when somebody has signed in.
      if (isSignedOut(fault)) this.store.dispatch(sendingHeld());
      else if (fault.kind === 'refused') {
        await this.refused(parcel, fault).catch((fetching) => this.rest(parcel, (fetching as Error).message));
      }
      // A fault of the server's own says nothing of the figure: it is never set aside for that.
      else if (fault.kind === 'failed') this.rest(parcel, fault.message);
      else {
        this.timer = setTimeout(() => {
          this.timer = null;
          this.look();
        }, this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
        this.store.dispatch(sendingFailed(fault.away));
      }
    }
  }

  private async carry(parcel: Parcel): Promise<void> {
    const arrived = await this.sent(parcel);
    if (arrived === 'overtaken') return;
    // Until the engine is kept here with what was just sent, that waits: without the server a page that is opened anew would show what stood
    // there before, and what is typed over it would meet its typist's own figure.
    if (arrived !== null) await this.keepWith(parcel.jobId, arrived);
    const { dispatch } = this.store;
    if (arrived !== null) dispatch(arrived);
    dispatch(parcelDelivered(parcel.id));
  }

  /** Sends a parcel. @returns what arrives by it; null for nothing; or that somebody else's change has to be looked at first */
  private async sent(parcel: Parcel): Promise<Arrival | null | 'overtaken'> {
    const { jobId } = parcel;
    switch (parcel.kind) {
      case 'create': {
        const { by, document } = parcel;
        return jobArrived(await tell('createJob', { body: { id: jobId, by, document } }));
      }
      case 'reading': {
        const reading = await tell('putReading', { id: jobId, reading: parcel.id, body: parcel.draft });
        return readingArrived({ jobId, reading });
      }
      case 'document': {
        const job = this.store.getState().saving.jobs[jobId] ?? (await tellEngine(jobId));
        if (changesBetween(asJson(parcel.base), asJson(job.document)).length > 0) {
          // Somebody else's change has arrived since ours was made: ours is laid over it first.
          this.store.dispatch(documentOvertaken({ id: parcel.id, current: job }));
          return 'overtaken';
        }
        const steps = changesBetween(asJson(parcel.base), asJson(parcel.ours)).map(patchStepOf);
        if (steps.length === 0) return null;
        return jobArrived(await tell('patchJob', { id: jobId, body: { version: job.version, by: parcel.by, steps } }));
      }
    }
  }

  /**
   * Keeps an engine as it is with what arrives.
   *
   * @throws AskFault when the engine is not known here, and the server cannot be reached to tell of it
   */
  private async keepWith(id: string, arrived: Arrival): Promise<void> {
    if (!this.store.getState().saving.jobs[id] && !jobArrived.match(arrived)) {
      try {
        await tellEngine(id);
      } catch (error) {
        if (isAskFault(error) && error.kind === 'unreachable') throw error;
      }
    }
    const known = this.store.getState().saving.jobs[id];
    const job = jobArrived.match(arrived)
      ? newerEngine(known, arrived.payload)
      : known && engineWithReading(known, arrived.payload.reading);
    // A browser that keeps nothing goes without: then it has nothing to show while the server is away.
    if (job) await keepEngine(job).catch(() => undefined);
  }

  private async refused(parcel: Parcel, { problem }: AskFault & { kind: 'refused' }): Promise<void> {
    const { dispatch } = this.store;
    const isStale = problemKind(problem) === 'stale-version';
    if (isStale && parcel.kind === 'document') {
      const { jobViewSchema } = await documentSchemas();
      dispatch(documentOvertaken({ id: parcel.id, current: jobViewSchema.parse(problem.current) }));
    } else if (isStale && parcel.kind === 'reading') {
      const { readingSchema } = await documentSchemas();
      dispatch(readingOvertaken({ id: parcel.id, current: readingSchema.nullable().parse(problem.current) }));
    } else dispatch(parcelRefused({ id: parcel.id, detail: problem.detail }));
  }
}

/** Starts carrying changes to the server, first those that an earlier visit could not send. */
export async function startDelivery(store: Store): Promise<void> {
  keepEngines(store);
  await new Delivery(store).start();
}

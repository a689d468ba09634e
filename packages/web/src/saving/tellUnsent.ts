import { MOST_UNSENT, type Unsent, type UnsentChange, unsentWords } from '@fettle/core';
import { localNote, setMinorNote } from '../base/localNotes.js';
import type { Store } from '../base/store.js';
import { tell } from '../wire/tell.js';
import { browserId } from './browserId.js';
import { readingPlace } from './clashWords.js';
import { maySend } from './maySend.js';
import type { Clash, Parcel } from './outbox.js';
import type { SavingState } from './savingSlice.js';

/** What is sent within this time is not told, ms. */
const WAITS_MS = 5000;
/** What the server was told last; kept, for what waited may have been sent by the time the page is opened again. */
const KEY = 'fettle.unsent';

/** Name of an engine with a colon, as far as it is known here. */
function engineWords({ jobs, parcels }: SavingState, id: string): string {
  const made = parcels.find((parcel) => parcel.kind === 'create' && parcel.jobId === id);
  const document = jobs[id]?.document ?? (made?.kind === 'create' ? made.document : undefined);
  return document ? `${document.name}: ` : '';
}

function ofParcel(saving: SavingState, parcel: Parcel): UnsentChange {
  const engine = engineWords(saving, parcel.jobId);
  const words =
    parcel.kind === 'reading'
      ? `${engine}${readingPlace(parcel.draft)}, “${parcel.draft.text}”`
      : parcel.kind === 'create'
        ? `${parcel.document.name}: new engine`
        : `${engine}change of the data sheet or settings`;
  return { id: parcel.id, kind: parcel.kind, engine: parcel.jobId, words: unsentWords(words) };
}

function ofClash(saving: SavingState, clash: Clash): UnsentChange {
  const engine = engineWords(saving, clash.jobId);
  const words =
    clash.kind === 'reading'
      ? `${engine}${readingPlace(clash.ours)}, “${clash.ours.text}” (not decided)`
      : `${engine}change not decided`;
  // It has the id of what it is against, which the server has.
  return { id: clash.id, kind: 'document', engine: clash.jobId, words: unsentWords(words) };
}

/** What waits in this browser now, as it is told; nothing where it is not for who is signed in. */
export function unsentOf(saving: SavingState, isOwn: (parcel: Parcel) => boolean): readonly UnsentChange[] {
  const parcels = [...saving.parcels, ...saving.refusals.map(({ parcel }) => parcel)].filter(isOwn);
  return [
    ...parcels.map((parcel) => ofParcel(saving, parcel)),
    ...saving.clashes.map((clash) => ofClash(saving, clash)),
  ];
}

function asTold(changes: readonly UnsentChange[]): Unsent {
  return { changes: changes.slice(0, MOST_UNSENT), more: Math.max(0, changes.length - MOST_UNSENT) };
}

/** Tells the server what waits here for longer than a moment, and when it does so no longer. */
class UnsentTeller {
  private readonly store: Store;
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** Ids of what waited when the timer was set. */
  private waiting: ReadonlySet<string> = new Set();
  /** True if the server could not be told the last time: then the next try waits. */
  private hasFailed = false;

  constructor(store: Store) {
    this.store = store;
    store.subscribe(() => this.look());
    this.look();
  }

  private now(): readonly UnsentChange[] {
    const { access, saving } = this.store.getState();
    return unsentOf(saving, (parcel) => maySend(access, parcel));
  }

  private mayTell(): boolean {
    const { isOn, session } = this.store.getState().access;
    return isOn === false || session?.person?.mustChange === false;
  }

  private look(): void {
    const { isRecalled, parcels, refusals, clashes } = this.store.getState().saving;
    if (this.timer !== null || !isRecalled || !this.mayTell()) return;
    const isNothing = parcels.length + refusals.length + clashes.length === 0;
    if (isNothing && localNote(KEY) === null) return;
    this.waiting = new Set(this.now().map(({ id }) => id));
    // That nothing waits any more is told at once: the page may be closed the next moment.
    this.timer = setTimeout(() => void this.tell(), isNothing && !this.hasFailed ? 0 : WAITS_MS);
  }

  private async tell(): Promise<void> {
    const changes = this.now().filter(({ id }) => this.waiting.has(id));
    const body = asTold(changes);
    const text = changes.length === 0 ? null : JSON.stringify(body);
    if (text !== localNote(KEY) && this.mayTell()) {
      try {
        await tell('tellUnsent', { browser: browserId(), body });
        setMinorNote(KEY, text);
      } catch {
        // The server is away, or has no room: it is told when it is back.
      }
    }
    this.timer = null;
    this.hasFailed = text !== localNote(KEY);
    // Told once; looked at again as long as something waits.
    if (changes.length > 0 || localNote(KEY) !== null) this.look();
  }
}

/** Starts telling the server what waits in this browser. */
export function startTellingUnsent(store: Store): void {
  new UnsentTeller(store);
}

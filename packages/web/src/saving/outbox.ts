import type { JobDocument, Json, Reading, ReadingDraft } from '@fettle/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A change on its way to the server. It stays in the browser until the server has it. */
export type Parcel =
  | {
      readonly kind: 'create';
      readonly id: string;
      readonly jobId: string;
      readonly by: string;
      readonly document: JobDocument;
    }
  | { readonly kind: 'reading'; readonly id: string; readonly jobId: string; readonly draft: ReadingDraft }
  | {
      readonly kind: 'document';
      readonly id: string;
      readonly jobId: string;
      readonly by: string;
      /** The document the change was made from, and what it became. */
      readonly base: JobDocument;
      readonly ours: JobDocument;
    };

/** Two people changed the same thing; somebody has to say which stays. */
export type Clash =
  | {
      readonly kind: 'reading';
      readonly id: string;
      readonly jobId: string;
      readonly ours: ReadingDraft;
      readonly theirs: Reading | null;
    }
  | {
      readonly kind: 'document';
      readonly id: string;
      readonly jobId: string;
      /** JSON Pointer of the place. */
      readonly path: string;
      readonly ours: Json | undefined;
      readonly theirs: Json | undefined;
    };

/** A change that the server will not take as it is. It is kept until somebody decides. */
export interface Refusal {
  readonly parcel: Parcel;
  readonly detail: string;
}

/** Everything that waits in the browser: for the server, or for somebody's decision. */
export interface Waiting {
  readonly parcels: readonly Parcel[];
  readonly clashes: readonly Clash[];
  readonly refusals: readonly Refusal[];
}

/** One thing that waits, in a row of its own, and the tab that looks after it. */
interface Row {
  /** What it is and its id: two tabs never write the same row. */
  readonly key: string;
  readonly tab: string;
  /** Rows in the order they came. */
  readonly at: number;
  readonly item:
    | { readonly is: 'parcel'; readonly parcel: Parcel }
    | { readonly is: 'clash'; readonly clash: Clash }
    | { readonly is: 'refusal'; readonly refusal: Refusal };
}

interface OutboxDatabase extends DBSchema {
  /** What version 1 kept: everything in one row. */
  waiting: { key: 'all'; value: Waiting };
  rows: { key: string; value: Row };
}

/** Local storage is written at once, but holds little: there each tab notes what is not in its rows yet. */
const JOURNAL = 'fettle.waiting.';

/** What tabs have noted and not yet put into their rows. */
function journals(): { tab: string; waiting: Waiting }[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(JOURNAL))
    .map((key) => ({ tab: key.slice(JOURNAL.length), waiting: JSON.parse(localStorage.getItem(key)!) as Waiting }));
}

const NOTHING: Waiting = { parcels: [], clashes: [], refusals: [] };

function itemsOf({ parcels, clashes, refusals }: Waiting): Map<string, Row['item']> {
  return new Map<string, Row['item']>([
    ...parcels.map((parcel) => [`parcel ${parcel.id}`, { is: 'parcel', parcel }] as const),
    ...clashes.map((clash) => [`clash ${clash.id}`, { is: 'clash', clash }] as const),
    ...refusals.map((refusal) => [`refusal ${refusal.parcel.id}`, { is: 'refusal', refusal }] as const),
  ]);
}

function waitingOf(rows: readonly Row[]): Waiting {
  const items = rows.map(({ item }) => item);
  return {
    parcels: items.flatMap((item) => (item.is === 'parcel' ? [item.parcel] : [])),
    clashes: items.flatMap((item) => (item.is === 'clash' ? [item.clash] : [])),
    refusals: items.flatMap((item) => (item.is === 'refusal' ? [item.refusal] : [])),
  };
}

/** What one tab keeps in the browser, a row a thing, so that several tabs never overwrite each other's. */
export class Outbox {
  private readonly tab: string;
  private opened: Promise<IDBPDatabase<OutboxDatabase>> | null = null;
  private last = 0;

  constructor(tab: string) {
    this.tab = tab;
  }

  private database(): Promise<IDBPDatabase<OutboxDatabase>> {
    this.opened ??= openDB<OutboxDatabase>('fettle', 2, {
      async upgrade(database, from, _to, transaction) {
        const rows = database.createObjectStore('rows', { keyPath: 'key' });
        if (from < 1) return;
        const before = (await transaction.objectStore('waiting').get('all')) ?? NOTHING;
        let at = 0;
        for (const [key, item] of itemsOf(before)) {
          at += 1;
          await rows.put({ key, tab: '', at, item });
        }
        database.deleteObjectStore('waiting');
      },
      // Another tab runs a newer version: it must not wait for this one.
      blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
    });
    return this.opened;
  }

  /**
   * Takes over what tabs that are gone left waiting.
   *
   * @param isAlive whether a tab still looks after its own
   * @returns what this tab now looks after in addition, oldest first, and the other tabs that have something waiting
   */
  async adopt(isAlive: (tab: string) => boolean): Promise<{ waiting: Waiting; others: readonly string[] }> {
    const left = journals().filter(({ tab }) => tab !== this.tab && !isAlive(tab));
    const transaction = (await this.database()).transaction('rows', 'readwrite');
    // What a tab could not put into its rows any more says all that it had: its rows are older.
    for (const { tab, waiting } of left) {
      for (const row of await transaction.store.getAll()) if (row.tab === tab) await transaction.store.delete(row.key);
      for (const [key, item] of itemsOf(waiting)) {
        this.last = Math.max(this.last + 1, Date.now());
        await transaction.store.put({ key, tab, at: this.last, item });
      }
    }
    const foreign = (await transaction.store.getAll()).filter(({ tab }) => tab !== this.tab);
    const orphans = foreign.filter(({ tab }) => !isAlive(tab));
    orphans.sort((a, b) => a.at - b.at);
    for (const row of orphans) await transaction.store.put({ ...row, tab: this.tab });
    await transaction.done;
    for (const { tab } of left) localStorage.removeItem(JOURNAL + tab);
    const tabs = [...foreign, ...journals()].map(({ tab }) => tab);
    const others = [...new Set(tabs)].filter((tab) => tab !== this.tab && isAlive(tab));
    return { waiting: waitingOf(orphans), others };
  }

  /**
   * Writes down at once, before anything else can happen, what is waiting: rows take a moment, and a page that is closed in that moment
   * must not take a figure along.
   */
  note(now: Waiting): void {
    localStorage.setItem(JOURNAL + this.tab, JSON.stringify(now));
  }

  /** What was noted is in its rows. */
  noted(): void {
    localStorage.removeItem(JOURNAL + this.tab);
  }

  /** Keeps what is waiting now, where it differs from what was kept before: one transaction, only this tab's rows. */
  async keep(now: Waiting, before: Waiting | null): Promise<void> {
    const [wanted, kept] = [itemsOf(now), itemsOf(before ?? NOTHING)];
    const transaction = (await this.database()).transaction('rows', 'readwrite');
    for (const [key, item] of wanted) {
      const old = kept.get(key);
      const isSame =
        old !== undefined &&
        ((item.is === 'parcel' && old.is === 'parcel' && item.parcel === old.parcel) ||
          (item.is === 'clash' && old.is === 'clash' && item.clash === old.clash) ||
          (item.is === 'refusal' && old.is === 'refusal' && item.refusal === old.refusal));
      if (isSame) continue;
      const known = await transaction.store.get(key);
      this.last = Math.max(this.last + 1, Date.now());
      await transaction.store.put({ key, tab: this.tab, at: known?.at ?? this.last, item });
    }
    for (const key of kept.keys()) if (!wanted.has(key)) await transaction.store.delete(key);
    await transaction.done;
  }
}

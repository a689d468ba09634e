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
  | {
      readonly kind: 'reading';
      readonly id: string;
      readonly jobId: string;
      readonly draft: ReadingDraft;
      /** Readings of one's own that it took the place of before they were known to be sent: the server may have one of them. */
      readonly took?: readonly string[];
    }
  | {
      readonly kind: 'document';
      readonly id: string;
      readonly jobId: string;
      readonly by: string;
      /** The document the change was made from, and what it became. */
      readonly base: JobDocument;
      readonly ours: JobDocument;
    };

/** Who typed what waits. */
export function typedBy(parcel: Parcel): string {
  return parcel.kind === 'reading' ? parcel.draft.by : parcel.by;
}

/** The same under another name. */
export function typedAs(parcel: Parcel, by: string): Parcel {
  return parcel.kind === 'reading' ? { ...parcel, draft: { ...parcel.draft, by } } : { ...parcel, by };
}

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
  /** For each tab the number of its last notes that its rows are up to. */
  marks: { key: string; value: number };
}

/** Local storage is written at once, but holds little: there each tab notes what is not in its rows yet. */
const JOURNAL = 'fettle.waiting.';

/** What a tab has noted and not yet put into its rows. */
interface Journal {
  readonly tab: string;
  /** Counts a tab's notes: rows that are up to a later one know better. */
  readonly count: number;
  readonly waiting: Waiting;
  /** Keys of rows that wait no longer. */
  readonly gone: readonly string[];
}

/** Notes as an earlier build wrote them had neither a number nor what is gone. */
type Noted = Omit<Journal, 'tab'> | Waiting;

function journals(): Journal[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(JOURNAL))
    .map((key) => {
      const tab = key.slice(JOURNAL.length);
      const noted = JSON.parse(localStorage.getItem(key)!) as Noted;
      return 'count' in noted ? { tab, ...noted } : { tab, count: 0, waiting: noted, gone: [] };
    });
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
  private count = 0;
  /** What was noted last, and the keys of what was noted before and may have a row yet. */
  private wanted = new Set<string>();
  private readonly rows = new Set<string>();

  constructor(tab: string) {
    this.tab = tab;
  }

  private database(): Promise<IDBPDatabase<OutboxDatabase>> {
    this.opened ??= openDB<OutboxDatabase>('fettle', 3, {
      async upgrade(database, from, _to, transaction) {
        database.createObjectStore('marks');
        if (from >= 2) return;
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

  /** True if anything waits in this browser that is not this tab's: what `adopt` may take over. */
  async hasLeft(): Promise<boolean> {
    if (journals().some(({ tab }) => tab !== this.tab)) return true;
    const rows = await (await this.database()).getAll('rows');
    return rows.some(({ tab }) => tab !== this.tab);
  }

  /**
   * Takes over what tabs that are gone left waiting.
   *
   * @param isAlive whether a tab still looks after its own
   * @returns what this tab now looks after in addition, oldest first, and the other tabs that have something waiting
   */
  async adopt(isAlive: (tab: string) => boolean): Promise<{ waiting: Waiting; others: readonly string[] }> {
    const noted = journals();
    const left = noted.filter(({ tab }) => tab !== this.tab && !isAlive(tab));
    const transaction = (await this.database()).transaction(['rows', 'marks'], 'readwrite', { durability: 'strict' });
    const [rows, marks] = [transaction.objectStore('rows'), transaction.objectStore('marks')];
    for (const { tab, count, waiting, gone } of left) {
      // A browser that was ended outright may have kept older notes than rows.
      if (((await marks.get(tab)) ?? -1) >= count) continue;
      for (const key of gone) await rows.delete(key);
      for (const [key, item] of itemsOf(waiting)) {
        this.last = Math.max(this.last + 1, Date.now());
        await rows.put({ key, tab, at: (await rows.get(key))?.at ?? this.last, item });
      }
      await marks.put(count, tab);
    }
    for (const tab of await marks.getAllKeys()) {
      if (!isAlive(tab) && tab !== this.tab && !left.some((journal) => journal.tab === tab)) await marks.delete(tab);
    }
    const foreign = (await rows.getAll()).filter(({ tab }) => tab !== this.tab);
    const orphans = foreign.filter(({ tab }) => !isAlive(tab));
    orphans.sort((a, b) => a.at - b.at);
    for (const row of orphans) await rows.put({ ...row, tab: this.tab });
    await transaction.done;
    for (const { tab } of left) localStorage.removeItem(JOURNAL + tab);
    const others = [...new Set([...foreign, ...noted].map(({ tab }) => tab))];
    return { waiting: waitingOf(orphans), others: others.filter((tab) => tab !== this.tab && isAlive(tab)) };
  }

  /** What other tabs have waiting, oldest first. */
  async others(): Promise<readonly Parcel[]> {
    const rows = await (await this.database()).getAll('rows');
    rows.sort((a, b) => a.at - b.at);
    return waitingOf(rows.filter(({ tab }) => tab !== this.tab)).parcels;
  }

  /**
   * Writes down at once, before anything else can happen, what is waiting: rows take a moment, and a page that is closed in that moment
   * must not take a figure along.
   *
   * @returns the number of these notes, for `keep`, and whether there was room for them
   */
  note(now: Waiting): { readonly count: number; readonly isNoted: boolean } {
    this.count += 1;
    this.wanted = new Set(itemsOf(now).keys());
    const gone = [...this.rows].filter((key) => !this.wanted.has(key));
    for (const key of this.wanted) this.rows.add(key);
    const noted: Noted = { count: this.count, waiting: now, gone };
    try {
      localStorage.setItem(JOURNAL + this.tab, JSON.stringify(noted));
      return { count: this.count, isNoted: true };
    } catch {
      // Local storage is full or forbidden: the rows follow in a moment all the same.
      return { count: this.count, isNoted: false };
    }
  }

  /**
   * Keeps what is waiting now, where it differs from what was kept before: one transaction, only this tab's rows. Then the notes of it are
   * done with.
   */
  async keep(now: Waiting, before: Waiting | null, count: number): Promise<void> {
    const [wanted, kept] = [itemsOf(now), itemsOf(before ?? NOTHING)];
    // On disk before it counts as kept: a browser that is ended from outside takes nothing along that it has shown as kept.
    const transaction = (await this.database()).transaction(['rows', 'marks'], 'readwrite', { durability: 'strict' });
    const rows = transaction.objectStore('rows');
    for (const [key, item] of wanted) {
      const old = kept.get(key);
      const isSame =
        old !== undefined &&
        ((item.is === 'parcel' && old.is === 'parcel' && item.parcel === old.parcel) ||
          (item.is === 'clash' && old.is === 'clash' && item.clash === old.clash) ||
          (item.is === 'refusal' && old.is === 'refusal' && item.refusal === old.refusal));
      if (isSame) continue;
      const known = await rows.get(key);
      this.last = Math.max(this.last + 1, Date.now());
      await rows.put({ key, tab: this.tab, at: known?.at ?? this.last, item });
    }
    const gone = [...kept.keys()].filter((key) => !wanted.has(key));
    for (const key of gone) await rows.delete(key);
    await transaction.objectStore('marks').put(count, this.tab);
    await transaction.done;
    for (const key of gone) if (!this.wanted.has(key)) this.rows.delete(key);
    if (this.count === count) localStorage.removeItem(JOURNAL + this.tab);
  }
}

/** How many things wait that are kept nowhere but in the page. @param kept what was written down last; null for nothing */
export function onlyInPage(now: Waiting, kept: Waiting | null): number {
  const written = itemsOf(kept ?? NOTHING);
  return [...itemsOf(now).keys()].filter((key) => !written.has(key)).length;
}

import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { dropLocalNote, localNote, localNoteKeys, setLocalNote } from '../base/localNotes.js';
import { newId } from '../base/newId.js';

/*
 * What is being typed is noted on this device with every key, in local storage: that is written at once and read at once. But it comes to
 * the disk late, up to a minute after, and so does the removal of a note. A browser that is ended outright between the two has its last
 * notes back when it is opened again: half a figure in the box of one that was finished and kept since. So each typing has an id of its
 * own, and which ones are done with is written down where it comes to the disk with what was kept.
 */

interface DoneDatabase extends DBSchema {
  /** Typings that are done with: saved, or given up. */
  done: { key: string; value: { readonly id: string; readonly at: number }; indexes: { at: number } };
}

/** What local storage keeps notes under. */
const NOTES = ['fettle.typing/', 'fettle.draft.'];
/** An id and the text; notes of an earlier build have no id. */
const NOTE = /^([\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12}) (.*)$/su;
/** A note that is this much older than its end has long since gone from the disk, ms. */
const KEPT_MS = 24 * 60 * 60 * 1000;
/** Longer than this a page does not wait to be shown, ms. */
const LONGEST_MS = 3000;

let opened: Promise<IDBPDatabase<DoneDatabase>> | null = null;

// Where databases are forbidden, asking for one throws at once: that is a refusal like any other.
async function database(): Promise<IDBPDatabase<DoneDatabase>> {
  opened ??= openDB<DoneDatabase>('fettle-typing', 1, {
    upgrade(fresh) {
      fresh.createObjectStore('done', { keyPath: 'id' }).createIndex('at', 'at');
    },
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  });
  return opened;
}

/** Id of the account whose typing is noted; null where nobody signs in. */
let typist: string | null = null;

/** Says whose typing is noted from here on: on a shared device what one has half typed is not finished under another's name. */
export function setTypist(account: string | null): void {
  typist = account;
}

/** Parts a key from the account that it is of; no key has this sign itself. */
const OF = '@';

interface Note {
  /** What it is kept under. */
  readonly kept: string;
  readonly id: string | null;
  readonly text: string;
}

function readKept(kept: string): Note | null {
  const content = localNote(kept);
  if (content === null) return null;
  const note = NOTE.exec(content);
  return note ? { kept, id: note[1]!, text: note[2]! } : { kept, id: null, text: content };
}

const ownKey = (key: string) => (typist === null ? key : `${key}${OF}${typist}`);

/** One's own note; else one from before anybody signed in here. */
function read(key: string): Note | null {
  return readKept(ownKey(key)) ?? readKept(key);
}

/** The keys of what is noted that begin with something. */
export function notedKeys(start: string): string[] {
  const keys = localNoteKeys().flatMap((kept) => {
    const [key = '', account = typist] = kept.split(OF);
    return key.startsWith(start) && account === typist ? [key] : [];
  });
  return [...new Set(keys)];
}

/** What is noted under a key; null for nothing. */
export function notedText(key: string): string | null {
  return read(key)?.text ?? null;
}

/** Notes what is being typed; until it is done with it is one typing. */
export function noteText(key: string, text: string): void {
  const note = read(key);
  setLocalNote(ownKey(key), `${note?.id ?? newId()} ${text}`);
  if (note !== null && note.kept !== ownKey(key)) dropLocalNote(note.kept);
}

/** What was typed is saved or given up: nothing is noted any more, and no earlier note of it counts. */
export function noteDone(key: string): void {
  const note = read(key);
  if (note === null) return;
  dropLocalNote(note.kept);
  if (note.id === null) return;
  const row = { id: note.id, at: Date.now() };
  // A browser that keeps no databases goes without: only one that is ended outright could bring the note back.
  void database()
    .then((kept) => kept.put('done', row))
    .catch(() => undefined);
}

/** @param notes what notes are kept under, of whomever */
async function dropDone(notes: readonly string[]): Promise<void> {
  const transaction = (await database()).transaction('done', 'readwrite');
  const { store } = transaction;
  for (const kept of notes) {
    const id = readKept(kept)?.id;
    if (id == null || (await store.getKey(id)) === undefined) continue;
    dropLocalNote(kept);
    // Its removal may miss the disk once more.
    await store.put({ id, at: Date.now() });
  }
  const old = IDBKeyRange.upperBound(Date.now() - KEPT_MS);
  for (let cursor = await store.index('at').openCursor(old); cursor; cursor = await cursor.continue()) {
    await cursor.delete();
  }
  await transaction.done;
}

/**
 * Drops notes that came back after they were done with. Before anything is shown; where no note is kept, or this takes longer than a
 * few seconds, it is not waited for.
 */
export async function dropDoneNotes(): Promise<void> {
  const notes = localNoteKeys().filter((kept) => NOTES.some((start) => kept.startsWith(start)));
  const dropped = dropDone(notes).catch(() => undefined);
  if (notes.length === 0) return;
  await Promise.race([dropped, new Promise((resolve) => setTimeout(resolve, LONGEST_MS))]);
}

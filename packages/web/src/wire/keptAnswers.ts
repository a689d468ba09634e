import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** An answer as it was when the server was here last. */
interface KeptAnswer {
  readonly address: string;
  readonly value: unknown;
  /** When it was kept, ms. */
  readonly at: number;
}

interface AnswersDatabase extends DBSchema {
  answers: { key: string; value: KeptAnswer; indexes: { at: number } };
}

/** Maximum answers stored: the latest. */
const MOST = 400;

/** True if all was forgotten: what still arrives in this page, or waits to be written down, is not kept any more. */
let isForgotten = false;
let opened: Promise<IDBPDatabase<AnswersDatabase>> | null = null;

function database(): Promise<IDBPDatabase<AnswersDatabase>> {
  opened ??= openDB<AnswersDatabase>('fettle-answers', 1, {
    upgrade(fresh) {
      fresh.createObjectStore('answers', { keyPath: 'address' }).createIndex('at', 'at');
    },
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  });
  return opened;
}

/** Keeps an answer on this device; those that came first go when there are too many. */
export async function keepAnswer(address: string, value: unknown): Promise<void> {
  if (isForgotten) return;
  const transaction = (await database()).transaction('answers', 'readwrite');
  await transaction.store.put({ address, value, at: Date.now() });
  let over = (await transaction.store.count()) - MOST;
  let cursor = over > 0 ? await transaction.store.index('at').openCursor() : null;
  while (cursor && over > 0) {
    await cursor.delete();
    over -= 1;
    cursor = await cursor.continue();
  }
  await transaction.done;
}

/** What was answered at an address when the server was here last; undefined where nothing is kept. */
export async function keptAnswer(address: string): Promise<unknown> {
  return (await (await database()).get('answers', address))?.value;
}

/** Forgets every answer until the page is loaded anew: who is signed out leaves nothing of the workshop on the device. */
export async function forgetAnswers(): Promise<void> {
  isForgotten = true;
  await (await database()).clear('answers');
}

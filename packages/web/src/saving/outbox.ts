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

interface OutboxDatabase extends DBSchema {
  waiting: { key: 'all'; value: Waiting };
}

let opened: Promise<IDBPDatabase<OutboxDatabase>> | null = null;

function database(): Promise<IDBPDatabase<OutboxDatabase>> {
  opened ??= openDB<OutboxDatabase>('fettle', 1, {
    upgrade(created) {
      created.createObjectStore('waiting');
    },
  });
  return opened;
}

/** What an earlier visit left waiting, or null. */
export async function recallWaiting(): Promise<Waiting | null> {
  return (await (await database()).get('waiting', 'all')) ?? null;
}

export async function keepWaiting(waiting: Waiting): Promise<void> {
  await (await database()).put('waiting', waiting, 'all');
}

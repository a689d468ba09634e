import type { AuditEntry } from '@fettle/core';
import type { Database } from '../database/Database.js';
import { acting } from './acting.js';

interface Told {
  readonly kind?: AuditEntry['kind'];
  readonly what: string;
  readonly subject: string;
  readonly subjectId?: string | null;
  readonly detail?: string;
  /** Who did it, where that is not who is signed in. */
  readonly by?: string;
  readonly device?: string | null;
}

/** Longest text of each part: what strangers type is kept, but not at any length. */
const LONGEST = 120;
const cut = (text: string) => text.slice(0, LONGEST);

/** Keeps that something was done which no other table says. */
export async function tellEvent({ manager }: Pick<Database, 'manager'>, told: Told): Promise<void> {
  const now = acting();
  await manager.query(
    `INSERT INTO "event" ("at", "by", "device", "kind", "what", "subject_id", "subject", "detail")
     VALUES (date_trunc('milliseconds', now()), $1, $2, $3, $4, $5, $6, $7)`,
    [
      cut(told.by ?? now.person ?? ''),
      told.device === undefined ? now.device : told.device,
      told.kind ?? 'access',
      told.what,
      told.subjectId ?? null,
      cut(told.subject),
      cut(told.detail ?? ''),
    ],
  );
}

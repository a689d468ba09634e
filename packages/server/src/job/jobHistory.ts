import type { Answered, JobChange, Read } from '@fettle/core';
import { type Cursor, cursorText, readCursor } from '../database/cursor.js';
import type { Database } from '../database/Database.js';
import { withinBytes } from '../database/withinBytes.js';

interface EntryRow {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly kind: JobChange['kind'];
  readonly version: number | null;
  readonly changes: JobChange['changes'];
  readonly reading: JobChange['reading'];
  /** How many there are for this page and the next. */
  readonly there: number;
}

/** Changes of the document and readings in one list by the moment the server kept them; keys are compared byte by byte. */
const ORDER = '"at" DESC, "id" COLLATE "C" DESC';
const ENTRIES = withinBytes(
  `SELECT * FROM (
    (SELECT 'change-' || lpad("id"::text, 12, '0') AS "id", "at", "by", "kind", "version", "changes", NULL::jsonb AS "reading"
     FROM "change" WHERE $6 <> 'readings' AND ($5::text IS NULL OR "by" = $5) AND "job_id" = $1 AND ($2::timestamptz IS NULL OR "at" <= $2)
     ORDER BY "at" DESC, "change"."id" DESC LIMIT $4)
    UNION ALL
    (SELECT now."id"::text, now."received_at", now."by", 'read', NULL, '[]'::jsonb, jsonb_build_object(
       'feature', now."feature", 'station', now."station", 'slot', now."slot",
       'from', before."text", 'to', now."text", 'readAt', now."at",
       'reason', coalesce(now."taken"->>'reason', ''))
     FROM "reading" AS now LEFT JOIN "reading" AS before ON before."id" = now."replaces"
     WHERE $6 <> 'changes' AND ($5::text IS NULL OR now."by" = $5) AND now."job_id" = $1 AND ($2::timestamptz IS NULL OR now."received_at" <= $2)
     ORDER BY now."received_at" DESC, now."id" DESC LIMIT $4)
  ) AS entry
  WHERE $2::timestamptz IS NULL OR "at" < $2 OR ("at" = $2 AND "id" COLLATE "C" < $3 COLLATE "C")
  ORDER BY ${ORDER}
  LIMIT $4`,
  '"changes"',
  ORDER,
);

/** More than this at one moment do not come. */
const AT_ONE_MOMENT = 50;

function entryOf({ id, at, by, kind, version, changes, reading }: EntryRow): JobChange {
  const readAt = reading && new Date(reading.readAt).toISOString();
  return {
    id,
    at: at.toISOString(),
    by,
    kind,
    version,
    changes,
    reading: reading && readAt ? { ...reading, readAt } : null,
  };
}

/** A page of who changed what and when in an engine, readings included, newest first. */
export async function jobHistory(
  { manager }: Database,
  id: string,
  { what, person, after, most }: Read<'jobHistory'>['query'],
): Promise<Answered<'jobHistory'>> {
  const from: Cursor | null = readCursor(after);
  const found: EntryRow[] = await manager.query(ENTRIES, [
    id,
    from?.at ?? null,
    from?.key ?? null,
    most + 1 + AT_ONE_MOMENT,
    person ?? null,
    what,
  ]);
  const entries = found.slice(0, most).map(entryOf);
  const last = entries.at(-1);
  const goesOn = last && found[0]!.there > entries.length ? cursorText({ at: new Date(last.at), key: last.id }) : null;
  return { entries, goesOn };
}

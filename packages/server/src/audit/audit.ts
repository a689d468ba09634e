import { type AuditEntry, csvCell, FEATURE_TABLE, FEATURES, partName, type Read, SLOTS, slotName } from '@fettle/core';
import Papa from 'papaparse';
import { z } from 'zod';
import { cursorText, readCursor } from '../database/cursor.js';
import type { Database } from '../database/Database.js';

/** Lines of a file at most. */
const MOST_IN_FILE = 100_000;
/** Lines that are read at once for a file. */
const AT_ONCE = 1000;

type Filter = Read<'auditCsv'>['query'];

interface Row extends Omit<AuditEntry, 'at' | 'subjectId'> {
  readonly at: Date;
  readonly subject_id: string | null;
}

const readingSchema = z.tuple([z.enum(FEATURES), z.int(), z.enum(SLOTS), z.string()]);

/** What was read where, in words. */
function readingWords(detail: string): string {
  const [feature, station, slot, text] = readingSchema.parse(JSON.parse(detail));
  const place = `${partName(feature, station)} ${FEATURE_TABLE[feature].word}, ${slotName(slot).toLowerCase()}`;
  return text === '' ? place : `${place}: ${text}`;
}

function entryOf({ subject_id: subjectId, at, ...rest }: Row): AuditEntry {
  const detail = rest.kind === 'reading' ? readingWords(rest.detail) : rest.detail;
  return { ...rest, detail, at: at.toISOString(), subjectId };
}

async function rowsOf({ manager }: Database, filter: Filter, after: string | undefined, most: number): Promise<Row[]> {
  const from = readCursor(after);
  const given: unknown[] = [];
  const place = (value: unknown) => `$${given.push(value)}`;
  const { person, device, kind, subject } = filter;
  const where = [
    ...(person === undefined ? [] : [`lower("audit"."by") = lower(${place(person)})`]),
    ...(device === undefined ? [] : [`"audit"."device" = ${place(device)}`]),
    ...(kind === undefined ? [] : [`"kind" = ${place(kind)}`]),
    ...(subject === undefined ? [] : [`"subject_id" = ${place(subject)}`]),
    ...(filter.from === undefined ? [] : [`"at" >= ${place(`${filter.from}T00:00:00Z`)}::timestamptz`]),
    ...(filter.to === undefined ? [] : [`"at" < ${place(`${filter.to}T00:00:00Z`)}::timestamptz + interval '1 day'`]),
    ...(from ? [`("at", "audit"."id" COLLATE "C") < (${place(from.at)}, ${place(from.key)} COLLATE "C")`] : []),
  ];
  given.push(most);
  return manager.query(
    `SELECT "audit"."id", "at", "by", "device"."name" AS "device", "kind", "what", "subject_id", "subject", "detail"
     FROM "audit" LEFT JOIN "device" ON "device"."id" = "audit"."device"
     ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
     ORDER BY "at" DESC, "audit"."id" COLLATE "C" DESC LIMIT $${given.length}`,
    given,
  );
}

/** Who did what, from which device, the last first. */
export async function auditPage(
  database: Database,
  { after, most, ...filter }: Read<'listAudit'>['query'],
): Promise<{ entries: AuditEntry[]; people: string[]; goesOn: string | null }> {
  const rows = await rowsOf(database, filter, after, most + 1);
  const shown = rows.slice(0, most);
  const last = shown.at(-1);
  const people: { name: string }[] = await database.manager.query(`SELECT "name" FROM "person" ORDER BY "name_key"`);
  return {
    entries: shown.map(entryOf),
    people: people.map(({ name }) => name),
    goesOn: last && rows.length > most ? cursorText({ at: last.at, key: last.id }) : null,
  };
}

/** The same as CSV; a cell that a spreadsheet would work out is defused. */
export async function auditCsv(database: Database, filter: Filter): Promise<string> {
  const entries: AuditEntry[] = [];
  let after: string | undefined;
  while (entries.length < MOST_IN_FILE) {
    const rows = await rowsOf(database, filter, after, AT_ONCE);
    entries.push(...rows.map(entryOf));
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) break;
    after = cursorText({ at: last.at, key: last.id });
  }
  const head = ['Time (UTC)', 'Who', 'Device', 'Kind', 'What', 'Of', 'More'];
  const lines = entries.map(({ at, by, device, kind, what, subject, detail }) => [
    at,
    by,
    device ?? '',
    kind,
    what,
    subject,
    detail,
  ]);
  return `${Papa.unparse([head, ...lines.map((line) => line.map(csvCell))], { newline: '\n' })}\n`;
}

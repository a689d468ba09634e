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

/** What is gathered from a table that says what was done: the same columns of each. */
interface Branch {
  readonly from: string;
  /** Its moment and its key: an index leads along the first. */
  readonly at: string;
  readonly id: string;
  readonly by: string;
  readonly device: string;
  readonly kind: string;
  readonly what: string;
  readonly subjectId: string;
  readonly subject: string;
  readonly detail: string;
}

const BRANCHES: readonly Branch[] = [
  {
    from: '"change" JOIN "job" ON "job"."id" = "change"."job_id"',
    at: '"change"."at"',
    id: `'c' || "change"."id"`,
    by: '"change"."by"',
    device: '"change"."device"',
    kind: `'engine'`,
    what: '"change"."kind"',
    subjectId: '"change"."job_id"::text',
    subject: '"job"."name"',
    detail: `'version ' || "change"."version"`,
  },
  {
    from: '"reading" JOIN "job" ON "job"."id" = "reading"."job_id"',
    at: '"reading"."received_at"',
    id: `'r' || "reading"."id"`,
    by: '"reading"."by"',
    device: '"reading"."device"',
    kind: `'reading'`,
    what: `CASE WHEN "text" = '' THEN 'taken-back' ELSE 'read' END`,
    subjectId: '"reading"."job_id"::text',
    subject: '"job"."name"',
    detail: 'jsonb_build_array("feature", "station", "slot", "text")::text',
  },
  {
    from: '"drawer_movement"',
    at: '"at"',
    id: `'m' || "id"`,
    by: '"by"',
    device: '"drawer_movement"."device"',
    kind: `'drawer'`,
    what: '"kind"',
    subjectId: 'NULL::text',
    subject: `'Workshop stock'`,
    detail: `jsonb_array_length("changes") || ' kinds' || CASE WHEN "note" = '' THEN '' ELSE ': ' || "note" END`,
  },
  {
    from: '"type_revision"',
    at: '"at"',
    id: `'t' || "type_id" || '_' || "revision"`,
    by: '"by"',
    device: '"type_revision"."device"',
    kind: `'type'`,
    what: `CASE WHEN "revision" = 1 THEN 'created' ELSE 'changed' END`,
    subjectId: '"type_id"::text',
    subject: `"type"->>'name'`,
    detail: `'revision ' || "revision"`,
  },
  {
    from: '"signed_sheet" JOIN "job" ON "job"."id" = "signed_sheet"."job_id"',
    at: '"signed_at"',
    id: `'s' || "job_id" || '_' || "signed_sheet"."revision"`,
    by: '"signed_by"',
    device: '"signed_sheet"."device"',
    kind: `'sheet'`,
    what: `'signed'`,
    subjectId: '"job_id"::text',
    subject: '"job"."name"',
    detail: `'sheet ' || "signed_sheet"."revision"`,
  },
  {
    from: '"event"',
    at: '"at"',
    id: `'e' || "id"`,
    by: '"by"',
    device: '"event"."device"',
    kind: '"kind"',
    what: '"what"',
    subjectId: '"subject_id"',
    subject: '"subject"',
    detail: '"detail"',
  },
];

/** The last of all of them: each table gives its own last ones by its index, and only those are put in order together. */
async function rowsOf({ manager }: Database, filter: Filter, after: string | undefined, most: number): Promise<Row[]> {
  const from = readCursor(after);
  const given: unknown[] = [];
  const place = (value: unknown) => `$${given.push(value)}`;
  const { person, device, kind, subject } = filter;
  const places = {
    person: person === undefined ? null : place(person),
    device: device === undefined ? null : place(device),
    kind: kind === undefined ? null : place(kind),
    subject: subject === undefined ? null : place(subject),
    first: filter.from === undefined ? null : place(`${filter.from}T00:00:00Z`),
    last: filter.to === undefined ? null : place(`${filter.to}T00:00:00Z`),
    at: from === null ? null : place(from.at),
    key: from === null ? null : place(from.key),
    most: place(most),
  };
  const branches = BRANCHES.map((branch) => {
    const where = [
      ...(places.person === null ? [] : [`lower(${branch.by}) = lower(${places.person})`]),
      ...(places.device === null ? [] : [`${branch.device} = ${places.device}`]),
      ...(places.kind === null ? [] : [`${branch.kind} = ${places.kind}`]),
      ...(places.subject === null ? [] : [`${branch.subjectId} = ${places.subject}`]),
      ...(places.first === null ? [] : [`${branch.at} >= ${places.first}::timestamptz`]),
      ...(places.last === null ? [] : [`${branch.at} < ${places.last}::timestamptz + interval '1 day'`]),
      // The first of both finds the place by the index; the second tells apart what was done at the same moment.
      ...(places.at === null
        ? []
        : [
            `${branch.at} <= ${places.at}`,
            `(${branch.at}, (${branch.id}) COLLATE "C") < (${places.at}, ${places.key} COLLATE "C")`,
          ]),
    ];
    return `(SELECT ${branch.id} AS "id", ${branch.at} AS "at", ${branch.by} AS "by", ${branch.device} AS "device_id",
        ${branch.kind} AS "kind", ${branch.what} AS "what", ${branch.subjectId} AS "subject_id", ${branch.subject} AS "subject",
        ${branch.detail} AS "detail"
      FROM ${branch.from} ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
      ORDER BY ${branch.at} DESC, (${branch.id}) COLLATE "C" DESC LIMIT ${places.most})`;
  });
  return manager.query(
    `SELECT audit."id", "at", "by", "device"."name" AS "device", "kind", "what", "subject_id", "subject", "detail"
     FROM (${branches.join(' UNION ALL ')}) AS audit LEFT JOIN "device" ON "device"."id" = audit."device_id"
     ORDER BY "at" DESC, audit."id" COLLATE "C" DESC LIMIT ${places.most}`,
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
  const head = ['Time (UTC)', 'Who', 'Device', 'Kind', 'Action', 'Item', 'More'];
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

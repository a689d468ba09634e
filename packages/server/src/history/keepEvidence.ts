import type { EngineEvidence } from '@fettle/core';
import type { EntityManager } from 'typeorm';

/** The tables of what one engine tells, by the member that fills each, with the columns beside the engine's id. */
const TABLES = {
  offsets: {
    table: 'evidence_offset',
    columns: '"family" text, "series" text, "fasteners" text, "offset" float8, "u" float8, "trials" int',
    into: '"family", "series", "fasteners", "offset_nm", "u", "trials"',
    from: '"family", "series", "fasteners", "offset", "u", "trials"',
  },
  checks: {
    table: 'evidence_check',
    columns: '"station" text, "family" text, "series" text, "at" timestamptz, "by" text, "off" float8, "u" float8',
  },
  parts: { table: 'evidence_part', columns: '"feature" text, "number" int, "mark" text, "size" int8' },
  walls: {
    table: 'evidence_wall',
    columns:
      '"shell" text, "family" text, "series" text, "grade" text, "half" text, "wall" int8, "low" int8, "high" int8',
  },
  uses: {
    table: 'evidence_use',
    columns: '"family" text, "series" text, "grade" text, "half" text, "count" int',
  },
} as const satisfies Readonly<
  Partial<
    Record<
      keyof EngineEvidence,
      { readonly table: string; readonly columns: string; readonly into?: string; readonly from?: string }
    >
  >
>;

/** How people and instruments read in some engines: figures read, slips corrected, and how the same place read again differs. */
const READINGS = `
  INSERT INTO "evidence_reading" ("job_id", "person", "instrument", "readings", "slips", "repeats", "squares")
  SELECT now."job_id", now."by", coalesce(now."taken"->>'instrumentId', ''), count(*),
    count(*) FILTER (WHERE now."taken"->>'reason' IN ('typed wrong', 'misread')),
    count(*) FILTER (WHERE now."taken"->>'reason' = 'read again' AND before."nm" IS NOT NULL),
    coalesce(sum(((now."nm" - before."nm")::float8) ^ 2) FILTER (WHERE now."taken"->>'reason' = 'read again'), 0)
  FROM "reading" now LEFT JOIN "reading" before ON before."id" = now."replaces"
  WHERE now."job_id" = ANY($1) AND now."nm" IS NOT NULL
  GROUP BY 1, 2, 3`;

const ENGINES = `
  INSERT INTO "evidence" ("job_id", "type", "at", "people")
  SELECT told."id", told."type", told."at", ARRAY(
    SELECT "by" FROM "reading" WHERE "job_id" = told."id"
    UNION SELECT told."by" WHERE told."by" IS NOT NULL
    UNION SELECT jsonb_path_query("document", '$.trials.*.by')#>>'{}' FROM "job" WHERE "id" = told."id"
    ORDER BY 1)
  FROM jsonb_to_recordset($1::jsonb) AS told("id" uuid, "type" text, "at" timestamptz, "by" text)`;

/**
 * Keeps what some engines tell, in place of what they told before; an engine without an accepted selection tells nothing.
 *
 * @param manager of the transaction that keeps how far they are
 */
export async function keepEvidence(
  manager: EntityManager,
  engines: readonly { readonly id: string; readonly evidence: EngineEvidence | null }[],
): Promise<void> {
  if (engines.length === 0) return;
  const ids = engines.map(({ id }) => id);
  for (const table of [...Object.values(TABLES).map((one) => one.table), 'evidence_reading', 'evidence']) {
    await manager.query(`DELETE FROM "${table}" WHERE "job_id" = ANY($1)`, [ids]);
  }
  const telling = engines.flatMap(({ id, evidence }) => (evidence ? [{ id, evidence }] : []));
  if (telling.length === 0) return;
  const heads = telling.map(({ id, evidence: { type, at, by } }) => ({ id, type, at, by }));
  await manager.query(ENGINES, [JSON.stringify(heads)]);
  for (const [member, { table, columns, ...names }] of Object.entries(TABLES)) {
    const rows = telling.flatMap(({ id, evidence }) =>
      evidence[member as keyof typeof TABLES].map((row) => ({ ...row, job: id })),
    );
    if (rows.length === 0) continue;
    const own = columns.replaceAll(/" \w+/gu, '"');
    const { into = own, from = own } = names as { into?: string; from?: string };
    await manager.query(
      `INSERT INTO "${table}" ("job_id", ${into})
       SELECT "job", ${from} FROM jsonb_to_recordset($1::jsonb) AS told("job" uuid, ${columns})`,
      [JSON.stringify(rows)],
    );
  }
  await manager.query(READINGS, [telling.map(({ id }) => id)]);
}

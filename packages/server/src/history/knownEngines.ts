import { type Answered, type Read, SAMPLE_ENGINES } from '@fettle/core';
import { cursorText, readCursor } from '../database/cursor.js';
import type { Database } from '../database/Database.js';
import { ProblemError } from '../problem/problem.js';
import { paramsOf } from './knownScope.js';

/** What an engine must have to stand behind one figure, as SQL on its evidence `e`; the figure is asked for by $9, as JSON. */
const BEHIND = {
  wall: `EXISTS (SELECT 1 FROM "evidence_wall" w WHERE w."job_id" = e."job_id" AND w."family" = $9::jsonb->>'family'
    AND w."grade" = $9::jsonb->>'grade' AND w."half" = $9::jsonb->>'half' AND ($2 = '' OR w."series" = $2))`,
  use: `EXISTS (SELECT 1 FROM "evidence_use" u WHERE u."job_id" = e."job_id" AND u."family" = $9::jsonb->>'family'
    AND u."grade" = $9::jsonb->>'grade' AND u."half" = $9::jsonb->>'half' AND ($2 = '' OR u."series" = $2))`,
  mark: `EXISTS (SELECT 1 FROM "evidence_part" p WHERE p."job_id" = e."job_id" AND p."feature" = $9::jsonb->>'feature'
    AND p."mark" = $9::jsonb->>'mark')`,
  instrument: `EXISTS (SELECT 1 FROM "evidence_reading" r WHERE r."job_id" = e."job_id"
    AND r."instrument" = $9::jsonb->>'instrument')`,
  // With its parameter, as all of them have.
  check: `$9::jsonb IS NOT NULL AND EXISTS (SELECT 1 FROM "evidence_check" c WHERE c."job_id" = e."job_id")`,
} as const;

function behind(what: keyof typeof BEHIND | undefined): string {
  return what === undefined ? 'true' : BEHIND[what];
}

/** The engines behind what is known: listed, left out, and counted again. */
export class KnownEngines {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  async list({ after, most, ...asked }: Read<'knownEngines'>['query']): Promise<Answered<'knownEngines'>> {
    const from = readCursor(after);
    const rows: {
      id: string;
      name: string;
      type: string;
      at: Date;
      signed: number | null;
      reason: string | null;
      by: string | null;
      left_at: Date | null;
    }[] = await this.database.manager.query(
      `SELECT e."job_id" AS "id", job."name", e."type", e."at", l."reason", l."by", l."at" AS "left_at",
         (SELECT max("revision") FROM "signed_sheet" s WHERE s."job_id" = e."job_id") AS "signed"
       FROM "evidence" e JOIN "job" job ON job."id" = e."job_id" LEFT JOIN "left_out" l ON l."job_id" = e."job_id"
       WHERE ($1 = '' OR e."type" = $1)
         AND ($2 = '' OR EXISTS (SELECT 1 FROM "evidence_use" s WHERE s."job_id" = e."job_id" AND s."series" = $2))
         AND ($3 = '' OR $3 = ANY(e."people"))
         AND ($4::date IS NULL OR e."at" >= $4::date) AND ($5::date IS NULL OR e."at" < $5::date + 1)
         AND ($6::timestamptz IS NULL OR e."at" < $6 OR (e."at" = $6 AND e."job_id" > $7::uuid))
         AND ${behind(asked.what)}
       ORDER BY e."at" DESC, e."job_id" LIMIT $8`,
      [
        ...paramsOf(asked),
        from?.at ?? null,
        from?.key ?? null,
        most + 1,
        ...(asked.what === undefined ? [] : [JSON.stringify(asked)]),
      ],
    );
    const shown = rows.slice(0, most);
    const last = shown.at(-1);
    return {
      engines: shown.map(({ id, name, type, at, signed, reason, by, left_at }) => ({
        id,
        name,
        type,
        at: at.toISOString(),
        signed,
        leftOut: reason === null || by === null || left_at === null ? null : { reason, by, at: left_at.toISOString() },
      })),
      goesOn: last && rows.length > most ? cursorText({ at: last.at, key: last.id }) : null,
    };
  }

  /**
   * Leaves an engine out of what is known, or counts it again.
   *
   * @param reason null: it counts again
   * @throws ProblemError `not-found` for an engine that tells nothing
   */
  async leaveOut(id: string, by: string, reason: string | null): Promise<Answered<'leaveOut'>> {
    const { manager } = this.database;
    const [engine] = await manager.query(`SELECT 1 FROM "evidence" WHERE "job_id" = $1`, [id]);
    if (!engine) throw new ProblemError('not-found', `Engine ${id} has no accepted selection: it tells nothing yet.`);
    if (reason === null) {
      await manager.query(`DELETE FROM "left_out" WHERE "job_id" = $1`, [id]);
      return { leftOut: null };
    }
    const at = new Date();
    await manager.query(
      `INSERT INTO "left_out" ("job_id", "reason", "by", "at") VALUES ($1, $2, $3, $4)
       ON CONFLICT ("job_id") DO UPDATE SET "reason" = $2, "by" = $3, "at" = $4`,
      [id, reason, by, at],
    );
    return { leftOut: { reason, by, at: at.toISOString() } };
  }
}

/** Leaves the engines that came with Fettle out of what is known: they are no engines of this workshop. */
export async function leaveSamplesOut({ manager }: Database, by: string): Promise<void> {
  await manager.query(
    `INSERT INTO "left_out" ("job_id", "reason", "by", "at")
     SELECT "id", 'Sample, removed', $2, now() FROM "job" WHERE "id" = ANY($1) ON CONFLICT ("job_id") DO NOTHING`,
    [SAMPLE_ENGINES, by],
  );
}

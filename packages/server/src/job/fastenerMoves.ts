import type { Answered } from '@fettle/core';
import type { Database } from '../database/Database.js';

/** Changes told, the latest first. */
const MOST = 20;

/** Per engine and family whose fasteners were changed: each bore in the bolt direction as last read before, and as it reads now. */
const MOVES = `
  WITH changed AS (
    SELECT job."id", job."document"->>'name' AS "name", of."family", of."feature",
      job."document"->'fasteners'->of."family"->>'name' AS "fasteners",
      (job."document"->'fasteners'->of."family"->>'since')::timestamptz AS "since"
    FROM "job" AS job CROSS JOIN (VALUES ('main', 'mainBore'), ('rod', 'bigEnd')) AS of("family", "feature")
    WHERE job."document"->'fasteners'->of."family"->>'since' IS NOT NULL
  )
  SELECT changed."name", changed."family", changed."fasteners", changed."since",
    count(*)::int AS "bores", round(avg(now."nm" - before."nm"))::int AS "mean", max(abs(now."nm" - before."nm"))::int AS "most"
  FROM changed
  JOIN "reading" AS now ON now."job_id" = changed."id" AND now."feature" = changed."feature" AND now."replaced_by" IS NULL
    AND now."nm" IS NOT NULL AND now."slot" IN ('front', 'rear') AND now."at" >= changed."since"
  JOIN LATERAL (
    SELECT "nm" FROM "reading" AS old
    WHERE old."job_id" = changed."id" AND old."feature" = now."feature" AND old."station" = now."station"
      AND old."slot" = now."slot" AND old."nm" IS NOT NULL AND old."at" < changed."since"
    ORDER BY old."at" DESC LIMIT 1
  ) AS before ON true
  GROUP BY changed."id", changed."name", changed."family", changed."fasteners", changed."since"
  ORDER BY changed."since" DESC
  LIMIT ${MOST}`;

interface MoveRow {
  readonly name: string;
  readonly family: 'main' | 'rod';
  readonly fasteners: string;
  readonly since: Date;
  readonly bores: number;
  readonly mean: number;
  readonly most: number;
}

/** By how much changes of fasteners have moved bores in this workshop, from bores that were read before and after. */
export async function fastenerMoves({ manager }: Database): Promise<Answered<'fastenerMoves'>> {
  const rows: MoveRow[] = await manager.query(MOVES);
  return {
    moves: rows.map(({ since, name, ...row }) => ({ ...row, engine: name, since: since.toISOString() })),
  } as Answered<'fastenerMoves'>;
}

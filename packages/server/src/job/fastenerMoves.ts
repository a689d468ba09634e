import { type Answered, FAMILIES, type Family, type Feature, featureOf } from '@fettle/core';
import type { Database } from '../database/Database.js';

/** Changes told, the latest first. */
const MOST = 20;

/** Engines whose fasteners were changed last are looked at, so many of each family at most: most of them have bores read before and after. */
const MOST_LOOKED_AT = 300;

/**
 * Per engine of a family whose fasteners were changed: each bore in the bolt direction as last read before, and as it reads now. Engines come
 * by an index, the last first, and only of those that are told is the document read.
 */
const movesOf = (family: Family, feature: Feature) => `
  (SELECT job."document"->>'name' AS "name", '${family}' AS "family",
    job."document"->'fasteners'->'${family}'->>'name' AS "fasteners", told."since"::timestamptz AS "since",
    told."bores", told."mean", told."most"
  FROM (
    SELECT changed."id", changed."since", moved.*
    FROM (
      SELECT "id", "document"->'fasteners'->'${family}'->>'since' AS "since" FROM "job"
      WHERE "document"->'fasteners'->'${family}'->>'since' IS NOT NULL
      ORDER BY "document"->'fasteners'->'${family}'->>'since' DESC, "id" LIMIT ${MOST_LOOKED_AT}
    ) AS changed
    CROSS JOIN LATERAL (
      SELECT count(*)::int AS "bores", round(avg(now."nm" - before."nm"))::int AS "mean",
        max(abs(now."nm" - before."nm"))::int AS "most"
      FROM "reading" AS now
      JOIN LATERAL (
        SELECT "nm" FROM "reading" AS old
        WHERE old."job_id" = changed."id" AND old."feature" = now."feature" AND old."station" = now."station"
          AND old."slot" = now."slot" AND old."nm" IS NOT NULL AND old."at" < changed."since"::timestamptz
        ORDER BY old."at" DESC LIMIT 1
      ) AS before ON true
      WHERE now."job_id" = changed."id" AND now."feature" = '${feature}' AND now."replaced_by" IS NULL
        AND now."nm" IS NOT NULL AND now."slot" IN ('front', 'middle', 'rear') AND now."at" >= changed."since"::timestamptz
    ) AS moved
    WHERE moved."bores" > 0
    ORDER BY changed."since" DESC, changed."id" LIMIT ${MOST}
  ) AS told
  JOIN "job" AS job ON job."id" = told."id")`;

const MOVES = `
  SELECT * FROM (${FAMILIES.map((family) => movesOf(family, featureOf(family, 'housing'))).join(' UNION ALL ')}) AS moves
  ORDER BY "since" DESC LIMIT ${MOST}`;

interface MoveRow {
  readonly name: string;
  readonly family: Family;
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

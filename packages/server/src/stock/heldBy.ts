import { type DrawerItem, drawerItemLabel, drawerItemSchema } from '@fettle/core';
import type { EntityManager } from 'typeorm';

/** What an engine has of the workshop's drawer, and what of it is not there for all who have reserved it. */
export interface HeldByJob {
  readonly reserved: number;
  readonly fitted: number;
  readonly short: readonly string[];
}

export const NOTHING_HELD: HeldByJob = { reserved: 0, fitted: 0, short: [] };

/** A line of which more is reserved than there is leaves every engine that reserved it in doubt: all of them are told. */
const HELD = `
  SELECT held."job_id" AS "job",
    coalesce(sum(held."count") FILTER (WHERE held."state" = 'reserved'), 0)::int AS "reserved",
    coalesce(sum(held."count") FILTER (WHERE held."state" = 'used'), 0)::int AS "fitted",
    coalesce(jsonb_agg(line."item" ORDER BY line."id") FILTER (
      WHERE held."state" = 'reserved' AND (line."item"->>'onHand')::int < (
        SELECT sum(other."count") FROM "reservation" AS other
        WHERE other."line_id" = held."line_id" AND other."state" = 'reserved')), '[]'::jsonb) AS "short"
  FROM "reservation" AS held JOIN "drawer_line" AS line ON line."id" = held."line_id"
  WHERE held."job_id" = ANY($1) GROUP BY held."job_id"`;

/** What each of some engines holds; those that hold nothing are left out. */
export async function heldBy(manager: EntityManager, jobs: readonly string[]): Promise<ReadonlyMap<string, HeldByJob>> {
  if (jobs.length === 0) return new Map();
  const rows: { job: string; reserved: number; fitted: number; short: DrawerItem[] }[] = await manager.query(HELD, [
    jobs,
  ]);
  return new Map(
    rows.map(({ job, short, ...counts }) => [
      job,
      { ...counts, short: short.map((item) => drawerItemLabel(drawerItemSchema.parse(item))) },
    ]),
  );
}

import type { Answered, JobProgress, Read } from '@fettle/core';
import type { EntityManager } from 'typeorm';

/** Engines that are listed at most: who has more to do again sees the earliest. */
const MOST_DUE = 20;

interface DueRow {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly reminders: JobProgress['reminders'];
}

/**
 * Closed engines with something that was to be done by a day, the earliest first. Those on the benches say so themselves, as their next thing to
 * do; one that has left is thought of by nobody.
 */
export async function dueEngines(
  manager: EntityManager,
  { until }: Read<'listDue'>['query'],
): Promise<Answered<'listDue'>> {
  const first = `("progress"->'reminders'->0->>'on')`;
  const rows: DueRow[] = await manager.query(
    `SELECT "id", "version", "name", "progress"->'reminders' AS "reminders" FROM "job"
     WHERE "deleted_at" IS NOT NULL AND ${first} IS NOT NULL AND ${first} <= $1 ORDER BY ${first}, "id" LIMIT $2`,
    [until, MOST_DUE + 1],
  );
  return {
    due: rows.slice(0, MOST_DUE).map(({ id, version, name, reminders }) => ({
      id,
      version,
      name,
      reminders: reminders.filter(({ on }) => on <= until),
    })),
    areMore: rows.length > MOST_DUE,
  };
}

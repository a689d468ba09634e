import type { Answered } from '@fettle/core';
import type { Database } from '../database/Database.js';

/** Builds of one engine that are listed at most. */
const MOST_BUILDS = 50;

interface BuildRow {
  readonly id: string;
  readonly name: string;
  readonly serial: string;
  readonly created_at: Date;
  readonly deleted_at: Date | null;
  readonly revision: number | null;
  readonly hash: string | null;
  readonly signed_at: Date | null;
}

/** The builds of the engine with a serial number, whatever letters are capitals, the latest first; closed ones too. */
export async function buildsOf({ manager }: Database, serial: string): Promise<Answered<'listBuilds'>> {
  const rows: BuildRow[] = await manager.query(
    `SELECT "job"."id", "job"."name", "job"."serial", "job"."created_at", "job"."deleted_at",
       signed."revision", signed."hash", signed."signed_at"
     FROM "job" LEFT JOIN LATERAL (
       SELECT "revision", "hash", "signed_at" FROM "signed_sheet" WHERE "job_id" = "job"."id" ORDER BY "revision" DESC LIMIT 1
     ) signed ON true
     WHERE "serial" <> '' AND lower("serial") = lower($1)
     ORDER BY coalesce(signed."signed_at", "job"."created_at") DESC, "job"."id" LIMIT $2`,
    [serial, MOST_BUILDS],
  );
  return {
    builds: rows.map(({ id, name, serial: own, created_at, deleted_at, revision, hash, signed_at }) => ({
      id,
      name,
      serial: own,
      createdAt: created_at.toISOString(),
      closedAt: deleted_at?.toISOString() ?? null,
      signed:
        revision === null || hash === null || signed_at === null
          ? null
          : { revision, hash, at: signed_at.toISOString() },
    })),
  };
}

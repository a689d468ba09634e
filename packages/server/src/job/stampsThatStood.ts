import { applyPatch, type JobChange, type Json, PatchMisfit, type PersonStamp, stampKey, stampsIn } from '@fettle/core';
import type { EntityManager } from 'typeorm';

/** Changes read at once, and maximum times: a stamp from before that cannot come back under another's name. */
const AT_ONCE = 50;
const MOST_READS = 40;

/** The changes since the first one in which one of the moments stands, newest first. */
const SINCE = `
  SELECT "id", "changes" FROM "change"
  WHERE "job_id" = $1 AND ($3::int IS NULL OR "id" < $3) AND "id" >= (
    SELECT min("id") FROM "change", unnest($2::text[]) AS "moment" WHERE "job_id" = $1 AND strpos("changes"::text, "moment") > 0
  )
  ORDER BY "id" DESC LIMIT $4`;

/** The document before a change, from the one after it. */
function before(document: Json, changes: JobChange['changes']): Json {
  return applyPatch(
    document,
    [...changes]
      .reverse()
      .map(({ path, from }) => (from === undefined ? { op: 'remove', path } : { op: 'add', path, value: from })),
  );
}

/**
 * Which stamps an engine has had before at the same place: who takes back a change, theirs or another's, brings back what somebody else had
 * signed. Found by going back through its history.
 *
 * @param document the engine as it is now
 */
export async function stampsThatStood(
  manager: EntityManager,
  jobId: string,
  document: Json,
  stamps: readonly PersonStamp[],
): Promise<PersonStamp[]> {
  const wanted = new Map(stamps.map((stamp) => [stampKey(stamp), stamp]));
  const stood: PersonStamp[] = [];
  const moments = [...new Set(stamps.map(({ at }) => at))];
  let then = document;
  let last: number | null = null;
  for (let reads = 0; reads < MOST_READS; reads += 1) {
    const rows: { id: number; changes: JobChange['changes'] }[] = await manager.query(SINCE, [
      jobId,
      moments,
      last,
      AT_ONCE,
    ]);
    for (const { id, changes } of rows) {
      last = id;
      try {
        then = before(then, changes);
      } catch (error) {
        // Kept by an earlier version, whose documents were otherwise.
        if (error instanceof PatchMisfit) return stood;
        throw error;
      }
      for (const stamp of stampsIn(then)) {
        if (wanted.delete(stampKey(stamp))) stood.push(stamp);
      }
      if (wanted.size === 0) return stood;
    }
    if (rows.length < AT_ONCE) return stood;
  }
  return stood;
}

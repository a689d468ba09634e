import type { Database } from '../database/Database.js';
import { ProblemError } from '../problem/problem.js';

/** So many wrong tries are free. */
const FREE = 5;
/** The first wait after them, s; each further try doubles it, up to the longest. */
const FIRST_WAIT_S = 5;
const LONGEST_WAIT_S = 900;
/** What was tried wrongly so long ago counts no longer, s. */
const FORGOTTEN_S = 86_400;

/**
 * Refuses while too much was tried wrongly. Names that no account has are counted as those that one has: the answer does not tell which.
 *
 * @param key what was tried: a name, or a PIN on a device
 * @throws ProblemError `too-many`, with how long to wait
 */
export async function checkTries({ manager }: Database, key: string): Promise<void> {
  const [row]: { wait: number }[] = await manager.query(
    `SELECT ceil(extract(epoch FROM "locked_until" - now()))::int AS "wait" FROM "wrong_try" WHERE "key" = $1 AND "locked_until" > now()`,
    [key],
  );
  if (row) {
    throw new ProblemError('too-many', `Too many wrong tries. Try again in ${row.wait} s.`, [], {}, row.wait);
  }
}

/** Counts a wrong try. */
export async function countWrong({ manager }: Database, key: string): Promise<void> {
  await manager.query(`DELETE FROM "wrong_try" WHERE "last_at" < now() - make_interval(secs => $1)`, [FORGOTTEN_S]);
  await manager.query(
    `INSERT INTO "wrong_try" ("key", "times", "last_at", "locked_until") VALUES ($1, 1, now(), now())
     ON CONFLICT ("key") DO UPDATE SET "times" = "wrong_try"."times" + 1, "last_at" = now(),
       "locked_until" = CASE WHEN "wrong_try"."times" + 1 < $2 THEN now()
         ELSE now() + make_interval(secs => least($4::float, $3::float * 2 ^ least(20, "wrong_try"."times" + 1 - $2))) END`,
    [key, FREE, FIRST_WAIT_S, LONGEST_WAIT_S],
  );
}

/** Forgets what was tried wrongly: it was right now. */
export async function forgetTries({ manager }: Database, key: string): Promise<void> {
  await manager.query(`DELETE FROM "wrong_try" WHERE "key" = $1`, [key]);
}

/** Until when somebody cannot sign in, by the key of what was tried. */
export async function lockedUntil({ manager }: Database): Promise<Map<string, Date>> {
  const rows: { key: string; until: Date }[] = await manager.query(
    `SELECT "key", "locked_until" AS "until" FROM "wrong_try" WHERE "locked_until" > now()`,
  );
  return new Map(rows.map(({ key, until }) => [key, until]));
}

import type { Database } from './Database.js';

/**
 * A tag that changes whenever anything in the database does: how far its log has been written. What was read after it was taken is at
 * least as new as it says.
 */
export async function databaseTag({ manager }: Database): Promise<string> {
  const [row]: [{ tag: string }] = await manager.query(`SELECT pg_current_wal_insert_lsn()::text AS tag`);
  return row.tag;
}

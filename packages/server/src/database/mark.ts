import type { Database } from './Database.js';

/**
 * A mark that changes whenever anything in the database does: how far its log has been written. What was read after it was taken is at
 * least as new as it says.
 */
export async function databaseMark({ manager }: Database): Promise<string> {
  const [row]: [{ mark: string }] = await manager.query(`SELECT pg_current_wal_insert_lsn()::text AS mark`);
  return row.mark;
}

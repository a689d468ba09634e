import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { freshDatabase } from './runningServer.js';

/**
 * A database as an earlier build left it, in the throw-away cluster.
 *
 * @param dump a file of `database/dumps`
 * @returns its address
 */
export async function databaseFrom(dump: string): Promise<string> {
  const url = await freshDatabase();
  const database = await new DataSource({ type: 'postgres', url, extra: { max: 1 } }).initialize();
  await database.query(readFileSync(join(import.meta.dirname, '..', 'database', 'dumps', dump), 'utf8'));
  await database.destroy();
  return url;
}

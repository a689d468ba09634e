import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { migrateTo } from '../database/openDatabase.js';
import { BadArchive, checkedManifest, type Manifest, partsOf } from './archive.js';

const quoted = (name: string) => `"${name}"`;

/** @throws BadArchive where the archive has columns that a table of its version does not have */
async function mustHave(client: pg.Client, { table, columns }: Manifest['parts'][number]): Promise<void> {
  const { rows } = await client.query<{ column_name: string }>(
    `SELECT "column_name" FROM information_schema.columns WHERE "table_schema" = 'public' AND "table_name" = $1`,
    [table],
  );
  const there = new Set(rows.map(({ column_name }) => column_name));
  const strange = columns.find((column) => !there.has(column));
  if (strange !== undefined)
    throw new BadArchive(`its part “${table}” has a column “${strange}”, which that version does not have`);
}

/**
 * Brings an archive into an empty database: our own migrations make the tables, as far as the archive's version; of the archive nothing but
 * rows is taken. All of it is there afterwards, or nothing.
 *
 * @param url of the empty database, as the role that is to own the tables
 * @throws BadArchive, NewerDatabase
 */
export async function loadBackup(url: string, file: string): Promise<Manifest> {
  const manifest = await checkedManifest(file);
  await migrateTo(url, manifest.migrations);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('BEGIN');
    for (const part of manifest.parts) await mustHave(client, part);
    await partsOf(file, async (table, rows) => {
      const part = manifest.parts.find((one) => one.table === table)!;
      const into = client.query(copyFrom(`COPY ${quoted(table)} (${part.columns.map(quoted).join(', ')}) FROM STDIN`));
      await pipeline(rows, into);
      if (into.rowCount !== part.rows) {
        throw new BadArchive(`its part “${table}” has ${into.rowCount} rows where ${part.rows} were written`);
      }
    });
    // Numbers that the database counts go on behind those that are there.
    const { rows: counted } = await client.query<{ table: string; column: string }>(
      `SELECT "table_name" AS "table", "column_name" AS "column" FROM information_schema.columns
       WHERE "table_schema" = 'public' AND "is_identity" = 'YES' AND "table_name" <> 'migrations'`,
    );
    for (const { table, column } of counted) {
      await client.query(
        `SELECT setval(pg_get_serial_sequence($1, $2), coalesce(max(${quoted(column)}), 0) + 1, false) FROM ${quoted(table)}`,
        [quoted(table), column],
      );
    }
    await client.query('COMMIT');
    return manifest;
  } finally {
    await client.end();
  }
}

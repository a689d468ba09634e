import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, openSync, renameSync, rmSync, statSync } from 'node:fs';
import { PassThrough } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import { type Pack, pack } from 'tar-stream';
import { FORMAT, LEFT_OUT, type Manifest, type Part, partName, seal, TABLES } from './archive.js';

/** Only its owner reads what the workshop has written down. */
const OWNER_ONLY = 0o600;

const quoted = (name: string) => `"${name}"`;

/** A file that only its owner reads, from its first byte on. @throws where there is one already, or something that leads elsewhere */
function ownFile(path: string): number {
  return openSync(path, 'wx', OWNER_ONLY);
}

/** The columns of a table that are kept; those that the database works out itself are not. */
async function columnsOf(client: pg.Client, table: string): Promise<string[]> {
  const { rows } = await client.query<{ column_name: string }>(
    `SELECT "column_name" FROM information_schema.columns
     WHERE "table_schema" = 'public' AND "table_name" = $1 AND "is_generated" = 'NEVER' ORDER BY "ordinal_position"`,
    [table],
  );
  return rows.map(({ column_name }) => column_name);
}

/** The tables of Fettle that are there. @throws Error for one that is not named as kept or as left out */
async function tablesOf(client: pg.Client): Promise<string[]> {
  const { rows } = await client.query<{ name: string }>(
    `SELECT "table_name" AS "name" FROM information_schema.tables WHERE "table_schema" = 'public' AND "table_type" = 'BASE TABLE'`,
  );
  const there = new Set(rows.map(({ name }) => name));
  const known = new Set<string>([...TABLES, ...LEFT_OUT]);
  const strange = [...there].filter((name) => !known.has(name));
  if (strange.length > 0) throw new Error(`there are tables that are not Fettle's: ${strange.join(', ')}`);
  return TABLES.filter((name) => there.has(name));
}

/** Writes one table beside the archive, so that its length is known. */
async function written(client: pg.Client, table: string, beside: string): Promise<Part> {
  const columns = await columnsOf(client, table);
  const rows = client.query(copyTo(`COPY ${quoted(table)} (${columns.map(quoted).join(', ')}) TO STDOUT`));
  const hash = createHash('sha256');
  const hashed = new PassThrough().on('data', (chunk: Buffer) => hash.update(chunk));
  const descriptor = ownFile(beside);
  await pipeline(rows, createGzip({ level: 6 }), hashed, createWriteStream(beside, { fd: descriptor }));
  return {
    table: table as Part['table'],
    columns,
    rows: rows.rowCount,
    bytes: statSync(beside).size,
    sha256: hash.digest('hex'),
  };
}

function added(tar: Pack, name: string, size: number, mtime: Date): NodeJS.WritableStream {
  return tar.entry({ name, size, mode: OWNER_ONLY, mtime });
}

/**
 * Writes everything that Fettle keeps, as it is at one moment, into a file that is not there yet; under another name until it is whole.
 *
 * @param url of the database, as the role that owns Fettle's tables
 * @returns what is in it
 */
export async function writeBackup(url: string, file: string): Promise<Manifest> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const making = `${file}.making`;
  const beside = `${file}.part`;
  let isOurs = false;
  try {
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    const done = await client.query<{ name: string }>('SELECT "name" FROM "migrations" ORDER BY "id"');
    const descriptor = ownFile(making);
    isOurs = true;
    const made = new Date();
    const tar = pack();
    const hash = createHash('sha256');
    const hashed = new PassThrough().on('data', (chunk: Buffer) => hash.update(chunk));
    const kept = pipeline(tar, hashed, createWriteStream(making, { fd: descriptor, autoClose: false }));
    const parts: Part[] = [];
    const fill = async () => {
      for (const table of await tablesOf(client)) {
        const part = await written(client, table, beside);
        await pipeline(createReadStream(beside), added(tar, partName(table), part.bytes, made));
        rmSync(beside);
        parts.push(part);
      }
      const manifest: Manifest = {
        format: FORMAT,
        made: made.toISOString(),
        migrations: done.rows.map(({ name }) => name),
        parts,
      };
      const text = Buffer.from(`${JSON.stringify(manifest, null, 2)}\n`);
      added(tar, 'manifest.json', text.length, made).end(text);
      tar.finalize();
      return manifest;
    };
    const [manifest] = await Promise.all([fill(), kept]);
    const end = createWriteStream(making, { fd: descriptor, flush: true });
    await new Promise<void>((resolve, reject) => {
      end.on('error', reject).on('close', resolve);
      end.end(seal(hash.digest('hex')));
    });
    renameSync(making, file);
    return manifest;
  } finally {
    await client.end();
    if (isOurs) for (const left of [making, beside]) rmSync(left, { force: true });
  }
}

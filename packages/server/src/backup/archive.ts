import { createHash } from 'node:crypto';
import { createReadStream, statSync } from 'node:fs';
import { PassThrough, Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { extract } from 'tar-stream';
import { z } from 'zod';

/**
 * An archive is a tar file: one part a table, `tables/NAME.copy.gz` (PostgreSQL's COPY text, gzip), then `manifest.json`, which says what the
 * parts hold, with a checksum each. Behind it stands one block with a checksum of everything before. `tar` opens it.
 */
export const FORMAT = 'fettle.backup/1';
/** Bytes of the block that holds the checksum of the whole. */
export const SEAL_BYTES = 512;
const SEAL_WORD = 'fettle sha256 ';
const MANIFEST = 'manifest.json';
const LARGEST_MANIFEST = 1_000_000;

/** What is backed up, each table after those that it points to. */
export const TABLES = [
  'job',
  'change',
  'reading',
  'drawer_line',
  'reservation',
  'engine_type',
  'type_revision',
  'instrument',
  'calibration',
  'zero_check',
  'gauge_study',
  'study_entry',
  'drawer_movement',
  'kit',
  'signed_sheet',
  'photo',
  'evidence',
  'evidence_offset',
  'evidence_check',
  'evidence_part',
  'evidence_wall',
  'evidence_use',
  'evidence_reading',
  'left_out',
  'person',
  'device',
  'event',
] as const;

/** What is not: who is signed in and what waits in browsers at the moment, and what the migrations keep of themselves. */
export const LEFT_OUT = ['session', 'secret', 'invitation', 'wrong_try', 'unsent', 'migrations'] as const;

const nameSchema = z.string().regex(/^[a-z_]{1,60}$/u);
const partSchema = z.strictObject({
  table: z.enum(TABLES),
  columns: z.array(nameSchema).min(1).max(100),
  rows: z.int().min(0),
  /** Of the part as it stands in the file. */
  bytes: z.int().min(0),
  sha256: z.string().regex(/^[0-9a-f]{64}$/u),
});
export const manifestSchema = z.strictObject({
  format: z.literal(FORMAT),
  made: z.iso.datetime(),
  migrations: z.array(z.string().max(200)).min(1).max(1000),
  parts: z.array(partSchema).max(TABLES.length),
});
export type Manifest = z.output<typeof manifestSchema>;
export type Part = Manifest['parts'][number];

/** A file that is no archive of ours, or not as it was written. */
export class BadArchive extends Error {
  override readonly name = 'BadArchive';
}

export function partName(table: string): string {
  return `tables/${table}.copy.gz`;
}

/** The last block of an archive. @param hash SHA-256 of all before it, hexadecimal */
export function seal(hash: string): Buffer {
  return Buffer.concat([Buffer.from(`${SEAL_WORD}${hash}\n`), Buffer.alloc(SEAL_BYTES)], SEAL_BYTES);
}

async function hashOf(stream: Readable): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(stream, hash);
  return hash.digest('hex');
}

async function bytesOf(stream: Readable, most: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let length = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    length += chunk.length;
    if (length > most) throw new BadArchive('its list of contents is longer than any of Fettle');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** Goes through the parts of an archive in their order. */
async function through(
  file: string,
  size: number,
  work: (name: string, part: Readable) => Promise<void>,
): Promise<void> {
  const parts = extract();
  const read = pipeline(createReadStream(file, { start: 0, end: size - SEAL_BYTES - 1 }), parts);
  const gone = (async () => {
    for await (const entry of parts) {
      if (entry.header.type !== 'file') throw new BadArchive(`it holds “${entry.header.name}”, which is no file`);
      await work(entry.header.name, Readable.from(entry as AsyncIterable<Buffer>, { objectMode: false }));
    }
  })();
  try {
    await Promise.all([read, gone]);
  } catch (error) {
    parts.destroy();
    if (error instanceof BadArchive) throw error;
    throw new BadArchive(`it cannot be read as an archive (${(error as Error).message})`);
  }
}

/**
 * Holds a whole archive against its checksums, and says what is in it. Nothing of it has been used before.
 *
 * @throws BadArchive where one bit is another, where it was cut off, and where there is anything in it that Fettle does not write
 */
export async function checkedManifest(file: string): Promise<Manifest> {
  const { size } = statSync(file);
  if (size < 2 * SEAL_BYTES) throw new BadArchive('it is too short');
  const end = createReadStream(file, { start: size - SEAL_BYTES });
  const told = await bytesOf(end, SEAL_BYTES);
  const start = await bytesOf(createReadStream(file, { start: 0, end: 4 }), 5);
  if (start.toString('latin1') === 'PGDMP') {
    throw new BadArchive(
      'it was made by an earlier version, whose backups can hold commands: they are not run. Restore it with that version, start this one on its data, and back up again',
    );
  }
  if (!told.toString('latin1').startsWith(SEAL_WORD))
    throw new BadArchive('it is no backup of Fettle, or its end is missing');
  const hash = await hashOf(createReadStream(file, { start: 0, end: size - SEAL_BYTES - 1 }));
  if (!told.equals(seal(hash))) throw new BadArchive('it is not as it was written: its checksum does not agree');
  const found = new Map<string, { bytes: number; sha256: string }>();
  let manifest: Manifest | null = null;
  await through(file, size, async (name, part) => {
    if (manifest !== null) throw new BadArchive(`“${name}” stands behind its list of contents`);
    if (name === MANIFEST) {
      manifest = manifestIn(await bytesOf(part, LARGEST_MANIFEST));
      return;
    }
    let bytes = 0;
    const counted = new PassThrough().on('data', (chunk: Buffer) => {
      bytes += chunk.length;
    });
    const sum = hashOf(counted);
    await pipeline(part, counted);
    if (found.has(name)) throw new BadArchive(`it holds “${name}” twice`);
    found.set(name, { bytes, sha256: await sum });
  });
  const known = manifest as Manifest | null;
  if (known === null) throw new BadArchive('its list of contents is missing');
  for (const { table, bytes, sha256 } of known.parts) {
    const there = found.get(partName(table));
    if (!there || there.bytes !== bytes || there.sha256 !== sha256) {
      throw new BadArchive(`its part “${table}” is not as it was written`);
    }
    found.delete(partName(table));
  }
  const [strange] = found.keys();
  if (strange !== undefined) throw new BadArchive(`it holds “${strange}”, which its list of contents does not name`);
  return known;
}

function manifestIn(bytes: Buffer): Manifest {
  try {
    return manifestSchema.parse(JSON.parse(bytes.toString('utf8')));
  } catch (error) {
    throw new BadArchive(`its list of contents cannot be read: ${(error as Error).message.split('\n')[0]}`);
  }
}

/** Hands over the rows of each part, as COPY text, in the order of the file. @param file an archive that was checked */
export async function partsOf(file: string, work: (table: string, rows: Readable) => Promise<void>): Promise<void> {
  await through(file, statSync(file).size, async (name, part) => {
    const table = TABLES.find((one) => partName(one) === name);
    if (table === undefined) {
      part.resume();
      return;
    }
    const rows = createGunzip();
    await Promise.all([pipeline(part, rows), work(table, rows)]);
  });
}

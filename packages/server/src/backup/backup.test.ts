import { createHash, randomUUID } from 'node:crypto';
import {
  createWriteStream,
  mkdtempSync,
  readdirSync,
  readFileSync,
  statSync,
  symlinkSync,
  watch,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { gzipSync } from 'node:zlib';
import { pack } from 'tar-stream';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { freshDatabase, runningServer } from '../testing/runningServer.js';
import { READING, startedEngine } from '../testing/samples.js';
import { checkedManifest, LEFT_OUT, type Manifest, partName, seal, TABLES } from './archive.js';
import { loadBackup } from './loadBackup.js';
import { writeBackup } from './writeBackup.js';

let server: Awaited<ReturnType<typeof runningServer>>;
let url: string;
let manifest: Manifest;
const folder = mkdtempSync(join(tmpdir(), 'fettle-backup-'));
const file = join(folder, 'workshop.fettle');
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

beforeAll(async () => {
  server = await runningServer();
  url = (server.database.options as { url: string }).url;
  const id = randomUUID();
  await server.call('POST', '/api/jobs', { id, by: 'Wren', document: startedEngine() });
  await server.call('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, { ...READING, by: 'Wren' });
  await server.call('PUT', `/api/jobs/${id}/photos/${randomUUID()}`, { by: 'Wren', type: 'image/png', data: DOT });
  await server.app.people.add('Wren', 'owner', 'command line', 'three shells and a shim');
  // How far the engine is, is worked out a little later.
  await vi.waitFor(
    async () => expect(await server.database.query('SELECT progress_of AS of FROM job')).toEqual([{ of: 2 }]),
    { timeout: 50_000 },
  );
  manifest = await writeBackup(url, file);
});
afterAll(() => server.close());

/** What stands in every table that is backed up. */
async function all(database: DataSource): Promise<Record<string, unknown>> {
  const rows: Record<string, unknown> = {};
  for (const table of TABLES)
    rows[table] = await database.query(`SELECT to_jsonb(t) AS row FROM "${table}" t ORDER BY 1`);
  return rows;
}

const otherFile = () => join(folder, `${randomUUID()}.fettle`);

/** An archive made by somebody else, with checksums that agree. */
async function foreign(parts: Record<string, string>, change: Partial<Manifest> = {}): Promise<string> {
  const at = otherFile();
  const tar = pack();
  const kept = pipeline(tar, createWriteStream(at));
  const told = [];
  for (const [table, text] of Object.entries(parts)) {
    const data = gzipSync(text);
    tar.entry({ name: partName(table) }, data);
    const sha256 = createHash('sha256').update(data).digest('hex');
    const columns = manifest.parts.find((part) => part.table === table)?.columns ?? ['id'];
    told.push({ table, columns, rows: text.split('\n').length - 1, bytes: data.length, sha256 });
  }
  tar.entry({ name: 'manifest.json' }, JSON.stringify({ ...manifest, parts: told, ...change }));
  tar.finalize();
  await kept;
  const whole = readFileSync(at);
  writeFileSync(at, Buffer.concat([whole, seal(createHash('sha256').update(whole).digest('hex'))]));
  return at;
}

describe('a backup', () => {
  it('names every table, as kept or as left out', async () => {
    const tables: { name: string }[] = await server.database.query(
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
    );
    expect(tables.map(({ name }) => name).sort()).toEqual([...TABLES, ...LEFT_OUT].sort());
  });

  it('comes back whole, made by our own migrations, and goes on counting where it was', async () => {
    const other = await freshDatabase();
    expect(await loadBackup(other, file)).toEqual(manifest);
    const database = await new DataSource({ type: 'postgres', url: other }).initialize();
    expect(await all(database)).toEqual(await all(server.database));
    const before = await database.query('SELECT max(id)::int AS id FROM event');
    await database.query(
      `INSERT INTO event (at, by, kind, what, subject, detail) VALUES (now(), 'Wren', 'access', 'signed-in', 'Wren', '')`,
    );
    expect(await database.query('SELECT max(id)::int - 1 AS id FROM event')).toEqual(before);
    await expect(database.query('DELETE FROM event')).rejects.toThrow('stays as it was said');
    await database.destroy();
  });

  it('is read by its owner only, from its first byte on, and never written where something is', async () => {
    const at = otherFile();
    const modes: number[] = [];
    const watcher = watch(folder, () => {
      for (const name of readdirSync(folder)) {
        if (!name.includes('.making') && !name.includes('.part')) continue;
        try {
          modes.push(statSync(join(folder, name)).mode & 0o777);
        } catch {
          // It has its last name by now.
        }
      }
    });
    await writeBackup(url, at);
    watcher.close();
    expect(statSync(at).mode & 0o777).toBe(0o600);
    expect(new Set(modes)).toEqual(new Set([0o600]));
    const led = otherFile();
    writeFileSync(join(folder, 'elsewhere'), 'as it was');
    symlinkSync(join(folder, 'elsewhere'), `${led}.making`);
    await expect(writeBackup(url, led)).rejects.toThrow('EEXIST');
    expect(readFileSync(join(folder, 'elsewhere'), 'utf8')).toBe('as it was');
  });

  it('of which one bit is another is refused before anything is made', async () => {
    const whole = readFileSync(file);
    const at = otherFile();
    // One in each stretch of it, the heads and blanks of the tar file and its last block among them.
    const places = Array.from({ length: 60 }, (_, nth) => Math.floor((nth * (whole.length - 1)) / 59));
    for (const place of places) {
      const spoilt = Buffer.from(whole);
      spoilt[place]! ^= 1 << (place % 8);
      writeFileSync(at, spoilt);
      await expect(checkedManifest(at), `byte ${place}`).rejects.toThrow(
        /backup of Fettle|not as it was written|checksum/u,
      );
    }
    for (const length of [0, 700, whole.length - 512, whole.length - 1]) {
      writeFileSync(at, whole.subarray(0, length));
      await expect(checkedManifest(at), `${length} bytes`).rejects.toThrow();
    }
  });

  it('of an earlier version, which can hold commands, is refused with words', async () => {
    const at = otherFile();
    writeFileSync(at, Buffer.concat([Buffer.from('PGDMP'), Buffer.alloc(2000)]));
    await expect(checkedManifest(at)).rejects.toThrow('backups can hold commands');
  });
});

describe('an archive from elsewhere', () => {
  it('brings rows only: what is no table of ours, or none of its columns, is refused', async () => {
    await expect(checkedManifest(await foreign({ pg_authid: 'x\n' }))).rejects.toThrow(
      'list of contents cannot be read',
    );
    const parts = [{ ...manifest.parts.find(({ table }) => table === 'event')!, rows: 0 }];
    await expect(checkedManifest(await foreign({}, { parts }))).rejects.toThrow(
      'part “event” is not as it was written',
    );
    const later = { migrations: [...manifest.migrations, 'Later2000000000001'] };
    await expect(loadBackup(await freshDatabase(), await foreign({}, later))).rejects.toThrow('newer version');
    const odd = { migrations: [...manifest.migrations].reverse() };
    await expect(loadBackup(await freshDatabase(), await foreign({}, odd))).rejects.toThrow('not those of any version');
  });

  it('with a row that is none leaves nothing behind', async () => {
    const other = await freshDatabase();
    const job = await server.database.query('SELECT 1 FROM job');
    expect(job).toHaveLength(1);
    await expect(loadBackup(other, await foreign({ job: 'one\ttwo\n' }))).rejects.toThrow();
    const database = await new DataSource({ type: 'postgres', url: other }).initialize();
    expect(await database.query('SELECT count(*)::int AS count FROM job')).toEqual([{ count: 0 }]);
    await database.destroy();
  });

  it('of an earlier version comes back at that version', async () => {
    const other = await freshDatabase();
    const earlier = manifest.migrations.slice(0, 8);
    await loadBackup(other, await foreign({}, { migrations: earlier }));
    const database = await new DataSource({ type: 'postgres', url: other }).initialize();
    expect(
      (await database.query('SELECT name FROM migrations ORDER BY id')).map(({ name }: { name: string }) => name),
    ).toEqual(earlier);
    await database.destroy();
  });
});

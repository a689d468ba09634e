import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startCluster } from '../../../../scripts/postgres.mjs';
import { openWorkshop } from '../openWorkshop.js';

const folder = mkdtempSync('/tmp/fettle-cluster-');
chmodSync(folder, 0o755);
let cluster: Awaited<ReturnType<typeof startCluster>>;
beforeAll(async () => {
  cluster = await startCluster(folder, { durable: false });
});
afterAll(async () => {
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

const connected = (url: string) => new DataSource({ type: 'postgres', url }).initialize();

describe('the role that the server works as', () => {
  it('owns its tables and nothing else, those too that an earlier build made as somebody else', async () => {
    // As before there was such a role.
    await (await openWorkshop(cluster.url)).destroy();
    const database = await openWorkshop(cluster.serverUrl());
    const [role] = await database.query(
      'SELECT rolsuper, rolcreatedb, rolcreaterole, rolreplication, rolbypassrls FROM pg_roles WHERE rolname = current_user',
    );
    expect(Object.values(role)).toEqual([false, false, false, false, false]);
    const others = await database.query(
      `SELECT relname FROM pg_class WHERE relnamespace = 'public'::regnamespace AND pg_get_userbyid(relowner) <> current_user`,
    );
    expect(others).toEqual([]);
    await database.query('ALTER TABLE "job" ADD COLUMN "later" int');
    await expect(database.query('CREATE DATABASE elsewhere')).rejects.toThrow('permission denied');
    await expect(database.query(`SELECT pg_read_file('/etc/passwd')`)).rejects.toThrow('permission denied');
    await expect(database.query(`COPY "job" TO PROGRAM 'cat'`)).rejects.toThrow('must be superuser');
    await database.destroy();
  });

  it('reaches no other database of the cluster', async () => {
    const admin = await connected(cluster.url);
    await admin.query('CREATE DATABASE fettle_before_1');
    await admin.destroy();
    const url = cluster.serverUrl();
    await expect(connected(url.replace(/\/[^/]*$/u, '/fettle_before_1'))).rejects.toThrow('permission denied');
    await expect(connected(url.replace(/\/[^/]*$/u, '/template1'))).rejects.toThrow('permission denied');
  });

  it('has its password, and the log, in files that nobody else reads', () => {
    for (const name of ['password', 'password-server', 'postgres.log']) {
      expect([name, statSync(join(folder, name)).mode & 0o077]).toEqual([name, 0]);
    }
    expect(readFileSync(join(folder, 'password-server'), 'utf8').length).toBeGreaterThan(30);
  });
});

describe('data of another PostgreSQL', () => {
  it('is left as it is, and it is told how to bring it over', async () => {
    const old = mkdtempSync('/tmp/fettle-cluster-');
    chmodSync(old, 0o755);
    mkdirSync(join(old, 'data'));
    writeFileSync(join(old, 'data/PG_VERSION'), '9.6\n');
    writeFileSync(join(old, 'password'), 'x');
    const refused = await startCluster(old, { durable: false }).then(
      () => '',
      (error: Error) => error.message,
    );
    for (const part of [
      'made by PostgreSQL 9.6',
      'postgresql-9.6',
      'fettle -- backup',
      `mv ${old}/data ${old}/data-9.6`,
      'fettle -- restore',
    ]) {
      expect(refused).toContain(part);
    }
    expect(readFileSync(join(old, 'data/PG_VERSION'), 'utf8')).toBe('9.6\n');
    rmSync(old, { recursive: true, force: true });
  });
});

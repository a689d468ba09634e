/**
 * npm run bench, writes: readings kept a second over HTTP by the built server, at 1, 8 and 32 connections, beside pgbench's single-row inserts
 * on the same cluster at the same number of connections; both on disk before they are answered.
 */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { newJob, usualLayout } from '@fettle/core';
import { freePort, postgresBinaries, startCluster } from '../../../../scripts/postgres.mjs';

const CONNECTIONS = [1, 8, 32] as const;
const SECONDS = 5;
const ENGINES = 8;
const AIM = 1 / 3;

const folder = mkdtempSync(join('/tmp', 'fettle-bench-'));
const cluster = await startCluster(folder, { durable: true });
const port = await freePort();
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

function startServer(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['packages/server/dist/main.js'], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: cluster.url,
      FETTLE_PORT: String(port),
      FETTLE_DEMO: 'no',
      FETTLE_LOG: 'error',
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.on('message', () => resolve(child));
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}; build it first: npm run types`)));
  });
}

function send(method: string, path: string, body: unknown): Promise<number> {
  const text = JSON.stringify(body);
  return new Promise((resolve, reject) => {
    const headers = { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) };
    const asked = request({ agent, host: '127.0.0.1', port, path, method, headers }, (answer) => {
      answer.resume().on('end', () => resolve(answer.statusCode!));
    });
    asked.on('error', reject).end(text);
  });
}

async function engine(): Promise<string> {
  const usual = usualLayout(5, 4, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const document = newJob('Sedge 4 typed by many', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const id = randomUUID();
  await send('POST', '/api/jobs', { id, by: 'Wren', document });
  return id;
}

const SLOTS = {
  mainBore: ['front', 'rear', 'front-90', 'rear-90'],
  mainJournal: ['front-0', 'rear-0', 'front-90', 'rear-90'],
} as const;

/** One person who types readings of one engine without a pause, each after the one before is kept. */
async function types(id: string, seat: number, until: number): Promise<number> {
  const feature = seat % 2 === 0 ? 'mainBore' : 'mainJournal';
  const station = (Math.floor(seat / 2) % 5) + 1;
  const standing = new Map<string, string>();
  let count = 0;
  for (; performance.now() < until; count += 1) {
    const slot = SLOTS[feature][count % 4]!;
    const reading = randomUUID();
    const replaces = standing.get(slot) ?? null;
    const draft = {
      feature,
      station,
      slot,
      text: '64.010',
      unit: 'mm',
      setting: null,
      replaces,
      by: 'Wren',
      at: new Date().toISOString(),
    };
    const status = await send('PUT', `/api/jobs/${id}/readings/${reading}`, draft);
    if (status !== 201) throw new Error(`a reading was answered ${status}`);
    standing.set(slot, reading);
  }
  return count;
}

/** Readings kept a second by so many at once. */
async function readingsASecond(connections: number): Promise<number> {
  const engines = await Promise.all(Array.from({ length: Math.min(ENGINES, connections) }, engine));
  const start = performance.now();
  const counts = await Promise.all(
    Array.from({ length: connections }, (_, at) =>
      types(engines[at % engines.length]!, Math.floor(at / engines.length), start + 1000 * SECONDS),
    ),
  );
  return counts.reduce((sum, count) => sum + count, 0) / ((performance.now() - start) / 1000);
}

/** Rows that pgbench puts in a second over so many connections, one a transaction. */
function rowsASecond(connections: number): number {
  const script = join(folder, 'insert.sql');
  writeFileSync(script, `INSERT INTO bench VALUES (gen_random_uuid(), now(), '64.010');\n`);
  const { hostname, port: at, username, password, pathname } = new URL(cluster.url);
  const env = {
    ...process.env,
    PGHOST: hostname,
    PGPORT: at,
    PGUSER: username,
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: pathname.slice(1),
  };
  const bin = postgresBinaries();
  spawnSync(
    join(bin, 'psql'),
    ['-q', '-c', 'CREATE TABLE IF NOT EXISTS bench (id uuid PRIMARY KEY, at timestamptz, text text)'],
    { env },
  );
  const args = ['-n', '-M', 'prepared', '-f', script, '-c', String(connections), '-j', '2', '-T', String(SECONDS)];
  const { stdout, stderr } = spawnSync(join(bin, 'pgbench'), args, { env, encoding: 'utf8' });
  const told = /tps = ([\d.]+)/u.exec(stdout)?.[1];
  if (!told) throw new Error(`pgbench did not run: ${stderr}`);
  return Number(told);
}

const child = await startServer();
try {
  await readingsASecond(8);
  console.log(
    `writes: readings kept a second over HTTP, beside single-row inserts of pgbench on the same cluster (aim ${AIM.toFixed(2)} of it)`,
  );
  for (const connections of CONNECTIONS) {
    const rows = rowsASecond(connections);
    const readings = await readingsASecond(connections);
    console.log(
      `  ${String(connections).padStart(2)} at once: ${readings.toFixed(0)} readings against ${rows.toFixed(0)} rows, ${(readings / rows).toFixed(2)} of it`,
    );
  }
} finally {
  child.removeAllListeners('exit');
  child.kill('SIGTERM');
  await new Promise((resolve) => child.on('exit', resolve));
  agent.destroy();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

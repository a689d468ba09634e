/**
 * npm run bench, writes: readings kept a second over HTTP by the built server, at 1, 8 and 32 connections, beside pgbench's single-row inserts
 * on the same cluster at the same number of connections; both on disk before they are answered. And how long somebody else waits for an answer
 * while others send changes of the largest documents there are, beside how long with nobody else there.
 */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { type JobDocument, newJob, usualLayout } from '@fettle/core';
import { freePort, postgresBinaries, startCluster } from '../../../../scripts/postgres.mjs';
import { builtServer } from './builtServer.js';
import { engineOfMany } from './samples.js';

const CONNECTIONS = [1, 8, 32] as const;
const SECONDS = 5;
const ENGINES = 8;
const AIM = 1 / 3;

const folder = mkdtempSync(join('/tmp', 'fettle-bench-'));
const cluster = await startCluster(folder, { durable: true });
const port = await freePort();
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

const startServer = () => builtServer(cluster.url, port);

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

async function started(document: JobDocument): Promise<string> {
  const id = randomUUID();
  const status = await send('POST', '/api/jobs', { id, by: 'Wren', document });
  if (status !== 201) throw new Error(`an engine was answered ${status}`);
  return id;
}

function engine(): Promise<string> {
  const usual = usualLayout(5, 4, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  return started(newJob('Sedge 4 typed by many', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }));
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

/** Halves of the largest document. */
const KINDS = 1500;
/** Writers at the same time. */
const CHANGERS = 4;

function quantiles(times: readonly number[]): string {
  const sorted = times.toSorted((a, b) => a - b);
  const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))]!.toFixed(1);
  return `${at(0.5)}, ${at(0.95)}, ${at(1)} ms (median, 95 %, worst of ${sorted.length})`;
}

/** How long somebody else waits for each answer, ms. */
async function waits(until: number): Promise<number[]> {
  const times: number[] = [];
  while (performance.now() < until) {
    const start = performance.now();
    await send('GET', '/api/health', null);
    times.push(performance.now() - start);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  return times;
}

/** Changes every half of an engine that may take as many as there can be, again and again. @returns how many changes were made */
async function changesAll(until: number): Promise<number> {
  const id = await started(engineOfMany(KINDS));
  let version = 1;
  for (; performance.now() < until; version += 1) {
    const steps = Array.from({ length: KINDS }, (_, at) => ({
      op: 'add',
      path: `/shells/half ${at}/stock`,
      value: version % 9,
    }));
    const status = await send('PATCH', `/api/jobs/${id}`, { version, by: 'Wren', steps });
    if (status !== 200) throw new Error(`a change was answered ${status}`);
  }
  return version - 1;
}

async function heldUp(): Promise<void> {
  const alone = await waits(performance.now() + 1000 * SECONDS);
  const until = performance.now() + 2000 * SECONDS;
  const [beside, ...counts] = await Promise.all([
    waits(until),
    ...Array.from({ length: CHANGERS }, () => changesAll(until)),
  ]);
  const made = (counts as number[]).reduce((sum, count) => sum + count, 0);
  console.log(`  an answer to somebody else, nobody else there: ${quantiles(alone)}`);
  console.log(
    `  beside ${made} changes of ${KINDS} halves each, ${CHANGERS} at once: ${quantiles(beside as number[])}`,
  );
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
  await heldUp();
} finally {
  child.removeAllListeners('exit');
  child.kill('SIGTERM');
  await new Promise((resolve) => child.on('exit', resolve));
  agent.destroy();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

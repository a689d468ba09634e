/**
 * npm run bench, scale: what a workshop with much in it costs against one with little, over HTTP, in one run: lists right after a start, stage filters,
 * thirty benches at once, the drawer, moves of fasteners, the record, engine types, sheets on paper. One small case after the other, then the
 * large one.
 */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { newEngineType } from '@fettle/core';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { startCluster } from '../../../../scripts/postgres.mjs';
import { createApp } from '../createApp.js';
import { loadDemo } from '../demo/loadDemo.js';
import { FitPool } from '../fit/fitPool.js';
import { openWorkshop } from '../openWorkshop.js';
import { BodyPool } from '../read/BodyPool.js';
import { PdfPool } from '../sheet/pdfPool.js';
import { fillTo } from './fillTo.js';
import { LAYOUT } from './samples.js';

const FEW = { engines: 50, kinds: 50, types: 10, events: 500 };
const MANY = { engines: 5_000, kinds: 2_000, types: 1_000, events: 100_000 };
const LOOKS = 25;
const CLIENTS = 30;

/** What the thread of the clients runs: all of them connected before, then all at once. */
const CLIENTS_CODE = `
  const { parentPort, workerData: { address, times } } = require('node:worker_threads');
  const ask = async () => {
    const before = performance.now();
    const answer = await fetch(address);
    const kb = (await answer.arrayBuffer()).byteLength / 1000;
    if (answer.status >= 400) throw new Error(address + ' was answered ' + answer.status);
    return { ms: performance.now() - before, kb };
  };
  const all = () => Promise.all(Array.from({ length: times }, ask));
  all().then(all).then((taken) => parentPort.postMessage(taken));
`;

const log = pino({ level: 'silent' });
const folder = mkdtempSync(join('/tmp', 'fettle-bench-'));
const cluster = await startCluster(folder, { durable: false });
let database: DataSource;
let origin = '';
let stop = async () => {};

/** Starts the server anew, as after an update: what it knew is gone. */
async function restart(): Promise<void> {
  await stop();
  database = await openWorkshop(cluster.url);
  const [fits, reads, pdfs] = [new FitPool(), new BodyPool(), new PdfPool()];
  const made = await createApp({ database, fits, reads, pdfs, log, webFolder: null });
  const server = await new Promise<Server>((resolve) => {
    const listening = made.app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const open = database;
  stop = async () => {
    await made.close();
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    for (const pool of [fits, reads, pdfs]) await pool.close();
    await open.destroy();
  };
}

/** Asks many times at once from a thread of its own: what the clients do is not the server’s to wait for. */
function atOnce(path: string, times: number): Promise<{ ms: number; kb: number }[]> {
  const worker = new Worker(CLIENTS_CODE, { eval: true, workerData: { address: origin + path, times } });
  return new Promise((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
  });
}

async function ask(path: string, body?: unknown): Promise<{ ms: number; kb: number }> {
  const before = performance.now();
  const answer = await fetch(origin + path, {
    ...(body === undefined
      ? {}
      : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const kb = (await answer.arrayBuffer()).byteLength / 1000;
  if (answer.status >= 400) throw new Error(`${path} was answered ${answer.status}`);
  return { ms: performance.now() - before, kb };
}

interface Taken {
  readonly median: number;
  readonly worst: number;
  readonly kb: number;
}

function taken(all: readonly { ms: number; kb: number }[]): Taken {
  const times = all.map(({ ms }) => ms).sort((a, b) => a - b);
  return { median: times[times.length >> 1]!, worst: times.at(-1)!, kb: all.at(-1)!.kb };
}

async function looks(path: string, times = LOOKS): Promise<Taken> {
  const all = [];
  for (let at = 0; at < times; at += 1) all.push(await ask(path));
  return taken(all);
}

/** Puts kinds of halves into the drawer up to a number, and so many types and things done. */
async function fill({ engines, kinds, types, events }: typeof FEW): Promise<void> {
  await fillTo(database, engines);
  const half = { family: 'main', series: 'Sedge', half: 'either', onHand: 8 };
  const [{ count }] = await database.query(`SELECT count(*)::int AS count FROM drawer_line`);
  for (let at = count; at < kinds; at += 500) {
    const changes = Array.from({ length: Math.min(500, kinds - at) }, (_, nth) => ({
      id: randomUUID(),
      version: 0,
      half: { ...half, grade: `No ${at + nth}`, wall: 1_900_000 + at + nth },
    }));
    await ask('/api/drawer/move', { by: 'Wren', kind: 'receive', note: '', changes });
  }
  const type = newEngineType('Rush Twin', 'mm', LAYOUT);
  const [{ there }] = await database.query(`SELECT count(*)::int AS there FROM engine_type`);
  for (let at = there; at < types; at += 1) {
    await fetch(`${origin}/api/types/${randomUUID()}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision: 0, by: 'Wren', type: { ...type, name: `Rush ${at}` } }),
    });
  }
  await database.query(
    `INSERT INTO event (at, by, kind, what, subject, detail)
     SELECT now() - at * interval '1 minute', 'Wren', 'access', 'signed-in', 'Wren', '' FROM generate_series(1, $1) AS at`,
    [events],
  );
  // Fasteners that were changed, in every tenth engine.
  await database.query(
    `UPDATE job SET document = jsonb_set(document, '{fasteners,main,since}', to_jsonb('2026-01-02T03:04:05.000Z'::text))
     WHERE abs(hashtext(id::text)) % 10 = 0`,
  );
  await database.query('ANALYZE');
}

/** Everything that is measured, with so much in the database. */
async function measured(): Promise<Map<string, Taken>> {
  const found = new Map<string, Taken>();
  // As another build finds it.
  await database.query(`UPDATE job SET progress_build = 'another'`);
  await restart();
  const begun = performance.now();
  found.set('the list, right after a start', await looks('/api/jobs'));
  found.set('the filter by stage, right after a start', await looks('/api/jobs?stage=bores'));
  for (;;) {
    const [{ stale }] = await database.query(
      `SELECT count(*)::int AS stale FROM job WHERE progress_build = 'another' OR progress IS NULL`,
    );
    if (stale === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  const all = performance.now() - begun;
  found.set('all progress, worked out beside it', { median: all, worst: all, kb: 0 });
  await looks('/api/jobs', 5);
  found.set('the list', await looks('/api/jobs'));
  found.set('the filter by stage', await looks('/api/jobs?stage=bores'));
  found.set(`${CLIENTS} lists at once`, taken(await atOnce('/api/jobs', CLIENTS)));
  found.set('the whole drawer', await looks('/api/drawer', 10));
  const one = async () => {
    const half = {
      family: 'main',
      series: 'Sedge',
      half: 'either',
      grade: `One ${randomUUID()}`,
      wall: 1_950_000,
      onHand: 1,
    };
    return ask('/api/drawer/move', {
      by: 'Wren',
      kind: 'receive',
      note: '',
      changes: [{ id: randomUUID(), version: 0, half }],
    });
  };
  const received = [];
  for (let at = 0; at < LOOKS; at += 1) received.push(await one());
  found.set('one half received', taken(received));
  found.set('moves of fasteners', await looks('/api/fasteners/moves', 10));
  found.set('a page of the record', await looks('/api/audit?most=100'));
  found.set('engine types', await looks('/api/types'));
  const { jobs } = (await (await fetch(`${origin}/api/jobs?words=samphire&most=1`)).json()) as {
    jobs: { id: string }[];
  };
  await ask(`/api/jobs/${jobs[0]!.id}/sheet.pdf`);
  found.set('a sheet on paper, after the first', await looks(`/api/jobs/${jobs[0]!.id}/sheet.pdf`, 6));
  return found;
}

try {
  await restart();
  await loadDemo(database!, log);
  await fill(FEW);
  const few = await measured();
  await fill(MANY);
  const many = await measured();
  console.log(
    `with ${MANY.engines} engines, ${MANY.kinds} kinds, ${MANY.types} types and ${MANY.events} things done, against ${FEW.engines}, ${FEW.kinds}, ${FEW.types} and ${FEW.events}:`,
  );
  for (const [what, large] of many) {
    const small = few.get(what)!;
    console.log(
      `  ${what}: ${(large.median / small.median).toFixed(2)} × (${large.median.toFixed(1)} ms, worst ${large.worst.toFixed(1)}, ${large.kb.toFixed(0)} kB; ` +
        `small ${small.median.toFixed(1)}, worst ${small.worst.toFixed(1)})`,
    );
  }
} finally {
  await stop();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

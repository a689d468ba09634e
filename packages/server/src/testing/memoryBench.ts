/**
 * npm run bench, memory: what the built server takes while sixteen clients at once send the largest bodies there are, of every kind, beside
 * what it takes for one of them, and what it has given back after a while. Read from the kernel, of the server's process alone.
 */
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { freePort, startCluster } from '../../../../scripts/postgres.mjs';
import { builtServer } from './builtServer.js';
import { engineOfMany, startedEngine } from './samples.js';

const CLIENTS = 16;
const ROUNDS = 4;
const AIM_MB = 1000;
/** What is given back is looked at after so long, ms. */
const LATER_MS = 90_000;
const MB = 2 ** 20;

const folder = mkdtempSync(join('/tmp', 'fettle-bench-'));
const cluster = await startCluster(folder, { durable: false });
const port = await freePort();
const origin = `http://127.0.0.1:${port}`;

const startServer = () => builtServer(cluster.url, port, { FETTLE_LOG: 'silent', MALLOC_ARENA_MAX: '2' });

/** Memory of a process, MB: what it has now, or the most it ever had. */
function memoryOf({ pid }: ChildProcess, which: 'VmRSS' | 'VmHWM'): number {
  const [, kb] = new RegExp(`^${which}:\\s+(\\d+)`, 'mu').exec(readFileSync(`/proc/${pid}/status`, 'utf8'))!;
  return Number(kb) / 1024;
}

const fill = (text: string, mb: number) => text.repeat(Math.floor((mb * MB - 1000) / text.length));
const half = { family: 'main', series: 'A', half: 'either', wall: 1.995, stock: 4 };
const shells = (count: number) =>
  Array.from({ length: count }, (_, at) => ({ id: `half ${at}`, ...half, wall: 1.9 + at / 1e5 }));
const station = (id: string) => ({ id, family: 'main', journal: 59.981, aim: 0.04, low: 0.02, high: 0.06 });
const housing = (at: number) => ({ id: `B${at}`, family: 'main', bore: 64.012, station: `M${at}` });

/** The largest of each kind: as they should be, and as nobody should send them. */
const BODIES: readonly { readonly method: string; readonly path: () => string; readonly text: () => string }[] = [
  {
    method: 'POST',
    path: () => '/api/fit',
    text: () =>
      JSON.stringify({
        format: 'fettle.fit-request/1',
        unit: 'mm',
        stations: Array.from({ length: 5 }, (_, at) => station(`M${at}`)),
        housings: Array.from({ length: 5 }, (_, at) => housing(at)),
        shells: shells(1500),
      }),
  },
  { method: 'POST', path: () => '/api/fit', text: () => `{"shells":[${fill('[],', 4)}[]]}` },
  { method: 'POST', path: () => '/api/fit', text: () => JSON.stringify({ shells: shells(30_000) }).slice(0, 4 * MB) },
  { method: 'POST', path: () => '/api/shims', text: () => `{"pieces":[${fill('{"a":1},', 2)}1]}` },
  {
    method: 'POST',
    path: () => '/api/jobs',
    text: () => JSON.stringify({ id: randomUUID(), by: 'Wren', document: engineOfMany(1500) }),
  },
  { method: 'POST', path: () => '/api/jobs', text: () => `{"document":[${fill('{},', 2)}{}]}` },
  {
    method: 'PUT',
    path: () => `/api/jobs/${engine}/photos/${randomUUID()}`,
    text: () =>
      JSON.stringify({
        by: 'Wren',
        type: 'image/jpeg',
        data: Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(4.9 * MB)]).toString('base64'),
      }),
  },
];

const headers = { 'content-type': 'application/json' };
const engine = randomUUID();
const counts = new Map<number, number>();

async function client(seat: number): Promise<void> {
  for (let round = 0; round < ROUNDS * BODIES.length; round += 1) {
    const { method, path, text } = BODIES[(seat + round) % BODIES.length]!;
    const answer = await fetch(origin + path(), { method, headers, body: text() });
    await answer.arrayBuffer();
    counts.set(answer.status, (counts.get(answer.status) ?? 0) + 1);
  }
}

let server = await startServer();
try {
  const start = async () => {
    const body = JSON.stringify({ id: engine, by: 'Wren', document: startedEngine() });
    await fetch(`${origin}/api/jobs`, { method: 'POST', headers, body });
  };
  await start();
  await client(0);
  const one = memoryOf(server, 'VmHWM');
  server.removeAllListeners('exit');
  server.kill('SIGTERM');
  await new Promise((resolve) => server.on('exit', resolve));
  server = await startServer();
  const idle = memoryOf(server, 'VmRSS');
  counts.clear();
  const before = performance.now();
  await Promise.all(Array.from({ length: CLIENTS }, (_, seat) => client(seat)));
  const took = (performance.now() - before) / 1000;
  const many = memoryOf(server, 'VmHWM');
  await new Promise((resolve) => setTimeout(resolve, LATER_MS));
  const after = memoryOf(server, 'VmRSS');
  const answers = [...counts].sort().map(([status, count]) => `${count} × ${status}`);
  console.log(
    `memory of the server with ${CLIENTS} clients that send the largest bodies of every kind: ${(many / one).toFixed(2)} × that of one ` +
      `(${many.toFixed(0)} MB at the most against ${one.toFixed(0)}; aim under ${AIM_MB}); ${LATER_MS / 1000} s later ${after.toFixed(0)} MB, ` +
      `${idle.toFixed(0)} when it had just started; answers ${answers.join(', ')} in ${took.toFixed(0)} s`,
  );
  if (many > AIM_MB) process.exitCode = 1;
} finally {
  server.removeAllListeners('exit');
  server.kill('SIGTERM');
  await new Promise((resolve) => server.on('exit', resolve));
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

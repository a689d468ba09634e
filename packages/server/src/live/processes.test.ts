import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createServer, request, type Server } from 'node:http';
import { join } from 'node:path';
import { newJob, usualLayout } from '@fettle/core';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { freePort } from '../../../../scripts/postgres.mjs';
import { PeopleService } from '../access/peopleService.js';
import { openWorkshop } from '../openWorkshop.js';
import { Visitor } from '../testing/signedInServer.js';

const PASSWORD = 'three shells and a shim';
const root = join(import.meta.dirname, '../../../..');
const processes: ChildProcess[] = [];
const ports: number[] = [];
let proxy: Server;
let origin: string;
let url: string;

/** A server process of its own, behind the proxy. */
async function startProcess(url: string, port: number): Promise<void> {
  const args = ['--conditions=@fettle/source', '--import', 'tsx', 'packages/server/src/main.ts'];
  const child = spawn(process.execPath, args, {
    cwd: root,
    env: {
      ...process.env,
      DATABASE_URL: url,
      FETTLE_PORT: String(port),
      FETTLE_ORIGIN: origin,
      FETTLE_DEMO: 'no',
      FETTLE_LOG: 'error',
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  processes.push(child);
  await new Promise<void>((resolve, reject) => {
    child.on('message', () => resolve());
    child.on('exit', (code) => reject(new Error(`a server ended with ${code}`)));
  });
}

beforeAll(async () => {
  const name = `test_${Math.random().toString(36).slice(2)}`;
  const base = inject('databaseUrl');
  const admin = await new DataSource({ type: 'postgres', url: base }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  url = base.replace(/\/[^/]*$/u, `/${name}`);
  const database = await openWorkshop(url);
  await new PeopleService(database).add('Wren', 'owner', 'command line', PASSWORD);
  await database.destroy();
  ports.push(await freePort(), await freePort());
  let turn = 0;
  // A proxy as there are many: each request to the next of the servers, with what it has to pass on.
  proxy = createServer((asked, answer) => {
    turn += 1;
    const headers = { ...asked.headers, 'x-forwarded-for': asked.socket.remoteAddress!, 'x-forwarded-proto': 'http' };
    const options = { port: ports[turn % 2]!, host: '127.0.0.1', method: asked.method!, path: asked.url!, headers };
    const passed = request(options, (got) => {
      answer.writeHead(got.statusCode!, got.headers);
      got.pipe(answer);
    });
    passed.on('error', () => answer.destroy());
    asked.pipe(passed);
  });
  const proxyPort = await freePort();
  await new Promise<void>((resolve) => proxy.listen(proxyPort, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${proxyPort}`;
  await Promise.all(ports.map((port) => startProcess(url, port)));
}, 120_000);

afterAll(async () => {
  proxy.closeAllConnections();
  proxy.close();
  await Promise.all(
    processes.map((child) => {
      child.removeAllListeners('exit');
      const ended = new Promise((resolve) => child.on('exit', resolve));
      child.kill('SIGTERM');
      return ended;
    }),
  );
});

/** Listens at one of the servers by itself. */
async function listening(
  visitor: Visitor,
  tab: string,
): Promise<{ heard: () => string; stop: () => void; over: Promise<void> }> {
  const stop = new AbortController();
  const response = await visitor.stream(`/api/events?tab=${tab}`, stop.signal);
  let text = '';
  const over = (async () => {
    for await (const chunk of response.body!) text += new TextDecoder().decode(chunk as Uint8Array);
  })().catch(() => undefined);
  return { heard: () => text, stop: () => stop.abort(), over };
}

it('two processes on one database answer the same people and tell each other what was changed', async () => {
  const wren = new Visitor(origin);
  expect((await wren.ask('POST', '/api/session', { name: 'Wren', password: PASSWORD })).status).toBe(200);
  // Whichever of them is asked.
  for (let times = 0; times < 4; times += 1) expect((await wren.ask('GET', '/api/jobs')).status).toBe(200);
  const ears = await Promise.all([1, 2, 3, 4].map((at) => listening(wren, `tab-number-${at}`)));
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const document = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const id = randomUUID();
  expect((await wren.ask('POST', '/api/jobs', { id, document })).status).toBe(201);
  await wren.ask('PUT', '/api/presence', { tab: 'tab-number-9', engine: id, stage: 'bores', part: 'M2' });
  for (const { heard } of ears) {
    await expect.poll(heard, { timeout: 2000 }).toContain(id);
    await expect.poll(heard, { timeout: 2000 }).toContain('"part":"M2"');
  }
  for (const { stop } of ears) stop();
});

it('a notification from elsewhere ends no server, and what follows is heard', async () => {
  const wren = new Visitor(origin);
  expect((await wren.ask('POST', '/api/session', { name: 'Wren', password: PASSWORD })).status).toBe(200);
  const stranger = await new DataSource({ type: 'postgres', url }).initialize();
  const strange = ['', 'no JSON', '{"kind":', '[{"kind":"gone"}]', '[null]', `["${'x'.repeat(7000)}"]`];
  for (const payload of strange) await stranger.query("SELECT pg_notify('fettle', $1)", [payload]);
  const ears = await Promise.all([1, 2].map((at) => listening(wren, `tab-after-${at}`)));
  for (let times = 0; times < 4; times += 1) expect((await wren.ask('GET', '/api/jobs')).status).toBe(200);
  const engine = randomUUID();
  await wren.ask('PUT', '/api/presence', { tab: 'tab-after-9', engine, stage: 'bores', part: 'M3' });
  for (const { heard } of ears) await expect.poll(heard, { timeout: 2000 }).toContain(engine);
  for (const { stop } of ears) stop();
  await stranger.destroy();
  expect(processes.every(({ exitCode }) => exitCode === null)).toBe(true);
});

it('what is told in the breath in which a page’s rights end stops no server', async () => {
  const wren = new Visitor(origin);
  expect((await wren.ask('POST', '/api/session', { name: 'Wren', password: PASSWORD })).status).toBe(200);
  const ears = await Promise.all([1, 2].map((at) => listening(wren, `tab-ended-${at}`)));
  const stranger = await new DataSource({ type: 'postgres', url }).initialize();
  const [wrens] = await stranger.query<{ id: string }[]>("SELECT id FROM person WHERE name = 'Wren'");
  const told = [{ kind: 'rights', person: wrens!.id }, { kind: 'missed' }];
  await stranger.query("SELECT pg_notify('fettle', $1)", [JSON.stringify(told)]);
  await stranger.destroy();
  for (const { over } of ears) await over;
  for (const { heard } of ears) expect(heard()).not.toContain('missed');
  for (let times = 0; times < 4; times += 1) expect((await wren.ask('GET', '/api/jobs')).status).toBe(200);
  expect(processes.every(({ exitCode }) => exitCode === null)).toBe(true);
});

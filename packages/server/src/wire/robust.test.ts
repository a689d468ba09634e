import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { newEngineType } from '@fettle/core';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorForLog, requestForLog } from '../problem/logging.js';
import { runningServer } from '../testing/runningServer.js';
import { engineOfMany, LAYOUT, READING, startedEngine } from '../testing/samples.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const half = { family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, onHand: 6 } as const;
const statusesOf = async (method: string, path: string, body: unknown) =>
  (await Promise.all([1, 2, 3].map(() => server.call(method, path, body)))).map(({ status }) => status).sort();

async function started(document: object = startedEngine()): Promise<string> {
  const id = randomUUID();
  expect((await server.call('POST', '/api/jobs', { id, by, document })).status).toBe(201);
  return id;
}

describe('what is sent three times at the same moment', () => {
  it('is done once, and answered each time', async () => {
    const engine = await started();
    const draft = { ...READING, by };
    expect(await statusesOf('PUT', `/api/jobs/${engine}/readings/${randomUUID()}`, draft)).toEqual([200, 200, 201]);
    const type = newEngineType('Rush Twin', 'mm', LAYOUT);
    // A new one each time as far as the status says.
    expect(await statusesOf('PUT', `/api/types/${randomUUID()}`, { revision: 0, by, type })).toEqual([201, 201, 201]);
    const kit = {
      name: 'One of each',
      note: '',
      halves: [{ family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, count: 2 }],
    };
    expect(await statusesOf('PUT', `/api/drawer/kits/${randomUUID()}`, { version: 0, by, kit })).toEqual([
      201, 201, 201,
    ]);
    const changes = [{ id: randomUUID(), version: 0, half }];
    const before = (await server.call('GET', '/api/drawer/history')).body.entries.length;
    expect(await statusesOf('POST', '/api/drawer/move', { by, kind: 'receive', note: '', changes })).toEqual([
      200, 200, 200,
    ]);
    expect((await server.call('GET', '/api/drawer/history')).body.entries).toHaveLength(before + 1);
  });
});

describe('a choice that an engine cannot have', () => {
  it('is refused when the engine is started with it, as when it is changed to it', async () => {
    const one = { shell: 'nowhere', label: 'Teal', wall: 2_000_000 };
    const stations = { M1: { upper: one, lower: one, predicted: 40_000, rod: null } };
    const choice = { at: '2026-01-02T03:04:05.000Z', by, stations };
    const document = { ...startedEngine(), choice };
    const posted = await server.call('POST', '/api/jobs', { id: randomUUID(), by, document });
    const steps = [{ op: 'add', path: '/choice', value: choice }];
    const patched = await server.call('PATCH', `/api/jobs/${await started()}`, { version: 1, by, steps });
    expect([posted.status, patched.status]).toEqual([422, 422]);
    expect(posted.body.errors[0].path).toBe(`/document${patched.body.errors[0].path}`);
  });
});

describe('too much of something', () => {
  it('is counted: faults, kinds of halves, searches of one client', async () => {
    const shells = Array.from({ length: 3000 }, (_, at) => ({
      id: `${at}`,
      family: 'main',
      series: 'A',
      half: 'middle',
      wall: -1,
      stock: 1,
    }));
    const { status, body } = await server.call('POST', '/api/fit', {
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [],
      housings: [],
      shells,
    });
    expect(status).toBe(422);
    expect(body.errors.length).toBe(201);
    expect(body.errors.at(-1).message).toMatch(/^and \d+ more errors/u);
    const made = await server.call('POST', '/api/jobs', { id: randomUUID(), by, document: engineOfMany(1501) });
    expect([made.status, made.body.errors[0].path]).toEqual([422, '/document/shells']);
  });

  it('does not hold up the others: large requests are read by workers', async () => {
    const shells = Array.from({ length: 9000 }, (_, at) => ({
      id: `${at}`,
      family: 'main',
      series: 'A',
      half: 'either',
      wall: 1.9 + at / 1e5,
      stock: 1,
    }));
    const request = {
      format: 'fettle.fit-request/1',
      unit: 'mm',
      stations: [],
      housings: [],
      shells: [...shells, { id: '' }],
    };
    const began = performance.now();
    const large = Array.from({ length: 6 }, () => server.call('POST', '/api/fit', request));
    const took = [];
    for (let times = 0; times < 20; times += 1) {
      const before = performance.now();
      await server.call('GET', '/api/health');
      took.push(performance.now() - before);
    }
    expect((await Promise.all(large)).every(({ status }) => status === 422)).toBe(true);
    // Half of what was asked meanwhile was answered between them, not after them.
    expect(took.sort((a, b) => a - b)[10]).toBeLessThan((performance.now() - began) / 4);
  });
});

describe('a document of the largest size', () => {
  it('is started, changed and refused as a small one is', async () => {
    const id = await started(engineOfMany(1500));
    const steps = [
      ...Array.from({ length: 1500 }, (_, at) => ({ op: 'add', path: `/shells/half ${at}/stock`, value: 7 })),
      { op: 'add', path: '/shells/half 7/grade', value: 'Teal' },
    ];
    const patch = (more: object[], version: number) =>
      server.call('PATCH', `/api/jobs/${id}`, { version, by, steps: [...steps, ...more] });
    const refused = await patch([{ op: 'add', path: '/shells/half 3/wall', value: -1 }], 1);
    expect([refused.status, refused.body.errors[0].path]).toEqual([422, '/shells/half 3/wall']);
    const misfit = await patch([{ op: 'remove', path: '/shells/nowhere' }], 1);
    expect([misfit.status, misfit.body.errors[0].path]).toEqual([422, '/shells/nowhere']);
    const stale = await patch([], 2);
    expect([stale.status, stale.body.current.version]).toEqual([409, 1]);
    // However many come at once, one of them is made.
    const statuses = (await Promise.all(Array.from({ length: 8 }, () => patch([], 1)))).map(({ status }) => status);
    expect(statuses.sort()).toEqual([200, ...Array.from({ length: 7 }, () => 409)]);
    const { body } = await server.call('GET', `/api/jobs/${id}`);
    expect([body.version, body.document.shells['half 7'].grade, body.document.shells['half 1499'].stock]).toEqual([
      2,
      'Teal',
      7,
    ]);
    const { entries } = (await server.call('GET', `/api/jobs/${id}/history?what=changes`)).body;
    expect(entries[0].changes).toHaveLength(1501);
  });

  it('is not told a hundred times in one answer', async () => {
    const id = await started(engineOfMany(1500));
    const seen: number[] = [];
    for (let version = 1; version <= 30; version += 1) {
      // Nothing that packs well.
      const steps = Array.from({ length: 1500 }, (_, at) => ({
        op: 'add',
        path: `/shells/half ${at}/grade`,
        value: randomUUID(),
      }));
      expect((await server.call('PATCH', `/api/jobs/${id}`, { version, by, steps })).status).toBe(200);
    }
    let after = '';
    let pages = 0;
    do {
      const { body } = await server.call('GET', `/api/jobs/${id}/history?what=changes&most=200${after}`);
      expect(JSON.stringify(body).length).toBeLessThan(3_000_000);
      seen.push(...body.entries.map(({ version }: { version: number }) => version));
      pages += 1;
      after = body.goesOn === null ? '' : `&after=${encodeURIComponent(body.goesOn)}`;
    } while (after !== '');
    expect(seen).toEqual(Array.from({ length: 31 }, (_, at) => 31 - at));
    expect(pages).toBeGreaterThan(3);
  });

  it('that is no document, or no JSON, is told as a small one would be', async () => {
    const long = 'x'.repeat(100_000);
    const odd = await server.call('POST', '/api/jobs', { id: long, by, document: {} });
    expect([odd.status, odd.body.errors[0].path]).toEqual([422, '/id']);
    const broken = await server.call('POST', '/api/jobs', `{"id": "${long}`);
    expect([broken.status, broken.body.type]).toEqual([400, '/api/docs#not-json']);
  });
});

describe('a database with too much to do', () => {
  it('is told as that, with when to come again; and nothing waits for ever', async () => {
    const id = await started();
    const { url } = server.database.options as { url: string };
    const other = await new DataSource({ type: 'postgres', url }).initialize();
    const runner = other.createQueryRunner();
    await runner.startTransaction();
    await runner.query('SELECT FROM job WHERE id = $1 FOR UPDATE', [id]);
    const steps = [{ op: 'add', path: '/name', value: 'Rush Twin B' }];
    const answer = await server.call('PATCH', `/api/jobs/${id}`, { version: 1, by, steps });
    expect([answer.status, answer.body.type]).toEqual([503, '/api/docs#too-busy']);
    expect(Number(answer.headers.get('retry-after'))).toBeGreaterThan(0);
    await runner.rollbackTransaction();
    await runner.release();
    await other.destroy();
    expect((await server.call('PATCH', `/api/jobs/${id}`, { version: 1, by, steps })).status).toBe(200);
  });
});

describe('a body that comes slowly', () => {
  it('is not waited for without end', async () => {
    const { port } = new URL(server.origin);
    const socket = connect(Number(port), '127.0.0.1');
    const said = new Promise<string>((resolve) => {
      let text = '';
      socket.on('data', (chunk) => {
        text += chunk;
      });
      socket.on('close', () => resolve(text));
    });
    const head = `POST /api/jobs HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/json\r\ncontent-length: 1000\r\n\r\n{`;
    socket.write(head);
    expect(await said).toMatch(/^HTTP\/1\.1 408 /u);
  });
});

describe('the log', () => {
  it('holds nothing that somebody has sent', () => {
    const error = Object.assign(new Error('duplicate key'), {
      code: '23505',
      parameters: ['64.010', 'Wren'],
      query: 'INSERT',
    });
    expect(Object.keys(errorForLog(error)).sort()).toEqual(['code', 'message', 'stack', 'type']);
    expect(requestForLog({ id: 1, method: 'DELETE', url: '/api/jobs/1?version=1&by=Wren' })).toEqual({
      id: 1,
      method: 'DELETE',
      path: '/api/jobs/1',
    });
  });
});

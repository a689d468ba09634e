import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { READING, startedEngine } from '../testing/samples.js';
import { databaseFault } from './databaseFault.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

describe('a fault of the database', () => {
  it.each([
    ['away', Object.assign(new Error('x'), { code: 'ECONNRESET' })],
    ['away', new Error('Connection terminated unexpectedly')],
    ['away', new AggregateError([Object.assign(new Error('x'), { code: 'ECONNREFUSED' })])],
    ['away', Object.assign(new Error('QueryFailedError'), { driverError: { code: '57P02' } })],
    ['away', new Error('x', { cause: new Error('Client has encountered a connection error and is not queryable') })],
    ['full', Object.assign(new Error('could not extend file'), { code: '53100' })],
    ['busy', Object.assign(new Error('deadlock detected'), { code: '40P01' })],
    ['busy', new Error('timeout exceeded when trying to connect')],
    [null, new TypeError('x is undefined')],
    [null, 'text'],
    [null, Object.assign(new Error('duplicate key'), { code: '23505' })],
  ] as const)('is %s', (fault, error) => {
    expect(databaseFault(error)).toBe(fault);
  });
});

describe('a connection that is cut off in the middle', () => {
  it('is answered 503, with a time to try again, whatever was under way', async () => {
    const { pathname } = new URL((server.database.options as { url: string }).url);
    const admin = await new DataSource({ type: 'postgres', url: inject('databaseUrl') }).initialize();
    const id = randomUUID();
    expect((await server.call('POST', '/api/jobs', { id, by: 'Wren', document: startedEngine() })).status).toBe(201);
    let isOver = false;
    const statuses = new Map<number, number>();
    const asking = Array.from({ length: 12 }, async (_, nth) => {
      while (!isOver) {
        const change = { version: 1, by: 'Wren', steps: [{ op: 'add', path: '/name', value: `Rush ${nth}` }] };
        const { status, headers } =
          nth % 4 === 0
            ? await server.call('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, { ...READING, by: 'Wren' })
            : nth % 4 === 1
              ? await server.call('PATCH', `/api/jobs/${id}`, change)
              : await server.call('GET', nth % 4 === 2 ? '/api/jobs' : `/api/jobs/${id}`);
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
        if (status === 503) expect(Number(headers.get('retry-after'))).toBeGreaterThan(0);
      }
    });
    for (let times = 0; times < 25; times += 1) {
      await new Promise((resolve) => setTimeout(resolve, 40));
      await admin.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1`, [
        pathname.slice(1),
      ]);
    }
    isOver = true;
    await Promise.all(asking);
    await admin.destroy();
    expect([...statuses.keys()].filter((status) => ![200, 201, 409, 503].includes(status))).toEqual([]);
    expect(statuses.get(503) ?? 0).toBeGreaterThan(0);
    expect((await server.call('GET', '/api/health')).status).toBe(200);
  });
});

describe('a full disk', () => {
  it('is told by health until something can be kept again', async () => {
    const full = await runningServer();
    // What PostgreSQL says where there is no room, whenever an engine is to be kept.
    await full.database.query(`CREATE FUNCTION "no_room"() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN RAISE EXCEPTION 'could not extend file' USING ERRCODE = 'disk_full'; END $$`);
    await full.database.query('CREATE TRIGGER "no_room" BEFORE INSERT ON "job" EXECUTE FUNCTION "no_room"()');
    const body = { id: randomUUID(), by: 'Wren', document: startedEngine() };
    const { status, body: problem, headers } = await full.call('POST', '/api/jobs', body);
    expect([status, problem.title, headers.get('retry-after')]).toEqual([507, 'The server’s disk is full', '30']);
    expect((await full.call('GET', '/api/health')).body.detail).toContain('Free some space on it.');
    await full.database.query('DROP TRIGGER "no_room" ON "job"');
    expect((await full.call('POST', '/api/jobs', body)).status).toBe(201);
    expect((await full.call('GET', '/api/health')).status).toBe(200);
    await full.close();
  });
});

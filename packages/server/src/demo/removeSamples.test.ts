import { randomUUID } from 'node:crypto';
import {
  isSample,
  SAMPLE_ENGINES,
  SAMPLE_INSTRUMENTS,
  SAMPLE_SIGNED,
  SAMPLE_STOCK,
  SAMPLE_THIRD_BUILD,
  SAMPLE_TYPES,
} from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { startedEngine } from '../testing/samples.js';
import { demoEngines } from './demoEngine.js';
import { demoInstruments } from './demoInstruments.js';
import { demoDrawer, demoPieces } from './demoStock.js';
import { demoTypes } from './demoTypes.js';
import { loadDemo } from './loadDemo.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
  await loadDemo(server.database, server.log);
}, 60_000);
afterAll(() => server.close());

const names = async (address: string) =>
  ((await server.call('GET', address)).body.jobs as { name: string }[]).map(({ name }) => name);
const remove = async () => (await server.call('POST', '/api/samples/remove', { by: 'Wren' })).body;

describe('what Fettle ships with', () => {
  it('is known by its ids, all of it and nothing else', () => {
    const sorted = (ids: readonly string[]) => [...ids].sort();
    expect(sorted(SAMPLE_ENGINES)).toEqual(
      sorted([...demoEngines().map(({ id }) => id), SAMPLE_THIRD_BUILD, ...SAMPLE_SIGNED]),
    );
    expect(sorted(SAMPLE_TYPES)).toEqual(sorted(demoTypes().map(({ id }) => id)));
    expect(sorted(SAMPLE_STOCK)).toEqual(sorted([...demoDrawer(), ...demoPieces()].map(({ id }) => id)));
    expect(sorted(SAMPLE_INSTRUMENTS)).toEqual(sorted(demoInstruments().map(({ id }) => id)));
    expect(isSample(randomUUID())).toBe(false);
  });

  it('is removed together, and nothing of the workshop’s own with it', async () => {
    const own = randomUUID();
    await server.call('POST', '/api/jobs', { id: own, by: 'Wren', document: startedEngine('Our own') });
    // Our engine has a shell of the sample stock: that kind stays.
    const held = SAMPLE_STOCK[0]!;
    await server.database.query(
      `INSERT INTO "reservation" ("job_id", "line_id", "count", "state") VALUES ($1, $2, 1, 'reserved')`,
      [own, held],
    );
    // Two at once: one of them does it, the other finds it done.
    const [did, found] = (await Promise.all([remove(), remove()])).sort((a, b) => b.engines - a.engines);
    expect(did).toEqual({ engines: 12, types: 2, instruments: 8, stock: 10, kept: [expect.stringContaining('Teal')] });
    expect(found).toMatchObject({ engines: 0, types: 0, instruments: 0, stock: 0 });
    expect(await names('/api/jobs')).toEqual(['Our own']);
    // What the workshop knows is of its own engines.
    expect((await server.call('GET', '/api/known')).body.engines).toBe(0);
    expect((await server.call('GET', '/api/types')).body.types).toEqual([]);
    const left = (await server.call('GET', '/api/drawer')).body as { id: string }[];
    expect(left.map(({ id }) => id)).toEqual([held]);
  });

  it('comes back piece by piece: engines are reopened, stock by its history', async () => {
    const closed = (await server.call('GET', '/api/jobs?deleted=true&most=200')).body.jobs as {
      id: string;
      version: number;
    }[];
    expect(closed).toHaveLength(52);
    const [one] = closed;
    const back = await server.call('POST', `/api/jobs/${one!.id}/restore`, { by: 'Wren', version: one!.version });
    expect(back.status).toBe(200);
    const { entries } = (await server.call('GET', '/api/drawer/history')).body;
    expect(entries[0]).toMatchObject({ kind: 'remove', note: 'Samples removed' });
    expect((await server.call('POST', `/api/drawer/undo/${entries[0].id}`, { by: 'Wren' })).status).toBe(200);
    expect((await server.call('GET', '/api/drawer')).body).toHaveLength(6);
    // A start does not load them again.
    await loadDemo(server.database, server.log);
    expect(await names('/api/jobs')).toHaveLength(2);
  });
});

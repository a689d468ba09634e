import { randomUUID } from 'node:crypto';
import type { Answered } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { startedEngine } from '../testing/samples.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';

async function engine(name: string, serial: string): Promise<string> {
  const id = randomUUID();
  const { status } = await server.call('POST', '/api/jobs', { id, by, document: { ...startedEngine(), name, serial } });
  expect(status).toBe(201);
  return id;
}

async function builds(serial: string): Promise<Answered<'listBuilds'>['builds']> {
  return (await server.call('GET', `/api/builds?serial=${encodeURIComponent(serial)}`)).body.builds;
}

describe('the builds of one engine', () => {
  it('are found by its serial number, whatever letters are capitals: signed and closed ones too, the last signed first', async () => {
    const first = await engine('Sedge 4 · first', 'S4-0101');
    const second = await engine('Sedge 4 · second', 's4-0101');
    await engine('Sedge 4 · another', 'S4-01010');
    expect((await builds('S4-0101')).map(({ id }) => id)).toEqual([second, first]);
    await server.call('POST', `/api/jobs/${first}/sheets`, { by, seen: 1, revision: 1 });
    await server.call('DELETE', `/api/jobs/${first}?version=1&by=${by}`);
    const [one, two] = await builds('S4-0101');
    expect([one, two]).toMatchObject([
      {
        id: first,
        signed: { revision: 1, hash: expect.stringMatching(/^[0-9a-f]{64}$/u) },
        closedAt: expect.any(String),
      },
      { id: second, signed: null, closedAt: null },
    ]);
    expect(await builds('S4-9999')).toEqual([]);
  });

  it('follow a serial number that is corrected, and are found in the list of engines by it', async () => {
    const id = await engine('Rush Twin · once', 'RT-1');
    const steps = [{ op: 'add', path: '/serial', value: 'RT-77' }];
    await server.call('PATCH', `/api/jobs/${id}`, { version: 1, by, steps });
    expect(await builds('RT-1')).toEqual([]);
    expect((await builds('RT-77')).map((one) => one.id)).toEqual([id]);
    const { body } = await server.call('GET', '/api/jobs?words=rt-77');
    expect(body.jobs.map((one: { id: string }) => one.id)).toEqual([id]);
  });
});

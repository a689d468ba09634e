import { randomUUID } from 'node:crypto';
import { MOST_UNSENT, type UnsentChange } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { startedEngine } from '../testing/samples.js';
import { signedInServer } from '../testing/signedInServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
}, 60_000);
afterAll(() => server.close());

const browserPath = (browser: string) => `/api/unsent/${browser}`;
const missingFor = async (browser: string) =>
  (await server.call('GET', `/api/unsent?browser=${browser}`)).body.missing as {
    browser: string;
    changes: UnsentChange[];
    more: number;
  }[];

async function engine(): Promise<string> {
  const id = randomUUID();
  await server.call('POST', '/api/jobs', { id, by: 'Reed', document: startedEngine('Reed 6') });
  return id;
}

const change = (over: Partial<UnsentChange>): UnsentChange => ({
  id: randomUUID(),
  kind: 'reading',
  engine: randomUUID(),
  words: 'Reed 6: M1 main bore, front plane, “64.010”',
  ...over,
});

describe('what waits in a browser whose data was cleared', () => {
  it('is told to the next browser of the same person, and not to the one that it waits in', async () => {
    const [before, after] = [randomUUID(), randomUUID()];
    const lost = change({});
    expect((await server.call('PUT', browserPath(before), { changes: [lost], more: 0 })).status).toBe(200);
    expect(await missingFor(after)).toMatchObject([{ browser: before, changes: [lost], more: 0 }]);
    expect(await missingFor(before)).toEqual([]);
    await server.call('DELETE', browserPath(before));
    expect(await missingFor(after)).toEqual([]);
  });

  it('is what has not come: readings and engines that are here after all are not missing', async () => {
    const [before, after, id, reading] = [randomUUID(), randomUUID(), await engine(), randomUUID()];
    const place = { feature: 'mainBore', station: 1, slot: 'front', unit: 'mm', setting: null, replaces: null };
    const draft = { ...place, text: '64.010', by: 'Reed', at: new Date().toISOString() };
    const lost = change({ engine: id });
    const changes = [lost, change({ id: reading, engine: id }), change({ kind: 'create', engine: id })];
    await server.call('PUT', browserPath(before), { changes, more: 0 });
    expect((await missingFor(after))[0]?.changes).toEqual([lost, changes[1]]);
    expect((await server.call('PUT', `/api/jobs/${id}/readings/${reading}`, draft)).status).toBe(201);
    expect((await missingFor(after))[0]?.changes).toEqual([lost]);
    // A browser that has nothing left says so.
    await server.call('PUT', browserPath(before), { changes: [], more: 0 });
    expect(await missingFor(after)).toEqual([]);
  });

  it('is bounded: fifty changes are named, twenty browsers are remembered', async () => {
    const changes = Array.from({ length: MOST_UNSENT + 1 }, () => change({}));
    expect((await server.call('PUT', browserPath(randomUUID()), { changes, more: 0 })).status).toBe(422);
    for (let at = 0; at < 25; at += 1) {
      await server.call('PUT', browserPath(randomUUID()), { changes: [change({})], more: at });
    }
    const missing = await missingFor(randomUUID());
    expect(missing.map(({ more }) => more)).toEqual(Array.from({ length: 20 }, (_, at) => 24 - at));
  });
});

it('what somebody else has not sent is nobody’s business', async () => {
  const workshop = await signedInServer();
  const own = async (role: 'fitter' | 'stores') => {
    const { someone, password } = await workshop.added(role);
    await someone.ask('PUT', '/api/session/password', { current: password, password: 'a long one of my own' });
    return someone;
  };
  const [one, other] = [await own('fitter'), await own('stores')];
  const browser = randomUUID();
  expect((await one.ask('PUT', browserPath(browser), { changes: [change({})], more: 0 })).status).toBe(200);
  const path = `/api/unsent?browser=${randomUUID()}`;
  expect((await other.ask('GET', path)).body).toEqual({ missing: [] });
  await other.ask('DELETE', browserPath(browser));
  expect((await one.ask('GET', path)).body.missing).toMatchObject([{ browser }]);
  await workshop.close();
});

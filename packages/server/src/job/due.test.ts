import { randomUUID } from 'node:crypto';
import { newJob, type Recheck } from '@fettle/core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { LAYOUT } from '../testing/samples.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const stamp = { by, at: '2026-01-12T10:00:00.000Z' };

/** An engine with something to be done again on each of some days, closed unless it stays. */
async function engine(name: string, days: readonly string[], isClosed = true) {
  const id = randomUUID();
  const job = newJob(name, 'mm', LAYOUT, { block: 'iron', caps: 'iron', rods: 'steel' });
  const rechecks = Object.fromEntries(
    days.map((on): [string, Recheck] => [randomUUID(), { what: `look on ${on}`, on, run: null, done: null, ...stamp }]),
  );
  const document = { ...job, running: { ...job.running, rechecks } };
  const { body } = await server.call('POST', '/api/jobs', { id, by, document });
  if (isClosed) {
    expect((await server.call('DELETE', `/api/jobs/${id}?version=${body.version}&by=${by}`)).status).toBe(200);
  }
  return id;
}

const due = async (until: string) => (await server.call('GET', `/api/due?until=${until}`)).body;

it('closed engines with something due by a day come up, what is due longest first; others do not', async () => {
  const late = await engine('late', ['2026-03-09', '2026-05-01']);
  const later = await engine('later', ['2026-03-20']);
  await engine('not yet', ['2026-06-01']);
  await engine('nothing', []);
  await engine('on the bench', ['2026-03-01'], false);
  expect(await due('2026-03-08')).toEqual({ due: [], areMore: false });
  const { due: found } = await due('2026-03-31');
  expect(found.map(({ id, name }: { id: string; name: string }) => [id, name])).toEqual([
    [late, 'late'],
    [later, 'later'],
  ]);
  // What is due later on the same engine is not said yet.
  expect(found[0].reminders).toEqual([{ on: '2026-03-09', todo: 'look on 2026-03-09', next: 'running' }]);
  const { version } = found[1];
  expect((await server.call('POST', `/api/jobs/${later}/restore`, { version, by })).status).toBe(200);
  expect((await due('2026-03-31')).due).toHaveLength(1);
});

it('lists no more than twenty, and says that there are more', async () => {
  for (let at = 0; at < 21; at += 1) await engine(`many ${at}`, ['2026-02-01']);
  const found = await due('2026-02-01');
  expect([found.due.length, found.areMore]).toEqual([20, true]);
});

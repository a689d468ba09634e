import { randomUUID } from 'node:crypto';
import {
  type DrawerLine,
  type DrawerMovement,
  drawerLineSchema,
  drawerMovementSchema,
  jobViewSchema,
  newJob,
  usualLayout,
} from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { runningServer } from '../testing/runningServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

async function putHalf(onHand: number, grade = 'Teal'): Promise<string> {
  const id = randomUUID();
  const half = { family: 'main', series: 'Osier', grade, half: 'either', wall: 2_000_000, onHand };
  const { status } = await move('receive', [{ id, version: 0, half }]);
  expect(status).toBe(200);
  return id;
}

function move(kind: string, changes: { id: string; version: number; half: unknown }[], note = '') {
  return server.call('POST', '/api/drawer/move', { by: 'Wren', kind, note, changes });
}

async function lastMovement(): Promise<DrawerMovement> {
  const { body } = await server.call('GET', '/api/drawer/history');
  return z.array(drawerMovementSchema).parse(body.entries)[0]!;
}

const undo = (id: string) => server.call('POST', `/api/drawer/undo/${id}`, { by: 'Teasel' });

/** A twin whose one kind of half is a line of the workshop's drawer. */
async function twinOn(line: string, name = 'Rush Twin'): Promise<string> {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob(name, 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const shell = { family: 'main', series: 'Osier', grade: 'Teal', half: 'either', wall: 2_000_000, stock: null, line };
  const id = randomUUID();
  const { status } = await server.call('POST', '/api/jobs', {
    id,
    by: 'Wren',
    document: { ...job, shells: { teal: shell } },
  });
  expect(status).toBe(201);
  return id;
}

/** A choice that takes two halves a main. */
function choiceOf(mains: number) {
  const half = { shell: 'teal', label: 'Teal either (Osier)', wall: 2_000_000 };
  const stations = Array.from({ length: mains }, (_, at) => [
    `M${at + 1}`,
    { upper: half, lower: half, predicted: 35_000, rod: null },
  ]);
  return { at: '2026-02-03T04:05:06.000Z', by: 'Wren', stations: Object.fromEntries(stations) };
}

const accept = (id: string, version: number, mains: number) =>
  server.call('PATCH', `/api/jobs/${id}`, {
    version,
    by: 'Wren',
    steps: [{ op: 'add', path: '/choice', value: choiceOf(mains) }],
  });

async function lineOf(id: string): Promise<DrawerLine> {
  const { body } = await server.call('GET', '/api/drawer');
  return z
    .array(drawerLineSchema)
    .parse(body)
    .find((line) => line.id === id)!;
}

describe('the workshop drawer', () => {
  it('reserves what an accepted choice takes, and gives it back when the engine chooses less or is deleted', async () => {
    const line = await putHalf(6);
    const job = await twinOn(line);
    expect((await accept(job, 1, 3)).status).toBe(200);
    expect((await lineOf(line)).reservations).toEqual([{ job, name: 'Rush Twin', count: 6 }]);
    expect((await accept(job, 2, 1)).status).toBe(200);
    expect((await lineOf(line)).reservations[0]!.count).toBe(2);
    expect((await server.call('DELETE', `/api/jobs/${job}?version=3&by=Wren`)).status).toBe(200);
    expect((await lineOf(line)).reservations).toEqual([]);
  });

  it('refuses a choice that takes what another engine has reserved, and says how many are free', async () => {
    const line = await putHalf(8);
    const [first, second] = [await twinOn(line), await twinOn(line, 'Rush Twin second')];
    expect((await accept(first, 1, 3)).status).toBe(200);
    const refused = await accept(second, 1, 3);
    expect(refused.status).toBe(409);
    expect(refused.body.type).toBe('/api/docs#drawer-short');
    expect(refused.body.detail).toContain('Need 6 × Teal either (Osier), 2 free');
    expect(refused.body.errors[0].path).toBe('/choice/stations/M1/upper/shell');
    // Nothing of the refused change was kept.
    const { body } = await server.call('GET', `/api/jobs/${second}`);
    expect(jobViewSchema.parse(body)).toMatchObject({ version: 1, document: { choice: null } });
    expect((await accept(second, 1, 1)).status).toBe(200);
  });

  it('never gives a half to two engines that accept at the same moment', async () => {
    for (let round = 0; round < 12; round += 1) {
      const line = await putHalf(6, `Teal ${round}`);
      const jobs = await Promise.all([1, 2, 3, 4].map(() => twinOn(line)));
      const answers = await Promise.all(jobs.map((job) => accept(job, 1, 2)));
      // Four halves each, six on hand: exactly one of them gets its choice.
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
      const { half, reservations } = await lineOf(line);
      expect(reservations.reduce((sum, { count }) => sum + count, 0)).toBeLessThanOrEqual(half.onHand);
    }
  });

  it('accepts several engines together, or none of them', async () => {
    const line = await putHalf(10);
    const jobs = [await twinOn(line), await twinOn(line)];
    const together = (mains: number, versions: number[]) =>
      server.call('POST', '/api/drawer/accept', {
        by: 'Teasel',
        jobs: jobs.map((id, at) => ({ id, version: versions[at], choice: choiceOf(mains) })),
      });
    const refused = await together(3, [1, 1]);
    expect([refused.status, refused.body.type]).toEqual([409, '/api/docs#drawer-short']);
    expect((await lineOf(line)).reservations).toEqual([]);
    expect((await together(2, [1, 1])).status).toBe(200);
    expect((await lineOf(line)).reservations.map(({ count }) => count)).toEqual([4, 4]);
    expect((await together(2, [1, 2])).body.type).toBe('/api/docs#stale-version');
  });

  it('cannot be emptied under what is reserved, and tells a stale change', async () => {
    const line = await putHalf(6);
    const job = await twinOn(line, 'Rush Twin holding');
    expect((await accept(job, 1, 2)).status).toBe(200);
    const { half } = await lineOf(line);
    const put = (kind: string, version: number, onHand: number) =>
      move(kind, [{ id: line, version, half: { ...half, onHand } }]);
    expect((await put('use', 1, 3)).body).toMatchObject({ status: 409, errors: [{ path: '/half/onHand' }] });
    expect((await put('use', 1, 4)).status).toBe(200);
    expect((await put('use', 1, 9)).body.type).toBe('/api/docs#stale-version');
    const removal = await move('remove', [{ id: line, version: 2, half: null }]);
    expect(removal.body.detail).toContain('4 for Rush Twin holding');
  });

  it('is counted as it is, also below what is reserved: the engine is told, and fits no more than is there', async () => {
    const line = await putHalf(6);
    const job = await twinOn(line, 'Rush Twin left short');
    expect((await accept(job, 1, 2)).status).toBe(200);
    const { half } = await lineOf(line);
    const listed = async () =>
      (await server.call('GET', '/api/jobs?words=left short')).body.jobs.find(({ id }: { id: string }) => id === job);
    expect(await listed()).toMatchObject({ held: { reserved: 4, fitted: 0 }, short: [] });
    expect((await move('count', [{ id: line, version: 1, half: { ...half, onHand: 3 } }])).status).toBe(200);
    expect(await listed()).toMatchObject({ held: { reserved: 4 }, short: [expect.stringContaining(half.grade)] });
    const fitted = await server.call('POST', `/api/drawer/fitted/${job}`, { by: 'Wren', fitted: true });
    expect(fitted.body).toMatchObject({ status: 409, type: '/api/docs#drawer-short' });
    expect((await move('receive', [{ id: line, version: 2, half: { ...half, onHand: 4 } }])).status).toBe(200);
    expect((await server.call('POST', `/api/drawer/fitted/${job}`, { by: 'Wren', fitted: true })).status).toBe(200);
    expect(await listed()).toMatchObject({ held: { reserved: 0, fitted: 4 }, short: [] });
    expect((await server.call('GET', `/api/jobs/${job}`)).body.held).toEqual({ reserved: 0, fitted: 4 });
  });

  it('lets fitted halves leave the drawer, keeps the engine to them, and takes that back', async () => {
    const line = await putHalf(6);
    const job = await twinOn(line);
    expect((await accept(job, 1, 2)).status).toBe(200);
    const fitted = (value: boolean) => server.call('POST', `/api/drawer/fitted/${job}`, { by: 'Wren', fitted: value });
    expect((await fitted(true)).status).toBe(200);
    expect(await lineOf(line)).toMatchObject({ half: { onHand: 2 }, reservations: [], used: 4, fittedHere: 0 });
    const { body: own } = await server.call('GET', `/api/drawer?job=${job}`);
    expect(own.find(({ id }: DrawerLine) => id === line)).toMatchObject({ used: 4, fittedHere: 4 });
    expect((await accept(job, 2, 1)).body.type).toBe('/api/docs#halves-fitted');
    expect((await fitted(false)).status).toBe(200);
    expect(await lineOf(line)).toMatchObject({ half: { onHand: 6 }, reservations: [{ count: 4 }], used: 0 });
    expect((await fitted(false)).status).toBe(404);
  });

  it('brings an engine back without its choice when its halves are gone', async () => {
    const line = await putHalf(4);
    const [gone, other] = [await twinOn(line), await twinOn(line)];
    expect((await accept(gone, 1, 2)).status).toBe(200);
    expect((await server.call('DELETE', `/api/jobs/${gone}?version=2&by=Wren`)).status).toBe(200);
    expect((await accept(other, 1, 2)).status).toBe(200);
    const back = await server.call('POST', `/api/jobs/${gone}/restore`, { version: 3, by: 'Wren' });
    expect(jobViewSchema.parse(back.body)).toMatchObject({ deletedAt: null, document: { choice: null } });
  });
});

describe('what was done to the drawer', () => {
  it('can be taken back, and that again, by its difference: what came since stays', async () => {
    const line = await putHalf(6, 'Sand');
    const { half } = await lineOf(line);
    await move('receive', [{ id: line, version: 1, half: { ...half, onHand: 10 } }], '4 from the rep');
    const received = await lastMovement();
    expect(received).toMatchObject({ kind: 'receive', note: '4 from the rep', by: 'Wren', undone: false });
    expect(received.changes[0]).toMatchObject({ line, before: { onHand: 6 }, after: { onHand: 10 } });
    await move('use', [{ id: line, version: 2, half: { ...half, onHand: 9 } }]);
    expect((await undo(received.id)).status).toBe(200);
    expect((await lineOf(line)).half.onHand).toBe(5);
    expect((await undo(received.id)).body.detail).toContain('Already undone');
    const taken = await lastMovement();
    expect(taken).toMatchObject({ kind: 'undo', by: 'Teasel' });
    expect((await undo(taken.id)).status).toBe(200);
    expect((await lineOf(line)).half.onHand).toBe(9);
  });

  it('brings back what was removed, takes away what was added, and refuses what others changed since', async () => {
    const line = await putHalf(4, 'Moss');
    const added = await lastMovement();
    const { half } = await lineOf(line);
    await move('remove', [{ id: line, version: 1, half: null }]);
    expect(await lineOf(line)).toBeUndefined();
    expect((await undo((await lastMovement()).id)).status).toBe(200);
    expect((await lineOf(line)).half).toEqual(half);
    await move('change', [{ id: line, version: 1, half: { ...half, bin: 'B 3' } }]);
    const binned = await lastMovement();
    await move('change', [{ id: line, version: 2, half: { ...half, bin: 'C 1' } }]);
    const refused = await undo(binned.id);
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      'Wren has changed its bin since; change that by hand.',
    ]);
    expect((await undo(added.id)).status).toBe(200);
    expect(await lineOf(line)).toBeUndefined();
  });

  it('tells what was done to one kind of half page by page, however much was done to others since', async () => {
    const line = await putHalf(1, 'Teal told');
    for (let version = 1; version <= 6; version += 1) {
      const now = await lineOf(line);
      expect((await move('count', [{ id: line, version, half: { ...now.half, onHand: version + 1 } }])).status).toBe(
        200,
      );
      await putHalf(1, `Plum told ${version}`);
    }
    const counts: (number | undefined)[] = [];
    let after: string | null = '';
    for (let page = 0; page < 9 && after !== null; page += 1) {
      const from = after === '' ? '' : `&after=${encodeURIComponent(after)}`;
      const { status, body } = await server.call('GET', `/api/drawer/history?line=${line}&most=3${from}`);
      expect([status, body.entries.length]).toEqual([200, page < 2 ? 3 : 1]);
      for (const { changes } of z.array(drawerMovementSchema).parse(body.entries)) {
        counts.push(changes.find((change) => change.line === line)?.after?.onHand);
      }
      after = body.goesOn;
    }
    expect(after).toBeNull();
    expect(counts).toEqual([7, 6, 5, 4, 3, 2, 1]);
    expect((await server.call('GET', '/api/drawer/history?after=yesterday')).status).toBe(422);
  });

  it('is all or nothing, and says which half is in the way', async () => {
    const [one, other] = [await putHalf(2, 'Fern'), await putHalf(2, 'Kelp')];
    const { half } = await lineOf(one);
    const before = await lastMovement();
    const answer = await move('import', [
      { id: one, version: 1, half: { ...half, onHand: 8 } },
      { id: other, version: 7, half: { ...half, grade: 'Kelp', onHand: 8 } },
    ]);
    expect(answer.status).toBe(409);
    expect(answer.body.detail).toContain('Wren has changed Kelp');
    expect((await lineOf(one)).half.onHand).toBe(2);
    expect((await lastMovement()).id).toBe(before.id);
    expect((await move('receive', [{ id: one, version: 1, half: { ...half, wall: 0 } }])).body.errors[0].path).toBe(
      '/changes/0/half/wall',
    );
  });

  it('keeps kits by name, from the version they were read at', async () => {
    const id = randomUUID();
    const kit = {
      name: 'Rush mains',
      halves: [{ family: 'main', series: 'Osier', grade: 'Teal', half: 'upper', wall: 1_992_000, count: 3 }],
    };
    expect((await server.call('PUT', `/api/drawer/kits/${id}`, { version: 0, by: 'Wren', kit })).status).toBe(201);
    const other = { ...kit, name: 'Rush mains B' };
    expect((await server.call('PUT', `/api/drawer/kits/${id}`, { version: 0, by: 'Wren', kit: other })).status).toBe(
      409,
    );
    expect((await server.call('GET', '/api/drawer/kits')).body).toMatchObject([{ id, version: 1, kit }]);
    expect((await server.call('DELETE', `/api/drawer/kits/${id}?version=1&by=Wren`)).body).toEqual([]);
  });
});

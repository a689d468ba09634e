import { randomUUID } from 'node:crypto';
import { newJob, type PieceLine, pieceLineSchema, usualLayout } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { runningServer } from '../testing/runningServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const at = '2026-02-03T04:05:06.000Z';

function move(kind: string, changes: object[], note = '') {
  return server.call('POST', '/api/drawer/move', { by, kind, note, changes });
}

async function putRings(onHand: number, name = 'Thin'): Promise<string> {
  const id = randomUUID();
  const piece = { kind: 'ring', name, thickness: 240_000, onHand };
  expect((await move('receive', [{ id, version: 0, piece }])).status).toBe(200);
  return id;
}

async function lineOf(id: string, query = ''): Promise<PieceLine> {
  const { body } = await server.call('GET', `/api/drawer/pieces${query}`);
  return z
    .array(pieceLineSchema)
    .parse(body)
    .find((line) => line.id === id)!;
}

/** An engine whose one kind of ring is a line of the workshop's drawer, or its own. */
async function engineOn(line: string | null, stock: number | null = null, more: object = {}): Promise<string> {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const pieces = { thin: { kind: 'ring', name: 'Thin', thickness: 240_000, stock, line } };
  const id = randomUUID();
  const document = { ...job, pieces, ...more };
  expect((await server.call('POST', '/api/jobs', { id, by, document })).status).toBe(201);
  return id;
}

function accept(id: string, version: number, count: number) {
  const chosen = [{ place: 'stack', piece: 'thin', label: 'Thin ring', thickness: 240_000, count }];
  const value = count === 0 ? null : { at, by, chosen, predicted: 100_000, shift: 0 };
  const steps = [{ op: 'add', path: '/endPlay/choice', value }];
  return server.call('PATCH', `/api/jobs/${id}`, { version, by, steps });
}

describe('washers and shims in the workshop drawer', () => {
  it('lie beside the halves, and each list has its own', async () => {
    const id = await putRings(2);
    const half = { family: 'main', series: 'Osier', grade: 'Teal', half: 'either', wall: 2_000_000, onHand: 4 };
    await move('receive', [{ id: randomUUID(), version: 0, half }]);
    expect((await server.call('GET', '/api/drawer')).body.map((line: { half: object }) => line.half)).toMatchObject([
      half,
    ]);
    expect((await lineOf(id)).piece).toMatchObject({ kind: 'ring', name: 'Thin', onHand: 2 });
  });

  it('name what is wrong with one, and where', async () => {
    const fault = async (piece: object | null, half?: object) => {
      const { body } = await move('receive', [
        { id: randomUUID(), version: 0, ...(piece ? { piece } : {}), ...(half ? { half } : {}) },
      ]);
      return body.errors?.[0];
    };
    const ring = { kind: 'ring', name: 'Thin', thickness: 240_000, onHand: 2 };
    expect(await fault({ ...ring, half: 'upper' })).toMatchObject({ path: '/changes/0/piece/half' });
    expect(await fault({ ...ring, kind: 'washer' })).toMatchObject({ path: '/changes/0/piece/half' });
    expect(await fault({ ...ring, kind: 'shim', leaf: 240_000 })).toMatchObject({ path: '/changes/0/piece/leaf' });
    expect(await fault({ ...ring, thickness: 0 })).toMatchObject({ path: '/changes/0/piece/thickness' });
    expect(await fault(null)).toMatchObject({ message: 'give a shell or a piece' });
  });

  it('are reserved by an accepted choice, given back, fitted, and counted', async () => {
    const line = await putRings(5);
    const job = await engineOn(line);
    expect((await accept(job, 1, 3)).status).toBe(200);
    expect((await lineOf(line)).reservations).toEqual([{ job, name: 'Rush Twin', count: 3 }]);
    expect((await accept(job, 2, 2)).status).toBe(200);
    expect((await lineOf(line)).reservations[0]!.count).toBe(2);
    await server.call('POST', `/api/drawer/fitted/${job}`, { by, fitted: true });
    expect(await lineOf(line, `?job=${job}`)).toMatchObject({
      piece: { onHand: 3 },
      used: 2,
      fittedHere: 2,
      reservations: [],
    });
    const other = await accept(job, 3, 3);
    expect([other.status, other.body.type]).toEqual([409, '/api/docs#halves-fitted']);
    await server.call('POST', `/api/drawer/fitted/${job}`, { by, fitted: false });
    expect((await accept(job, 3, 0)).status).toBe(200);
    expect(await lineOf(line)).toMatchObject({ piece: { onHand: 5 }, reservations: [] });
  });

  it('can be chosen after the halves were fitted', async () => {
    const line = await putRings(4);
    const halves = randomUUID();
    const half = { family: 'main', series: 'Osier', grade: 'Plum', half: 'either', wall: 2_000_000, onHand: 6 };
    await move('receive', [{ id: halves, version: 0, half }]);
    const shell = {
      family: 'main',
      series: 'Osier',
      grade: 'Plum',
      half: 'either',
      wall: 2_000_000,
      stock: null,
      line: halves,
    };
    const one = { shell: 'plum', label: 'Plum either (Osier)', wall: 2_000_000 };
    const choice = { at, by, stations: { M1: { upper: one, lower: one, predicted: 35_000, rod: null } } };
    const job = await engineOn(line, null, { shells: { plum: shell }, choice });
    expect((await server.call('POST', `/api/drawer/fitted/${job}`, { by, fitted: true })).status).toBe(200);
    expect((await accept(job, 1, 3)).status).toBe(200);
    expect((await lineOf(line)).reservations[0]).toMatchObject({ job, count: 3 });
    await server.call('POST', `/api/drawer/fitted/${job}`, { by, fitted: true });
    expect(await lineOf(line)).toMatchObject({ piece: { onHand: 1 }, used: 3 });
  });

  it('are never given to two engines that accept at the same moment', async () => {
    const line = await putRings(3);
    const jobs = await Promise.all([1, 2, 3].map(() => engineOn(line)));
    const answers = await Promise.all(jobs.map((job) => accept(job, 1, 2)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    const refused = answers.find(({ status }) => status === 409)!;
    expect(refused.body).toMatchObject({
      type: '/api/docs#drawer-short',
      errors: [{ path: '/endPlay/choice/chosen/0/piece' }],
    });
  });

  it('of the engine’s own are counted, and a choice that takes too many is refused where it is made only', async () => {
    const job = await engineOn(null, 2);
    const tooMany = await accept(job, 1, 3);
    expect([tooMany.status, tooMany.body.errors[0].path]).toEqual([422, '/endPlay/choice/chosen/0/piece']);
    expect((await accept(job, 1, 2)).status).toBe(200);
    // A miscount that comes to light later does not keep readings from being saved.
    const patch = (version: number, path: string, value: unknown) =>
      server.call('PATCH', `/api/jobs/${job}`, { version, by, steps: [{ op: 'add', path, value }] });
    expect((await patch(2, '/pieces/thin/stock', 1)).status).toBe(200);
    const reading = { moment: 'fitted', angle: 0, text: '0.10', unit: 'mm', nm: 100_000, by, at };
    expect((await patch(3, '/endPlay/readings/one', reading)).status).toBe(200);
  });

  it('are moved and taken back as halves are, and never taken out from under an engine', async () => {
    const line = await putRings(5);
    await engineOn(line).then((job) => accept(job, 1, 3));
    const { version, piece } = await lineOf(line);
    const short = await move('use', [{ id: line, version, piece: { ...piece, onHand: 2 } }]);
    expect([short.status, short.body.errors[0].path]).toEqual([409, '/piece/onHand']);
    expect((await move('remove', [{ id: line, version, piece: null }])).status).toBe(409);
    expect((await move('count', [{ id: line, version, piece: { ...piece, onHand: 4 } }])).status).toBe(200);
    const { body } = await server.call('GET', `/api/drawer/history?line=${line}`);
    expect(body.entries[0].changes).toMatchObject([{ before: { onHand: 5 }, after: { onHand: 4, kind: 'ring' } }]);
    expect((await server.call('POST', `/api/drawer/undo/${body.entries[0].id}`, { by })).status).toBe(200);
    expect((await lineOf(line)).piece.onHand).toBe(5);
  });

  it('of several engines are accepted together, all or none', async () => {
    const line = await putRings(3);
    const [one, other] = await Promise.all([engineOn(line), engineOn(line)]);
    const taken = (count: number) => ({
      at,
      by,
      chosen: [{ place: 'stack', piece: 'thin', label: 'Thin ring', thickness: 240_000, count }],
      predicted: 100_000,
      shift: 0,
    });
    const together = (counts: [number, number]) =>
      server.call('POST', '/api/drawer/accept', {
        by,
        jobs: [
          { id: one, version: 1, endPlay: taken(counts[0]) },
          { id: other, version: 1, endPlay: taken(counts[1]) },
        ],
      });
    expect((await together([2, 2])).status).toBe(409);
    expect((await lineOf(line)).reservations).toEqual([]);
    expect((await together([2, 1])).status).toBe(200);
    expect((await lineOf(line)).reservations.map(({ count }) => count).sort()).toEqual([1, 2]);
    const nothing = await server.call('POST', '/api/drawer/accept', { by, jobs: [{ id: one, version: 2 }] });
    expect([nothing.status, nothing.body.errors[0].path]).toEqual([422, '/jobs/0/choice']);
  });

  it('come back with an engine only while they are free', async () => {
    const line = await putRings(3);
    const job = await engineOn(line);
    await accept(job, 1, 3);
    await server.call('DELETE', `/api/jobs/${job}?version=2&by=Wren`);
    const other = await engineOn(line);
    expect((await accept(other, 1, 2)).status).toBe(200);
    const back = await server.call('POST', `/api/jobs/${job}/restore`, { version: 3, by });
    expect([back.status, back.body.document.endPlay.choice]).toEqual([200, null]);
  });
});

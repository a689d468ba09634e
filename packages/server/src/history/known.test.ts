import { randomUUID } from 'node:crypto';
import { newInstrument, randomEffects } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { inOneTransaction } from '../database/Database.js';
import { type SignedEngine, signedEngines } from '../demo/demoSigned.js';
import { putSigned } from '../demo/loadDemo.js';
import { openWorkshop } from '../openWorkshop.js';
import { freshDatabase, runningServer } from '../testing/runningServer.js';

const COUNT = 60;
let server: Awaited<ReturnType<typeof runningServer>>;
let engines: SignedEngine[];
beforeAll(async () => {
  engines = signedEngines(COUNT, Date.parse('2026-11-30T08:00:00Z'), () => randomUUID());
  const url = await freshDatabase();
  const database = await openWorkshop(url);
  await inOneTransaction(database, (inside) => putSigned(inside, engines).then(() => undefined));
  await database.destroy();
  server = await runningServer(null, url);
  await settled(COUNT);
}, 90_000);
afterAll(() => server.close());

const get = async (part: string, query = '') => (await server.call('GET', `/api/known${part}${query}`)).body;

/** Waits until so many engines tell something. */
async function settled(count: number): Promise<void> {
  await vi.waitFor(async () => expect((await get('')).engines).toBe(count), { timeout: 60_000, interval: 250 });
}

describe('what the workshop knows', () => {
  it('tells by what it can be narrowed', async () => {
    expect(await get('')).toMatchObject({
      engines: COUNT,
      leftOut: 0,
      samples: 0,
      types: ['Sedge 4'],
      series: ['Marsh'],
      people: ['Sorrel', 'Teasel', 'Wren'],
    });
  });

  it('tells what assembly adds, as engines that differ say it together', async () => {
    const { groups } = await get('/offsets');
    expect(groups).toHaveLength(1);
    const [group] = groups;
    expect(group).toMatchObject({ type: 'Sedge 4', family: 'main', series: 'Marsh', engines: COUNT });
    expect(group.fasteners).toContain('M10 cap bolts');
    // The engines were made up about −2 µm, 3 µm apart; what is known of each takes some of that up.
    expect(Math.abs(group.mean + 2000)).toBeLessThan(1300);
    expect(group.between).toBeGreaterThan(700);
    expect(group.between).toBeLessThan(3300);
    const again = randomEffects(
      group.latest.map((one: { offset: number; u: number }) => ({ ...one, value: one.offset })),
    )!;
    expect(group.mean).toBeCloseTo(again.mean, 6);
    expect(group.next.low).toBeLessThan(group.mean - 2 * 700);
  });

  it('counts every mark once, with the bands that never came', async () => {
    const { features } = await get('/marks');
    const bores = features.find(({ feature }: { feature: string }) => feature === 'mainBore');
    const counts = Object.fromEntries(
      bores.bands.map((band: { mark: string; count: number }) => [band.mark, band.count]),
    );
    const own = engines.flatMap(({ document }) => document.marks.mainBore!.text.split(' '));
    for (const mark of ['A', 'B', 'C']) expect(counts[mark]).toBe(own.filter((one) => one === mark).length);
    const [first] = bores.bands;
    expect(first.mean).toBeGreaterThan(first.low - 1000);
    expect(first.mean).toBeLessThan(first.high + 1000);
  });

  it('finds the grade whose walls are off', async () => {
    const { walls } = await get('/walls');
    const of = (grade: string) => walls.filter((one: { grade: string }) => one.grade === grade);
    // Plum was made up 1.4 µm above the middle of a band of ±1 µm, Sand 0.2.
    for (const wall of of('Plum')) expect(wall.mean).toBeGreaterThan(wall.high);
    for (const wall of of('Sand')) expect(wall.mean).toBeLessThan(wall.high);
    const taken = engines.flatMap(({ document }) =>
      Object.values(document.choice!.stations).map(({ upper }) => upper.shell),
    );
    const withPlum = engines.filter(({ document }) =>
      Object.values(document.choice!.stations).some(({ upper }) => upper.shell === 'plum-upper'),
    );
    expect(taken.length).toBe(COUNT * 5);
    expect(of('Plum').find((one: { half: string }) => one.half === 'upper').engines).toBe(withPlum.length);
  });

  it('counts shells by grade and month', async () => {
    const { uses, months } = await get('/use');
    expect(uses.reduce((sum: number, { total }: { total: number }) => sum + total, 0)).toBe(COUNT * 10);
    const tens = engines.flatMap(({ document }) =>
      Object.values(document.choice!.stations).map(({ lower }) => lower.shell),
    );
    for (const { grade, half, taken } of uses) {
      const pieces = taken.reduce(
        (sum: number, one: { pieces: number; engines: number }) => sum + one.pieces * one.engines,
        0,
      );
      const own = tens.filter((shell) => shell === `${grade.toLowerCase()}-lower`).length;
      if (half === 'lower') expect(pieces).toBe(own);
    }
    for (const { total, months: by } of uses) {
      expect(by.reduce((sum: number, one: { count: number }) => sum + one.count, 0)).toBe(total);
    }
    expect(months).toBeGreaterThan(12);
  });

  it('tells how people repeat, and how often a figure was put right', async () => {
    const { people } = await get('/readers');
    const readings = engines.reduce((sum, one) => sum + one.readings.length + one.replaced.size, 0);
    expect(people.reduce((sum: number, one: { readings: number }) => sum + one.readings, 0)).toBe(readings);
    const pairs = engines.flatMap(({ readings: own, replaced }) =>
      own.flatMap((one) => (one.taken?.reason === 'read again' ? [one.nm! - replaced.get(one.id)!.nm!] : [])),
    );
    expect(people.reduce((sum: number, one: { repeats: number }) => sum + one.repeats, 0)).toBe(pairs.length);
    expect(people.reduce((sum: number, one: { slips: number }) => sum + one.slips, 0)).toBe(
      engines.flatMap(({ readings: own }) => own).filter(({ taken }) => taken?.reason === 'typed wrong').length,
    );
    const all = people.reduce(
      (sum: number, one: { repeats: number; repeatability: number | null }) =>
        sum + 2 * one.repeats * (one.repeatability ?? 0) ** 2,
      0,
    );
    expect(all).toBeCloseTo(
      pairs.reduce((sum, one) => sum + one ** 2, 0),
      0,
    );
  });

  it('pools what instruments of one kind repeat to', async () => {
    const kinds = async () => (await get('/readers')).kinds;
    expect(await kinds()).toEqual([]);
    const ids = [randomUUID(), randomUUID()];
    for (const [at, id] of ids.entries()) {
      const instrument = { ...newInstrument('outsideMicrometer', 'mm'), number: `M ${at}` };
      await server.call('PUT', `/api/instruments/${id}`, { revision: 0, by: 'Wren', instrument });
    }
    const { manager } = server.database;
    // As if every engine had been read with the one or the other.
    await manager.query(
      `UPDATE "evidence_reading" SET "instrument" = ($1::text[])[1 + abs(hashtext("job_id"::text)) % 2]`,
      [ids],
    );
    const { people, instruments } = await get('/readers');
    const sum = (rows: { repeats: number; repeatability: number | null }[]) =>
      rows.reduce((all, { repeats, repeatability }) => all + repeats * (repeatability ?? 0) ** 2, 0);
    const [pooled, ...others] = await kinds();
    expect(others).toEqual([]);
    expect(pooled).toMatchObject({ kind: 'outsideMicrometer', instruments: 2 });
    expect(pooled.repeats).toBe(people.reduce((all: number, one: { repeats: number }) => all + one.repeats, 0));
    expect(sum([pooled])).toBeCloseTo(sum(instruments), 3);
    await manager.query(`UPDATE "evidence_reading" SET "instrument" = ''`);
  });

  it('tells whether the ± were honest: more trials within a wider interval, two of three each engine checked', async () => {
    const { checks, levels } = await get('/trust');
    expect(checks).toBe(COUNT * 2);
    const inside = levels.map((one: { inside: number }) => one.inside);
    expect(inside).toEqual([...inside].sort((one, other) => one - other));
    expect(inside.at(-1) / checks).toBeGreaterThan(0.9);
  });

  it('is narrowed by type, series, person and days', async () => {
    const count = async (query: string) => (await get('/offsets', query)).groups[0]?.engines ?? 0;
    expect(await count('?type=Reed%206')).toBe(0);
    expect(await count('?series=Osier')).toBe(0);
    const byTeasel = engines.filter(({ by }) => by === 'Teasel').length;
    expect(await count('?person=Teasel')).toBe(byTeasel);
    const day = '2025-06-30';
    const until = engines.filter(({ document }) => document.choice!.at.slice(0, 10) <= day).length;
    expect(await count(`?to=${day}`)).toBe(until);
    expect(await count('?from=2025-07-01')).toBe(COUNT - until);
    expect((await server.call('GET', '/api/known/offsets?from=june')).status).toBe(422);
  });

  it('lists as many engines behind a figure as the figure says', async () => {
    const behind = async (query: Record<string, string>) =>
      (await get('/engines', `?${new URLSearchParams({ ...query, most: '200' })}`)).engines.length;
    const { walls } = await get('/walls');
    for (const { family, series, grade, half, engines: count } of walls) {
      expect(await behind({ what: 'wall', family, series, grade, half })).toBe(count);
    }
    const { uses } = await get('/use');
    for (const { family, series, grade, half, taken } of uses.slice(0, 4)) {
      const count = taken.reduce((sum: number, one: { engines: number }) => sum + one.engines, 0);
      expect(await behind({ what: 'use', family, series, grade, half })).toBe(count);
      expect(await behind({ what: 'use', family, series: 'Other', grade, half })).toBe(0);
    }
    for (const mark of ['A', 'B', 'C']) {
      const own = engines.filter(({ document }) => document.marks.mainBore!.text.split(' ').includes(mark)).length;
      expect(await behind({ what: 'mark', feature: 'mainBore', mark })).toBe(own);
    }
    expect(await behind({ what: 'check' })).toBeGreaterThan(0);
    expect(await behind({ what: 'instrument', instrument: 'none' })).toBe(0);
    expect((await server.call('GET', '/api/known/engines?what=guess')).status).toBe(422);
  });

  it('leaves an engine out with its reason, everywhere, until it counts again', async () => {
    const [{ id }] = engines as [SignedEngine];
    const put = (reason: string | null) => server.call('PUT', `/api/known/engines/${id}`, { by: 'Wren', reason });
    expect((await put('gauge was wrong')).body.leftOut).toMatchObject({ reason: 'gauge was wrong', by: 'Wren' });
    expect(await get('')).toMatchObject({ engines: COUNT - 1, leftOut: 1 });
    expect((await get('/offsets')).groups[0].engines).toBe(COUNT - 1);
    expect((await get('/trust')).checks).toBe(COUNT * 2 - 2);
    const listed = (await get('/engines', '?most=200')).engines.find((one: { id: string }) => one.id === id);
    expect(listed).toMatchObject({ signed: 1, leftOut: { reason: 'gauge was wrong' } });
    expect((await put('')).status).toBe(422);
    await put(null);
    expect((await get('/offsets')).groups[0].engines).toBe(COUNT);
    expect((await server.call('PUT', `/api/known/engines/${randomUUID()}`, { by: 'Wren', reason: null })).status).toBe(
      404,
    );
  });

  it('lists the engines behind it page by page, each once', async () => {
    const seen: string[] = [];
    let after = '';
    for (let page = 0; page < 10; page += 1) {
      const { engines: part, goesOn } = await get('/engines', `?most=25${after}`);
      seen.push(...part.map(({ id }: { id: string }) => id));
      if (goesOn === null) break;
      after = `&after=${encodeURIComponent(goesOn)}`;
    }
    expect(new Set(seen).size).toBe(COUNT);
    expect(seen).toHaveLength(COUNT);
  });

  it('follows an engine that is worked on: without an accepted selection it tells nothing', async () => {
    const [, { id }] = engines as [SignedEngine, SignedEngine];
    const { body } = await server.call('POST', `/api/jobs/${id}/restore`, { by: 'Wren', version: 1 });
    const steps = [{ op: 'add', path: '/choice', value: null }];
    const { status } = await server.call('PATCH', `/api/jobs/${id}`, { version: body.version, by: 'Wren', steps });
    expect(status).toBe(200);
    await settled(COUNT - 1);
    expect((await get('/offsets')).groups[0].engines).toBe(COUNT - 1);
  });
});

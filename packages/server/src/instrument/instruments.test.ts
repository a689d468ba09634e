import { randomUUID } from 'node:crypto';
import { newInstrument, type RegisteredInstrument } from '@fettle/core';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { databaseFrom } from '../testing/databaseFrom.js';
import { runningServer } from '../testing/runningServer.js';
import { READING, startedEngine } from '../testing/samples.js';
import { OWNER, signedInServer } from '../testing/signedInServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const day = (on: string, time: string) => `${on}T${time}:00.000Z`;

async function registered(number: string, with_: Partial<RegisteredInstrument> = {}) {
  const id = randomUUID();
  const instrument = { ...newInstrument('boreGauge', 'mm'), number, needle: 'smaller', ...with_ };
  const answer = await server.call('PUT', `/api/instruments/${id}`, { revision: 0, by, instrument });
  return { id, instrument, answer };
}

async function calibrated(id: string, on: string, rest: object = {}) {
  const calibration = randomUUID();
  const body = { by, calibration: { on, due: null, laboratory: '', certificate: '', points: [], ...rest }, file: null };
  const answer = await server.call('PUT', `/api/instruments/${id}/calibrations/${calibration}`, body);
  return { calibration, answer };
}

const checked = (id: string, at: string, shown: number, isReset = true) =>
  server.call('PUT', `/api/instruments/${id}/checks/${randomUUID()}`, { at, by, standard: null, shown, isReset });

/** An engine with a reading of its first main bore at each of some moments, with an instrument. */
async function readWith(instrument: string, moments: readonly string[]) {
  const id = randomUUID();
  await server.call('POST', '/api/jobs', { id, by, document: startedEngine(`Rush Twin ${id.slice(0, 4)}`) });
  for (const [index, at] of moments.entries()) {
    const taken = {
      instrument: '',
      instrumentId: instrument,
      needle: 'bigger',
      celsius: null,
      gaugeCelsius: null,
      reason: '',
    };
    const reading = { ...READING, station: index + 1, by, at, taken };
    const { status } = await server.call('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, reading);
    expect(status).toBe(201);
  }
  return id;
}

describe('the register of instruments', () => {
  it('gives each number once, however it is written, and says which is taken', async () => {
    const { answer } = await registered('BG 3');
    expect(answer.status).toBe(201);
    const again = await registered('bg 3');
    expect([again.answer.status, again.answer.body.errors]).toEqual([
      422,
      [{ path: '/instrument/number', message: 'number BG 3 is taken: give each instrument a number of its own' }],
    ]);
  });

  it('asks which way a needle goes, and for the size of a ring', async () => {
    const { answer } = await registered('BG 4', { needle: null });
    expect(answer.body.errors[0]).toMatchObject({
      path: '/instrument/needle',
      message: expect.stringContaining('needle'),
    });
    const ring = await registered('R 1', { kind: 'settingRing', needle: null });
    expect(ring.answer.body.errors[0]).toMatchObject({ path: '/instrument/size' });
  });

  it('takes a change from the revision that it was made from, once, and shows the present one to who comes late', async () => {
    const { id, instrument } = await registered('M 1', { kind: 'outsideMicrometer', needle: null });
    const put = (revision: number, holder: string) =>
      server.call('PUT', `/api/instruments/${id}`, { revision, by, instrument: { ...instrument, holder } });
    expect((await put(1, 'Teasel')).status).toBe(200);
    // The answer was lost on the way: the same again is no second change.
    expect((await put(1, 'Teasel')).body.revision).toBe(2);
    const late = await put(1, 'Wren');
    expect([late.status, late.body.current.instrument.holder]).toEqual([409, 'Teasel']);
  });

  it('marks what is overdue in the list, by the certificate or by the interval', async () => {
    const { id } = await registered('M 2', { kind: 'outsideMicrometer', needle: null, calibrateAfterMonths: 6 });
    await calibrated(id, '2026-01-31');
    const of = async () =>
      (await server.call('GET', '/api/instruments')).body.instruments.find((one: { id: string }) => one.id === id);
    expect(await of()).toMatchObject({ calibratedOn: '2026-01-31', due: '2026-07-31', isWrong: false });
    await calibrated(id, '2026-08-01', { due: '2026-09-01' });
    expect(await of()).toMatchObject({ calibratedOn: '2026-08-01', due: '2026-09-01' });
  });

  it('refuses points that are out of order, and says which', async () => {
    const { id } = await registered('M 3', { kind: 'outsideMicrometer', needle: null });
    const points = [25, 50, 50].map((at) => ({ at: at * 1e6, error: 0, expanded: 1000, factor: 2 }));
    const { answer } = await calibrated(id, '2026-01-31', { points });
    expect(answer.body.errors[0]).toEqual({
      path: '/calibration/points/2/at',
      message: 'point 3 is not above point 2: enter the points from the smallest up, each once',
    });
  });

  it('keeps a certificate that is what it says, and gives it back to the byte as a file to save', async () => {
    const { id } = await registered('M 4', { kind: 'outsideMicrometer', needle: null });
    const calibration = randomUUID();
    const path = `/api/instruments/${id}/calibrations/${calibration}`;
    const data = Buffer.from('%PDF-1.7 made up');
    const put = (type: string) =>
      server.call('PUT', path, {
        by,
        calibration: { on: '2026-01-31', due: null, laboratory: 'Saltmarsh metrology', certificate: '7', points: [] },
        file: { name: '7.pdf', type, data: data.toString('base64') },
      });
    expect((await put('image/png')).body.errors[0]).toMatchObject({
      path: '/file/data',
      message: 'not a image/png file',
    });
    const { body } = await put('application/pdf');
    expect(body.calibrations[0].file).toEqual({ name: '7.pdf', type: 'application/pdf', bytes: data.length });
    const back = await fetch(`${server.origin}${path}/file`);
    expect([back.headers.get('content-type'), back.headers.get('content-disposition')]).toEqual([
      'application/pdf',
      'attachment',
    ]);
    expect(Buffer.from(await back.arrayBuffer()).equals(data)).toBe(true);
  });

  it('finds every engine that an instrument touched, and which of its readings are in doubt', async () => {
    const { id } = await registered('BG 7', { calibrateAfterMonths: 6 });
    const first = await calibrated(id, '2026-01-10');
    await checked(id, day('2026-02-01', '08:00'), 0);
    await checked(id, day('2026-02-01', '12:00'), 5_000);
    await checked(id, day('2026-02-01', '17:00'), 1_000);
    // Two between the checks that differ; one after the calibration of January had run out.
    const drifted = await readWith(id, [
      day('2026-02-01', '09:00'),
      day('2026-02-01', '11:00'),
      day('2026-02-01', '13:00'),
    ]);
    const late = await readWith(id, [day('2026-08-01', '09:00')]);
    const touched = async () => {
      const { body } = await server.call('GET', `/api/instruments/${id}/engines`);
      return new Map<string, object>(body.engines.map((one: { id: string }) => [one.id, one]));
    };
    expect((await touched()).get(drifted)).toMatchObject({ readings: 3, adrift: 2, overdue: 0, wrong: 0 });
    expect((await touched()).get(late)).toMatchObject({ readings: 1, adrift: 0, overdue: 1, wrong: 0 });
    const path = `/api/instruments/${id}/calibrations/${first.calibration}/wrong`;
    await server.call('POST', path, { by, reason: 'the ring was the wrong one' });
    expect((await touched()).get(drifted)).toMatchObject({ wrong: 3 });
    await server.call('POST', path, { by, reason: null });
    expect((await touched()).get(drifted)).toMatchObject({ wrong: 0 });
    // What was read with the shells in names its gauge too, also in an earlier trial of the station.
    const { body: job } = await server.call('GET', `/api/jobs/${late}`);
    const half = { shell: 'thin', label: 'Osier thin', series: 'Osier', wall: 1_996_000 };
    const one = (at: string) => ({
      text: '0.038',
      unit: 'mm',
      nm: 38_000,
      mode: 'journal',
      setting: null,
      needle: null,
      by,
      at,
      instrumentId: id,
    });
    const trial = (at: string) => ({
      upper: half,
      lower: half,
      rod: null,
      readings: { one: one(at) },
      isBelieved: false,
      at,
      by,
    });
    const { body: known } = await server.call('GET', `/api/instruments/${id}`);
    const { instrument, revision, calibrations } = known;
    const value = {
      M1: { ...trial(day('2026-02-03', '08:00')), earlier: [trial(day('2026-02-02', '08:00'))] },
    };
    const steps = [
      { op: 'add', path: `/registered/${id}`, value: { revision, instrument, calibrations, checks: [] } },
      { op: 'add', path: '/trials', value },
    ];
    const { status } = await server.call('PATCH', `/api/jobs/${late}`, { version: job.version, by, steps });
    expect(status).toBe(200);
    expect((await touched()).get(late)).toMatchObject({
      readings: 3,
      first: day('2026-02-02', '08:00'),
      overdue: 1,
      wrong: 0,
    });
    // A reading that was taken back counts no more.
    expect(
      (await server.call('GET', '/api/instruments')).body.instruments.find((one: { id: string }) => one.id === id)
        .readings,
    ).toBe(4);
  });
});

describe('readings that were taken again', () => {
  it('are pooled over all engines into the repeats of their instrument, slips and corrections left out', async () => {
    const { id } = await registered('M 9', { kind: 'outsideMicrometer', needle: null });
    const path = `/api/instruments/${id}/repeats`;
    expect((await server.call('GET', path)).body).toEqual({ repeats: null });
    const engine = randomUUID();
    await server.call('POST', '/api/jobs', { id: engine, by, document: startedEngine('Rush Twin, read again') });
    const read = async (station: number, text: string, replaces: string | null, reason: string) => {
      const taken = {
        instrument: 'M 9',
        instrumentId: id,
        needle: 'bigger',
        celsius: null,
        gaugeCelsius: null,
        reason,
      };
      const reading = randomUUID();
      const body = { ...READING, station, text, replaces, by, taken };
      expect((await server.call('PUT', `/api/jobs/${engine}/readings/${reading}`, body)).status).toBe(201);
      return reading;
    };
    for (const [station, first, second, reason] of [
      [1, '64.010', '64.012', 'read again'],
      [2, '64.010', '64.008', 'read again'],
      // A slip of a whole turn, and one that was typed wrong: neither is a repeat.
      [3, '64.010', '64.510', 'read again'],
    ] as const) {
      await read(station, second, await read(station, first, null, ''), reason);
    }
    const [one] = (await server.call('GET', `/api/jobs/${engine}`)).body.readings;
    await read(one.station, '64.001', one.id, 'typed wrong');
    const { repeats } = (await server.call('GET', path)).body;
    expect(repeats).toMatchObject({ pairs: 2, slips: 1, sd: expect.closeTo(Math.SQRT2 * 1000, 6) });
  });
});

describe('a gauge study', () => {
  const plan = {
    name: 'Bores',
    unit: 'mm',
    parts: ['a', 'b'],
    people: ['Wren', 'Teasel'],
    trials: 2,
    tolerance: 20_000,
  };
  const at = '2026-11-30T08:00:00.000Z';

  async function begun() {
    const { id } = await registered(`BG ${randomUUID().slice(0, 6)}`);
    const path = `/api/instruments/${id}/studies/${randomUUID()}`;
    await server.call('PUT', path, { by, plan });
    const enter = (person: string, part: string, trial: number, nm: number) =>
      server.call('POST', `${path}/entries`, { part, person, trial, text: String(nm / 1e6), nm, by: person, at });
    const seenBy = async (person: string) => (await server.call('GET', `${path}?person=${person}`)).body;
    return { id, path, enter, seenBy };
  }

  it('shows nobody the figures of the others before it is whole, and everybody all of them then', async () => {
    const { enter, seenBy } = await begun();
    for (const [part, trial] of [
      ['a', 1],
      ['b', 1],
      ['a', 2],
      ['b', 2],
    ] as const) {
      await enter('Wren', part, trial, 64_010_000 + trial * 1000);
      expect((await seenBy('Teasel')).entries).toEqual([]);
      expect((await seenBy('')).entries).toEqual([]);
    }
    expect((await seenBy('Wren')).entries).toHaveLength(4);
    expect((await seenBy('Teasel')).done).toEqual({ Wren: 4, Teasel: 0 });
    for (const [part, trial] of [
      ['a', 1],
      ['b', 1],
      ['a', 2],
    ] as const)
      await enter('Teasel', part, trial, 64_011_000);
    // The answer to the last of them shows all.
    const { body } = await enter('Teasel', 'b', 2, 64_012_000);
    expect(body.entries).toHaveLength(8);
  });

  it('takes a reading again in the place of the first, and none once it is whole', async () => {
    const { enter, seenBy } = await begun();
    await enter('Wren', 'a', 1, 64_010_000);
    await enter('Wren', 'a', 1, 64_013_000);
    expect((await seenBy('Wren')).entries.map(({ nm }: { nm: number }) => nm)).toEqual([64_013_000]);
    for (const person of plan.people) {
      for (const part of plan.parts) for (const trial of [1, 2]) await enter(person, part, trial, 64_010_000);
    }
    const late = await enter('Wren', 'a', 1, 1);
    expect(late.body.errors[0].message).toBe('the study is whole: its readings are not changed any more');
  });

  it('lets an account read in its own name alone, and shows it no other’s figures', async () => {
    const workshop = await signedInServer();
    try {
      const { owner } = workshop;
      const { someone: teal, password } = await workshop.added('fitter', 'Teal');
      await teal.ask('PUT', '/api/session/password', { current: password, password: 'a gauge and a ring' });
      const path = `/api/instruments/${randomUUID()}`;
      const instrument = { ...newInstrument('boreGauge', 'mm'), number: 'BG blind', needle: 'smaller' };
      await owner.ask('PUT', path, { revision: 0, by, instrument });
      const study = `${path}/studies/${randomUUID()}`;
      await owner.ask('PUT', study, { by, plan: { ...plan, people: ['Teal', OWNER.name, 'a guest'] } });
      const entry = { part: 'a', trial: 1, text: '64.010', nm: 64_010_000, by, at };
      expect((await teal.ask('POST', `${study}/entries`, { ...entry, person: OWNER.name })).status).toBe(403);
      expect((await owner.ask('POST', `${study}/entries`, { ...entry, person: OWNER.name })).status).toBe(200);
      expect((await teal.ask('POST', `${study}/entries`, { ...entry, person: 'a guest' })).status).toBe(200);
      const seen = (await teal.ask('GET', `${study}?person=${encodeURIComponent(OWNER.name)}`)).body;
      expect(seen).toMatchObject({ readsAs: ['Teal', 'a guest'], entries: [], done: { [OWNER.name]: 1 } });
    } finally {
      await workshop.close();
    }
  });

  it('goes into the instrument with one touch, with where it comes from', async () => {
    const { id, path, enter } = await begun();
    const early = await server.call('POST', `${path}/take`, { by });
    expect(early.body.errors[0].message).toBe('8 readings are still missing');
    // Each person repeats within 2 µm; Teasel reads 4 µm more: by hand EV = √2 µm, AV² = (32 − 2)/4 µm².
    for (const [person, more] of [
      ['Wren', 0],
      ['Teasel', 4_000],
    ] as const) {
      for (const [part, size] of [
        ['a', 64_010_000],
        ['b', 64_030_000],
      ] as const) {
        await enter(person, part, 1, size + more);
        await enter(person, part, 2, size + more + 2_000);
      }
    }
    const { body } = await server.call('POST', `${path}/take`, { by });
    // Without an interaction the repeats are pooled with it: 4 × 2 µm² over 5 degrees of freedom.
    const ev = Math.sqrt(8 / 5) * 1000;
    expect(body.instrument.repeatability).toBe(Math.round(ev));
    expect(body.instrument.operator).toBe(Math.round(Math.sqrt((32 - 8 / 5) / 4) * 1000));
    expect(body.instrument.basis).toMatch(/^gauge study “Bores” of \d{4}-\d\d-\d\d, 2 people$/u);
    expect((await server.call('GET', `/api/instruments/${id}/studies`)).body.studies[0].takenAt).not.toBeNull();
  });
});

describe('instruments that engines had of their own', () => {
  it('are in the register after the migration, by their names, with their calibration', async () => {
    const own = await runningServer(null, await databaseFrom('job-6.sql'));
    try {
      const { body } = await own.call('GET', '/api/instruments');
      expect(body.instruments).toEqual([
        expect.objectContaining({
          calibratedOn: '2026-03-01',
          due: '2026-09-01',
          instrument: expect.objectContaining({ number: 'BG 12', kind: 'boreGauge', unit: 'in' }),
        }),
      ]);
      const { body: engine } = await own.call('GET', '/api/jobs/b0992000-0009-4000-8000-000000000006');
      expect(engine.document.instruments.boreGauge.name).toBe('BG 12');
      expect(engine.document).toMatchObject({ registered: {}, using: {}, drifts: {} });
    } finally {
      await own.close();
    }
  });

  it('that share a name get a number each, no longer than a number may be', async () => {
    const url = await databaseFrom('job-6.sql');
    const before = await new DataSource({ type: 'postgres', url, extra: { max: 1 } }).initialize();
    const long = 'G'.repeat(60);
    for (const role of ['boreGauge', 'micrometer', 'ballMicrometer']) {
      await before.query(`UPDATE "job" SET "document" = jsonb_set("document", $1, to_jsonb($2::text))`, [
        `{instruments,${role},name}`,
        long,
      ]);
    }
    await before.destroy();
    const own = await runningServer(null, url);
    try {
      const { body } = await own.call('GET', '/api/instruments');
      const numbers: string[] = body.instruments.map(
        (one: { instrument: { number: string } }) => one.instrument.number,
      );
      expect(new Set(numbers).size).toBe(3);
      for (const number of numbers) expect(number.length).toBeLessThanOrEqual(60);
    } finally {
      await own.close();
    }
  });
});

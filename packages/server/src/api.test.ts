import { randomUUID } from 'node:crypto';
import { type JobChange, jobSummarySchema, jobViewSchema, usualLayout } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { loadDemo } from './demo/loadDemo.js';
import { runningServer } from './testing/runningServer.js';
import { READING, startedEngine } from './testing/samples.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

async function startJob(name?: string) {
  const id = randomUUID();
  const { status, body } = await server.call('POST', '/api/jobs', { id, by: 'Wren', document: startedEngine(name) });
  expect(status).toBe(201);
  return jobViewSchema.parse(body);
}

function draft(text: string, replaces: string | null = null) {
  return { ...READING, text, replaces, by: 'Teasel' };
}

const rename = (version: number, value: string) => ({
  version,
  by: 'Teasel',
  steps: [{ op: 'add', path: '/name', value }],
});

describe('jobs', () => {
  it('starts an engine once, however often it is sent', async () => {
    const body = { id: randomUUID(), by: 'Wren', document: startedEngine() };
    expect((await server.call('POST', '/api/jobs', body)).status).toBe(201);
    const again = await server.call('POST', '/api/jobs', body);
    expect(again).toMatchObject({ status: 200, body: { version: 1 } });
    const other = await server.call('POST', '/api/jobs', { ...body, document: startedEngine('Another') });
    expect(other).toMatchObject({ status: 409, body: { type: '/api/docs#id-in-use' } });
  });

  it('keeps how far an engine is after every change, before any list is read', async () => {
    const { id } = await startJob();
    const kept = async () => {
      const [row] = await server.database.query('SELECT progress, progress_of, revision FROM job WHERE id = $1', [id]);
      expect(row.progress_of).toBe(row.revision);
      return row.progress;
    };
    const first = await kept();
    await server.call('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, draft('62.003'));
    // After readings, once for what is typed in one go.
    const read = await vi.waitFor(kept, { timeout: 15_000 });
    expect(read).not.toEqual(first);
    await server.call('PATCH', `/api/jobs/${id}`, { ...rename(1, 'Rush Twin 2') });
    expect(await vi.waitFor(kept, { timeout: 15_000 })).toEqual(read);
  }, 40_000);

  it('works out anew what another build has said of engines, beside the lists and with words meanwhile', async () => {
    const other = await runningServer();
    const ids = Array.from({ length: 60 }, () => randomUUID());
    for (const id of ids) await other.call('POST', '/api/jobs', { id, by: 'Wren', document: startedEngine() });
    const { url } = other.database.options as { url: string };
    await other.database.query(`UPDATE job SET progress_build = 'another', progress = '{"next":"codes"}'`);
    await other.database.query(`UPDATE job SET progress = NULL WHERE id = $1`, [ids[0]]);
    const next = await runningServer(null, url);
    const { body } = await next.call('GET', '/api/jobs?most=200');
    expect(body.jobs).toHaveLength(60);
    await vi.waitFor(
      async () => {
        const [{ stale }] = await next.database.query(
          `SELECT count(*)::int AS stale FROM job WHERE progress_build = 'another' OR progress IS NULL`,
        );
        expect(stale).toBe(0);
      },
      { timeout: 15_000, interval: 100 },
    );
    expect((await next.call('GET', '/api/jobs?stage=data&most=200')).body.jobs).toHaveLength(60);
    expect((await next.call('GET', '/api/jobs?stage=codes')).body.jobs).toHaveLength(0);
    await next.close();
    await other.close();
  });

  it('makes one engine when it is sent twice at the same moment', async () => {
    const body = { id: randomUUID(), by: 'Wren', document: startedEngine() };
    const answers = await Promise.all([1, 2, 3].map(() => server.call('POST', '/api/jobs', body)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 200, 201]);
  });

  it('refuses a stale change with what is there now, and overwrites nothing', async () => {
    const job = await startJob();
    expect((await server.call('PATCH', `/api/jobs/${job.id}`, rename(1, 'Rush Twin A'))).body).toMatchObject({
      version: 2,
    });
    const stale = await server.call('PATCH', `/api/jobs/${job.id}`, rename(1, 'Rush Twin B'));
    expect(stale.status).toBe(409);
    expect(stale.headers.get('content-type')).toContain('application/problem+json');
    expect(stale.body).toMatchObject({ status: 409, current: { version: 2, document: { name: 'Rush Twin A' } } });
    expect((await server.call('GET', `/api/jobs/${job.id}`)).body.document.name).toBe('Rush Twin A');
  });

  it('lets exactly one of two changes made at the same moment win', async () => {
    const job = await startJob();
    const answers = await Promise.all(
      ['A', 'B', 'C', 'D'].map((name) => server.call('PATCH', `/api/jobs/${job.id}`, rename(1, name))),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
  });

  it('names the path of every bad field', async () => {
    const job = await startJob();
    const bad = {
      ...startedEngine(),
      limits: { mainBore: { low: 5, high: 3, source: '' }, mainJournal: null, mainClearance: null },
    };
    const created = await server.call('POST', '/api/jobs', { id: randomUUID(), by: '', document: bad });
    expect(created.status).toBe(422);
    const paths = created.body.errors.map((error: { path: string }) => error.path);
    expect(paths).toEqual(expect.arrayContaining(['/by', '/document/limits/mainBore/source']));
    const patched = await server.call('PATCH', `/api/jobs/${job.id}`, {
      version: 1,
      by: 'Wren',
      steps: [{ op: 'add', path: '/layout/thrustMain', value: 9 }],
    });
    expect(patched.body).toMatchObject({ status: 422, errors: [{ path: '/layout/thrustMain' }] });
    expect(patched.body.detail).toContain('the engine has 3 mains');
  });

  it('refuses to accept halves that are not there', async () => {
    const job = await startJob();
    const shell = { family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, stock: 1, line: null };
    const halfChosen = { shell: 'teal', label: 'Teal either (A)', wall: 2_000_000 };
    const choice = {
      at: '2026-01-02T03:04:05.000Z',
      by: 'Wren',
      stations: { M1: { upper: halfChosen, lower: halfChosen, predicted: 40_000 } },
    };
    const steps = (stock: number) => [
      { op: 'add', path: '/shells/teal', value: { ...shell, stock } },
      { op: 'add', path: '/choice', value: choice },
    ];
    const refused = await server.call('PATCH', `/api/jobs/${job.id}`, { version: 1, by: 'Wren', steps: steps(1) });
    expect(refused.body.errors[0]).toMatchObject({ path: '/choice/stations/M1/lower/shell' });
    expect(
      (await server.call('PATCH', `/api/jobs/${job.id}`, { version: 1, by: 'Wren', steps: steps(2) })).status,
    ).toBe(200);
  });

  it('deletes recoverably', async () => {
    const job = await startJob('Rush Twin to delete');
    expect((await server.call('DELETE', `/api/jobs/${job.id}?version=1&by=Wren`)).status).toBe(200);
    const names = async (query: string) =>
      (await server.call('GET', `/api/jobs${query}`)).body.jobs.map((row: unknown) => jobSummarySchema.parse(row).name);
    expect(await names('')).not.toContain('Rush Twin to delete');
    expect(await names('?deleted=true')).toContain('Rush Twin to delete');
    expect((await server.call('PATCH', `/api/jobs/${job.id}`, rename(2, 'x'))).status).toBe(404);
    await server.call('POST', `/api/jobs/${job.id}/restore`, { version: 2, by: 'Wren' });
    expect(await names('')).toContain('Rush Twin to delete');
  });

  it('tells a reader that nothing changed', async () => {
    const job = await startJob();
    const etag = (await server.call('GET', `/api/jobs/${job.id}`)).headers.get('etag') ?? '';
    expect((await server.call('GET', `/api/jobs/${job.id}`, undefined, { 'if-none-match': etag })).status).toBe(304);
    await server.call('PUT', `/api/jobs/${job.id}/readings/${randomUUID()}`, draft('64.01'));
    expect((await server.call('GET', `/api/jobs/${job.id}`, undefined, { 'if-none-match': etag })).status).toBe(200);
  });
});

describe('the list of the engines', () => {
  it('holds those at a stage, or last touched by somebody, and names who has', async () => {
    const job = await startJob('Burr 2 to be found');
    await server.call('PATCH', `/api/jobs/${job.id}`, { ...rename(1, 'Burr 2 found'), by: 'Sorrel' });
    const names = async (query: string) =>
      (await server.call('GET', `/api/jobs?${query}`)).body.jobs.map(({ name }: { name: string }) => name);
    expect(await names('person=Sorrel')).toEqual(['Burr 2 found']);
    expect(await names('person=Nobody at all')).toEqual([]);
    expect(await names('person=Sorrel&stage=data')).toEqual(['Burr 2 found']);
    expect(await names('person=Sorrel&stage=sheet')).toEqual([]);
    expect((await server.call('GET', '/api/jobs')).body.people).toContain('Sorrel');
    expect((await server.call('GET', '/api/jobs?stage=lunch')).status).toBe(422);
  });
});

describe('readings', () => {
  it('saves one by one and idempotently, as typed and as a size', async () => {
    const job = await startJob();
    const id = randomUUID();
    const path = `/api/jobs/${job.id}/readings/${id}`;
    expect(await server.call('PUT', path, draft('64,012'))).toMatchObject({
      status: 201,
      body: { text: '64,012', nm: 64_012_000 },
    });
    expect((await server.call('PUT', path, draft('64,012'))).status).toBe(200);
    expect((await server.call('PUT', path, draft('64.013'))).body).toMatchObject({
      status: 409,
      type: '/api/docs#id-in-use',
    });
    const { body } = await server.call('GET', `/api/jobs/${job.id}`);
    expect(jobViewSchema.parse(body).readings).toHaveLength(1);
  });

  it('answers what it stores for every way of reading: a deviation with the needle to “smaller” too', async () => {
    const job = await startJob();
    const texts = ['64.012', '+2.5', '-2.5', '2.52', '+0.025 mm', '0', '64.o12', ''];
    const ways = texts.flatMap((text) =>
      (['mm', 'in'] as const).flatMap((unit) =>
        ([null, 64_000_000] as const).flatMap((setting) =>
          (['bigger', 'smaller', undefined] as const).map((needle) => ({ text, unit, setting, needle })),
        ),
      ),
    );
    let replaces: string | null = null;
    for (const { needle, ...typed } of ways) {
      const id = randomUUID();
      const taken = {
        instrument: 'gauge 7',
        celsius: 21.5,
        gaugeCelsius: null,
        mode: 'setting',
        reason: '',
        confirmed: true,
      };
      const body = { ...draft(typed.text, replaces), ...typed, ...(needle ? { taken: { ...taken, needle } } : {}) };
      const answer: { status: number; body: unknown } = await server.call(
        'PUT',
        `/api/jobs/${job.id}/readings/${id}`,
        body,
      );
      expect(answer.status, JSON.stringify(body)).toBe(201);
      const view = jobViewSchema.parse((await server.call('GET', `/api/jobs/${job.id}`)).body);
      expect(view.readings, JSON.stringify(body)).toEqual([answer.body]);
      replaces = id;
    }
    // By hand: 64.000 − 0.025.
    const id = randomUUID();
    const smaller = {
      ...draft('+2.5', replaces),
      setting: 64_000_000,
      taken: { instrument: '', needle: 'smaller', celsius: null, gaugeCelsius: null, reason: '' },
    };
    expect((await server.call('PUT', `/api/jobs/${job.id}/readings/${id}`, smaller)).body).toMatchObject({
      nm: 63_975_000,
    });
  });

  it('keeps what is no size as it was typed', async () => {
    const job = await startJob();
    const kept = await server.call('PUT', `/api/jobs/${job.id}/readings/${randomUUID()}`, draft('64.o12'));
    expect(kept.body).toMatchObject({ text: '64.o12', nm: null });
  });

  it('refuses a correction of what is no longer there, and keeps the history', async () => {
    const job = await startJob();
    const [first, second] = [randomUUID(), randomUUID()];
    const save = (id: string, body: unknown) => server.call('PUT', `/api/jobs/${job.id}/readings/${id}`, body);
    await save(first, draft('64.012'));
    const blind = await save(randomUUID(), draft('64.020'));
    expect(blind).toMatchObject({ status: 409, body: { current: { id: first, text: '64.012' } } });
    expect((await save(second, draft('64.013', first))).status).toBe(201);
    expect((await save(randomUUID(), draft('64.099', first))).body.current).toMatchObject({ id: second });
    const { body } = await server.call('GET', `/api/jobs/${job.id}/history`);
    expect(body.entries.map(({ kind }: JobChange) => kind)).toEqual(['read', 'read', 'created']);
    expect(body.entries[0]).toMatchObject({
      by: 'Teasel',
      version: null,
      reading: { feature: 'mainBore', station: 1, slot: 'front', from: '64.012', to: '64.013' },
    });
  });

  it('lets one of two readings for the same place win when they come at once', async () => {
    const job = await startJob();
    const answers = await Promise.all(
      ['64.01', '64.02', '64.03'].map((text) =>
        server.call('PUT', `/api/jobs/${job.id}/readings/${randomUUID()}`, draft(text)),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
  });

  it('refuses a main that the engine does not have', async () => {
    const job = await startJob();
    const path = `/api/jobs/${job.id}/readings/${randomUUID()}`;
    const station = await server.call('PUT', path, { ...draft('64.012'), station: 4 });
    expect(station.body).toMatchObject({ status: 422, errors: [{ path: '/station' }] });
    // Rods are counted by themselves: a V has more of them than mains.
    const usual = usualLayout(3, 4, 2, 2);
    if (!usual.ok) throw new Error(usual.message);
    const vee = randomUUID();
    const made = { ...startedEngine('Rush Twin in V'), layout: usual.layout, withRods: true };
    await server.call('POST', '/api/jobs', { id: vee, by: 'Wren', document: made });
    const rod = (number: number) =>
      server.call('PUT', `/api/jobs/${vee}/readings/${randomUUID()}`, {
        ...draft('51.002'),
        feature: 'bigEnd',
        station: number,
      });
    expect((await rod(4)).status).toBe(201);
    expect((await rod(5)).body.detail).toContain('there is no rod 5');
    const slot = await server.call('PUT', path, { ...draft('64.012'), slot: 'front-0' });
    expect(slot.body).toMatchObject({ status: 422, errors: [{ path: '/slot' }] });
  });
});

describe('a change of fasteners', () => {
  it('tells by how much bores have moved that were read before and after it', async () => {
    const id = randomUUID();
    const blank = startedEngine('Sedge 4 with studs');
    const studs = { ...blank.fasteners.main, kind: 'other' as const, name: 'studs', since: '2026-03-01T00:00:00.000Z' };
    const job = { ...blank, fasteners: { ...blank.fasteners, main: studs } };
    await server.call('POST', '/api/jobs', { id, by: 'Wren', document: job });
    const read = async (station: number, text: string, day: string, replaces: string | null) => {
      const reading = randomUUID();
      const body = { ...draft(text, replaces), station, at: `${day}T08:00:00.000Z` };
      expect((await server.call('PUT', `/api/jobs/${id}/readings/${reading}`, body)).status).toBe(201);
      return reading;
    };
    const first = await read(1, '64.010', '2026-02-03', null);
    const second = await read(2, '64.012', '2026-02-03', null);
    await read(3, '64.011', '2026-02-03', null);
    const own = async () => (await server.call('GET', '/api/fasteners/moves')).body.moves;
    expect(await own()).toEqual([]);
    await read(1, '64.006', '2026-03-02', first);
    await read(2, '64.010', '2026-03-02', second);
    expect(await own()).toEqual([
      {
        engine: 'Sedge 4 with studs',
        family: 'main',
        fasteners: 'studs',
        since: '2026-03-01T00:00:00.000Z',
        bores: 2,
        mean: -3000,
        most: 4000,
      },
    ]);
  });
});

describe('fit', () => {
  const request = {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: [{ id: 'M1', family: 'main', journal: 59.981, aim: 0.04, low: 0.025, high: 0.06 }],
    housings: [{ id: 'B1', family: 'main', bore: 64.012, station: 'M1' }],
    shells: [{ id: 'plain', family: 'main', series: 'A', half: 'either', wall: 1.995, stock: 2 }],
  };

  it('answers with a plan from a worker thread', async () => {
    const { status, body } = await server.call('POST', '/api/fit', request);
    // By hand: 64.012 − 59.981 − 2 × 1.995 = 0.041.
    expect({ status, clearance: body.stations[0].clearance }).toEqual({ status: 200, clearance: 0.041 });
  });

  it('names the path and the reason of a bad request', async () => {
    const { body } = await server.call('POST', '/api/fit', {
      ...request,
      stations: [{ ...request.stations[0], journal: 'big' }],
    });
    expect(body).toMatchObject({ status: 422, errors: [{ path: '/stations/0/journal' }] });
  });
});

describe('the edge', () => {
  it('is healthy, strict and plain about errors', async () => {
    const health = await server.call('GET', '/api/health');
    expect(health).toMatchObject({ status: 200, body: { status: 'ok' } });
    const policy = health.headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy.replace("'wasm-unsafe-eval'", '')).not.toContain('unsafe');
    expect(await server.call('POST', '/api/jobs', '{"id":')).toMatchObject({
      status: 400,
      body: { type: '/api/docs#not-json' },
    });
    expect(await server.call('POST', '/api/jobs', 'x', { 'content-type': 'text/plain' })).toMatchObject({
      status: 400,
    });
    expect((await server.call('POST', '/api/jobs', { id: 'x'.repeat(3_000_000) })).status).toBe(413);
    expect((await server.call('GET', '/api/nothing')).status).toBe(404);
    expect((await server.call('GET', '/api/jobs/not-a-uuid')).body.errors[0].path).toBe('/id');
    expect((await server.call('GET', `/api/jobs/${randomUUID()}`)).status).toBe(404);
  });

  it('answers what cannot be read or stored with what is wrong, never with a fault of its own', async () => {
    const raw = (path: string, headers: Record<string, string>, body: Uint8Array<ArrayBuffer> | string) =>
      fetch(server.origin + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body,
      });
    expect((await server.call('GET', '/api/jobs/%E0%A4%A')).status).toBe(400);
    expect((await server.call('GET', '/%')).status).toBeLessThan(500);
    expect((await server.call('GET', '/api/types?words=%00')).body.errors[0].path).toBe('/words');
    expect((await raw('/api/jobs', { 'content-type': 'application/json; charset=koi8-r' }, '{}')).status).toBe(415);
    expect((await raw('/api/jobs', { 'content-encoding': 'x-fettle' }, '{}')).status).toBe(415);
    const brokenGzip = new Uint8Array([0x1f, 0x8b, 8, 0, 1, 2, 3]);
    expect((await raw('/api/jobs', { 'content-encoding': 'gzip' }, brokenGzip)).status).toBe(400);
    for (const depth of [200, 20_000]) {
      const deep = await server.call('POST', '/api/fit', `${'['.repeat(depth)}${']'.repeat(depth)}`);
      expect(deep.status).toBe(422);
      expect(deep.body.detail).toContain('nested');
    }
  });

  it('names the place of text that PostgreSQL cannot hold', async () => {
    for (const name of ['Reed\u0000 6', 'Reed 6 \ud83d']) {
      const body = { id: randomUUID(), by: 'Wren', document: { ...startedEngine(), name } };
      const { status, body: problem } = await server.call('POST', '/api/jobs', body);
      expect([status, problem.errors[0].path]).toEqual([422, '/document/name']);
    }
    const whole = { id: randomUUID(), by: 'Wren', document: { ...startedEngine(), name: 'Reed 6 🛠' } };
    expect((await server.call('POST', '/api/jobs', whole)).status).toBe(201);
  });

  it('takes an id in capitals for the same one, also where many are locked at once', async () => {
    const { body: one } = await server.call('POST', '/api/jobs', {
      id: randomUUID(),
      by: 'Wren',
      document: startedEngine(),
    });
    const found = await server.call('GET', `/api/jobs/${one.id.toUpperCase()}`);
    expect([found.status, found.body.id]).toEqual([200, one.id]);
    const lines = [randomUUID(), randomUUID()].sort();
    const half = { family: 'main', series: 'A', grade: 'teal', half: 'upper', wall: 1_995_000, onHand: 4 };
    const put = (ids: string[]) =>
      server.call('POST', '/api/drawer/move', {
        by: 'Wren',
        kind: 'receive',
        note: '',
        changes: ids.map((id) => ({ id, version: 0, half })),
      });
    const answers = await Promise.all([
      put(lines),
      put([lines[1]!.toUpperCase(), lines[0]!.toUpperCase()]),
      put([lines[0]!.toUpperCase(), lines[1]!]),
    ]);
    expect(answers.every(({ status }) => status < 500)).toBe(true);
  });

  it('describes every operation from the schemas', async () => {
    const { body } = await server.call('GET', '/api/docs/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    expect(Object.keys(body.paths)).toEqual(expect.arrayContaining(['/api/health', '/api/jobs/{id}', '/api/fit']));
    expect(body.paths['/api/jobs/{id}'].patch.requestBody.content['application/json'].schema.required).toContain(
      'version',
    );
    expect((await server.call('GET', '/api/docs')).body).toContain('id="stale-version"');
  });
});

describe('a change to what somebody took away', () => {
  it('is refused with the place, and brings nothing back in part', async () => {
    const { body: job } = await server.call('POST', '/api/jobs', {
      id: randomUUID(),
      by: 'Wren',
      document: startedEngine(),
    });
    const steps = [{ op: 'add', path: '/shells/gone/wall', value: 1_995_000 }];
    const answer = await server.call('PATCH', `/api/jobs/${job.id}`, { version: job.version, by: 'Wren', steps });
    expect([answer.status, answer.body.errors[0].path]).toEqual([422, '/shells/gone/wall']);
  });
});

describe('the demo', () => {
  it('is loaded whole or not at all', async () => {
    const fresh = await runningServer();
    try {
      // The last of it does not go in: nothing of what went before stays.
      await fresh.database.query(
        `CREATE FUNCTION refuse() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
           IF (SELECT count(*) FROM reading) > 40 THEN RAISE EXCEPTION 'cut off'; END IF; RETURN NEW; END $$`,
      );
      await fresh.database.query('CREATE TRIGGER cut BEFORE INSERT ON reading FOR EACH ROW EXECUTE FUNCTION refuse()');
      await expect(loadDemo(fresh.database, fresh.log)).rejects.toThrow('cut off');
      expect((await fresh.call('GET', '/api/jobs')).body.jobs).toEqual([]);
      expect((await fresh.call('GET', '/api/drawer')).body).toEqual([]);
      await fresh.database.query('DROP TRIGGER cut ON reading');
      await loadDemo(fresh.database, fresh.log);
      expect((await fresh.call('GET', '/api/jobs')).body.jobs).toHaveLength(12);
    } finally {
      await fresh.close();
    }
  });

  it('is loaded once, into an empty database only', async () => {
    const fresh = await runningServer();
    try {
      await loadDemo(fresh.database, fresh.log);
      await loadDemo(fresh.database, fresh.log);
      const { body } = await fresh.call('GET', '/api/jobs');
      expect(body.jobs.map((row: { name: string }) => row.name).sort()).toEqual([
        'Burr 2 · no. 0009',
        'Reed 6 · no. 0105',
        'Reed 6 · no. 0112',
        'Rush Twin · no. 0301',
        'Rush Twin · no. 0302',
        'Rush Twin · no. 0303',
        'Samphire 8 · no. 0046',
        'Sedge 4 · no. 0101, third build',
        'Sedge 4 · no. 0217',
        'Sedge 4 · no. 0226',
        'Sedge 4 · no. 0233',
        'Sedge 4 · no. 0241',
      ]);
    } finally {
      await fresh.close();
    }
  });
});

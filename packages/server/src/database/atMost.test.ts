import { randomUUID } from 'node:crypto';
import { newEngineType, newJob, usualLayout } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DeviceService } from '../access/deviceService.js';
import { runningServer } from '../testing/runningServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

const by = 'Wren';
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const { layout } = usual;
const half = { family: 'main', series: 'Osier', grade: 'Teal', half: 'either', wall: 2_000_000 };

const fill = (sql: string, values: readonly unknown[] = []) => server.database.manager.query(sql, [...values]);
const count = async (table: string): Promise<number> =>
  Number((await fill(`SELECT count(*) FROM "${table}"`))[0].count);

describe('what is told as one list has a limit, and what would go over it is refused whole', () => {
  it('kinds in the drawer', async () => {
    await fill(
      `INSERT INTO "drawer_line" ("id", "version", "item", "updated_at", "updated_by")
       SELECT gen_random_uuid(), 1, jsonb_set($1::jsonb, '{grade}', to_jsonb('Teal ' || at)), now(), 'Wren'
       FROM generate_series(1, 4999) AS at`,
      [JSON.stringify({ ...half, onHand: 1 })],
    );
    const move = (grade: string) =>
      server.call('POST', '/api/drawer/move', {
        ...{ by, kind: 'receive', note: '' },
        changes: [{ id: randomUUID(), version: 0, half: { ...half, grade, onHand: 1 } }],
      });
    const what = 'stock limit (5000 kinds) reached; remove unused ones first';
    // At the same moment, too.
    const [one, other] = (await Promise.all([move('Fern'), move('Kelp')])).sort((a, b) => a.status - b.status);
    expect(one!.status).toBe(200);
    expect([other!.status, other!.body.errors]).toEqual([422, [{ path: '/changes', message: what }]]);
    expect(await count('drawer_line')).toBe(5000);
    // What was taken out comes back only where there is room.
    const [{ id }] = await fill(`SELECT "id" FROM "drawer_line" WHERE "item"->>'grade' = 'Teal 7'`);
    const out = { by, kind: 'remove', note: '', changes: [{ id, version: 1, half: null }] };
    expect((await server.call('POST', '/api/drawer/move', out)).status).toBe(200);
    expect((await move('Rush')).status).toBe(200);
    const [{ movement }] = await fill(`SELECT "id" AS "movement" FROM "drawer_movement" WHERE "kind" = 'remove'`);
    const back = await server.call('POST', `/api/drawer/undo/${movement}`, { by });
    expect([back.status, back.body.errors]).toEqual([422, [{ path: '', message: what }]]);
    expect(await count('drawer_line')).toBe(5000);
    expect((await server.call('GET', '/api/drawer')).body).toHaveLength(5000);
  });

  it('kits', async () => {
    const kit = { name: 'Rush', note: '', halves: [{ ...half, count: 6 }] };
    await fill(
      `INSERT INTO "kit" ("id", "version", "kit", "updated_at", "updated_by")
       SELECT gen_random_uuid(), 1, $1::jsonb, now(), 'Wren' FROM generate_series(1, 199)`,
      [JSON.stringify(kit)],
    );
    const put = (id: string, version = 0) => server.call('PUT', `/api/drawer/kits/${id}`, { version, by, kit });
    const last = randomUUID();
    expect((await put(last)).status).toBe(201);
    const { status, body } = await put(randomUUID());
    expect([status, body.errors[0].path]).toEqual([422, '/kit']);
    expect((await put(last, 1)).status).toBe(200);
    expect(await count('kit')).toBe(200);
  });

  it('engine types', async () => {
    const put = (id: string, revision = 0) =>
      server.call('PUT', `/api/types/${id}`, { revision, by, type: newEngineType('Rush Twin', 'mm', layout) });
    await fill(
      `INSERT INTO "engine_type" ("id", "revision", "archived_at")
       SELECT gen_random_uuid(), 1, now() FROM generate_series(1, 4999)`,
    );
    const last = randomUUID();
    expect((await put(last)).status).toBe(201);
    const { status, body } = await put(randomUUID());
    expect([status, body.errors[0].path]).toEqual([422, '/type']);
    expect((await put(last, 1)).status).toBe(200);
    expect(await count('engine_type')).toBe(5000);
  });

  it('signed sheets of an engine', async () => {
    const id = randomUUID();
    const document = newJob('Rush Twin', 'mm', layout, { block: 'iron', caps: 'iron', rods: 'steel' });
    const { body: job } = await server.call('POST', '/api/jobs', { id, by, document });
    await fill(
      `INSERT INTO "signed_sheet" ("job_id", "revision", "signed_at", "signed_by", "reason", "open", "sheet", "hash")
       SELECT $1, at, now(), 'Wren', 'again', '[]', '{}', md5(at::text) || md5(at::text) FROM generate_series(1, 500) AS at`,
      [id],
    );
    const { status, body } = await server.call('POST', `/api/jobs/${id}/sheets`, {
      ...{ by, seen: job.revision, revision: 501, reason: 'once more' },
    });
    expect([status, body.errors]).toEqual([
      422,
      [{ path: '/revision', message: 'an engine is signed at most 500 times' }],
    ]);
    expect((await server.call('GET', `/api/jobs/${id}/sheets`)).body).toHaveLength(500);
  });
});

it('ends a page of the drawer’s history where it holds too much, and goes on with the next', async () => {
  const words = (at: number) => Array.from({ length: 600 }, (_, word) => `${at * 7919 + word * 104_729}`).join(' ');
  for (let at = 0; at < 60; at += 1) {
    await fill(
      `INSERT INTO "drawer_movement" ("id", "at", "by", "kind", "note", "changes")
       VALUES (gen_random_uuid(), now() + make_interval(secs => $1), 'Wren', 'count', $2, $3::jsonb)`,
      [
        at,
        `told ${at}`,
        JSON.stringify([
          { line: randomUUID(), before: null, after: { ...half, onHand: 1, location: words(at), note: words(at + 1) } },
        ]),
      ],
    );
  }
  const told: string[] = [];
  let pages = 0;
  let after: string | null = '';
  while (after !== null && pages < 60) {
    const from: string = after === '' ? '' : `&after=${encodeURIComponent(after)}`;
    const response = await fetch(`${server.origin}/api/drawer/history?most=50${from}`);
    const page = (await response.json()) as { entries: { note: string }[]; goesOn: string | null };
    told.push(...page.entries.map(({ note }) => note).filter((note) => note.startsWith('told')));
    after = page.goesOn;
    pages += 1;
  }
  expect(told).toEqual(Array.from({ length: 60 }, (_, at) => `told ${59 - at}`));
  expect(pages).toBeGreaterThan(2);
});

// From here on one has to sign in.
it('has at most so many accounts', async () => {
  await fill(
    `INSERT INTO "person" ("id", "name", "name_key", "role", "password", "must_change", "created_at", "created_by", "sessions_from")
     SELECT gen_random_uuid(), 'Teasel ' || at, 'teasel ' || at, 'fitter', '', false, now(), 'Wren', now()
     FROM generate_series(1, 500) AS at`,
  );
  await expect(server.app.people.add('Sorrel', 'fitter', by)).rejects.toThrow('account limit (500) reached');
  expect(await count('person')).toBe(500);
});

it('lets in at most so many devices; of those that were let in, the last ones are told', async () => {
  const devices = new DeviceService(server.database);
  await fill(
    `INSERT INTO "device" ("id", "name", "token", "let_in_at", "let_in_by", "seen_at", "revoked_at")
     SELECT gen_random_uuid(), 'Phone ' || at, 'token ' || at, now(), 'Wren', now(), CASE WHEN at > 199 THEN now() END
     FROM generate_series(1, 600) AS at`,
  );
  const letIn = async () => devices.letIn((await devices.invite(by, '/', null)).code, 'Tablet');
  await letIn();
  await expect(letIn()).rejects.toThrow('Device limit (200) reached');
  const told = await devices.list(null);
  expect([told.length, told.filter(({ revokedAt }) => revokedAt === null).length]).toEqual([400, 200]);
  await devices.revoke(told.find(({ revokedAt }) => revokedAt === null)!.id, null);
  expect((await letIn()).device.name).toBe('Tablet');
});

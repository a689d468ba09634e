import { randomUUID } from 'node:crypto';
import { ENDPOINTS, type EngineType, newEngineType, usualLayout } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
});
afterAll(() => server.close());

function sheet(name: string, parts: Partial<EngineType> = {}): EngineType {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  return { ...newEngineType(name, 'mm', usual.layout), ...parts };
}

const put = (id: string, revision: number, type: unknown) =>
  server.call('PUT', `/api/types/${id}`, { revision, by: 'Wren', type });

async function list(query = '') {
  const { body } = await server.call('GET', `/api/types${query}`);
  return ENDPOINTS.listTypes.answer.parse(body).types;
}

describe('the library of engine types', () => {
  it('keeps every revision, and tells a stale one', async () => {
    const id = randomUUID();
    expect((await put(id, 0, sheet('Rush Twin'))).status).toBe(201);
    expect((await put(id, 1, sheet('Rush Twin', { note: 'second' }))).status).toBe(200);
    const stale = await put(id, 1, sheet('Rush Twin', { note: 'late' }));
    expect([stale.status, stale.body.detail]).toEqual([
      409,
      'Wren has made revision 2; this change was made from revision 1.',
    ]);
    expect(ENDPOINTS.getType.answer.parse(stale.body.current)).toMatchObject({ revision: 2, type: { note: 'second' } });
    const { body } = await server.call('GET', `/api/types/${id}/revisions`);
    const told = ({ revision, type }: { revision: number; type: EngineType }) => [revision, type.note];
    expect(body.revisions.map(told)).toEqual([
      [2, 'second'],
      [1, ''],
    ]);
    expect([body.before, body.goesOn]).toEqual([null, null]);
    const { body: first } = await server.call('GET', `/api/types/${id}/revisions?most=1`);
    expect([first.revisions.map(told), told(first.before), first.goesOn]).toEqual([[[2, 'second']], [1, ''], '2']);
    const { body: next } = await server.call('GET', `/api/types/${id}/revisions?most=1&after=${first.goesOn}`);
    expect([next.revisions.map(told), next.before, next.goesOn]).toEqual([[[1, '']], null, null]);
    const odd = await server.call('GET', `/api/types/${id}/revisions?after=second`);
    expect([odd.status, odd.body.errors[0].path]).toEqual([422, '/after']);
  });

  it('is searched in everything that a sheet says, and archives without losing', async () => {
    const id = randomUUID();
    const torque = [
      {
        fastener: 'Main caps',
        steps: '25 · 48 N·m',
        place: 'main-inner' as const,
        perCap: 2,
        tightening: null,
        lubricant: 'oil',
        source: 'Sedge book, p. 40',
      },
    ];
    await put(id, 0, sheet('Sedge 4', { torque }));
    const [found, ...others] = await list('?words=caps%20sedge');
    expect(others).toEqual([]);
    expect(found).toMatchObject({ id, name: 'Sedge 4', found: expect.arrayContaining(['Name: Sedge 4']) });
    expect(await list('?words=nothing%20like%20it')).toEqual([]);
    await server.call('POST', `/api/types/${id}/archive`, { by: 'Wren', archived: true });
    expect((await list()).map((one) => one.id)).not.toContain(id);
    expect((await list('?archived=true')).map((one) => one.id)).toContain(id);
    await server.call('POST', `/api/types/${id}/archive`, { by: 'Wren', archived: false });
    expect((await list()).map((one) => one.id)).toContain(id);
  });

  it('is told page by page, by the alphabet', async () => {
    const names = ['Éclair of Saltmarsh', 'Zephyr of Saltmarsh', 'alpha of Saltmarsh', 'Beta of Saltmarsh'];
    for (const name of names) await put(randomUUID(), 0, sheet(name));
    const told: string[] = [];
    let after = '';
    do {
      const { body } = await server.call('GET', `/api/types?words=of%20saltmarsh&most=3${after}`);
      told.push(...body.types.map(({ name }: { name: string }) => name));
      after = body.goesOn === null ? '' : `&after=${body.goesOn}`;
    } while (after !== '');
    expect(told).toEqual([...names].sort((one, other) => one.localeCompare(other, 'en')));
  });

  it('refuses a sheet with a fault and names its place', async () => {
    const answer = await put(randomUUID(), 0, {
      ...sheet('Reed 6'),
      main: { housing: [{ mark: 'A', low: 64_006_000, high: 64_000_000 }] },
      torque: [{ fastener: 'Caps', steps: '50', source: '' }],
    });
    expect(answer.status).toBe(422);
    expect(answer.body.errors.map(({ path }: { path: string }) => path).sort()).toEqual([
      '/type/main/housing/0/low',
      '/type/torque/0/source',
    ]);
    expect((await server.call('GET', `/api/types/${randomUUID()}`)).status).toBe(404);
  });
});

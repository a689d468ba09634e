import { randomUUID } from 'node:crypto';
import { ENDPOINTS, type EndpointName, endpointOf, newEngineType } from '@fettle/core';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LAYOUT, READING, startedEngine } from '../testing/samples.js';
import { OWNER, signedInServer, type Visitor, type Workshop } from '../testing/signedInServer.js';

/** Requests in all; more by hand: FETTLE_FUZZ=200000. */
const REQUESTS = Number(process.env.FETTLE_FUZZ ?? 20_000);
const AT_ONCE = 8;
/** What a search is asked is worked on for a while: of those there are fewer. */
const SEARCHES: readonly EndpointName[] = ['fit', 'shims', 'sheetPdf', 'signedPdf', 'reportPdf'];
/** Each of these costs a hash that is made to be slow, or ends the session that asks. */
const SLOW: readonly EndpointName[] = [
  'signIn',
  'makeOwner',
  'changePassword',
  'setPin',
  'confirmPassword',
  'addPerson',
  'resetPerson',
  'signOut',
  'changePerson',
];

let workshop: Workshop;
beforeAll(async () => {
  workshop = await signedInServer();
});
afterAll(() => workshop.close());

const document = startedEngine();
const type = newEngineType('Rush Twin', 'mm', LAYOUT);
const half = { family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, onHand: 6 };
const ids = Array.from({ length: 6 }, () => randomUUID());

/** Bodies that are good, to be spoilt. */
const GOOD: Partial<Record<EndpointName, unknown>> = {
  createJob: { id: ids[0], document },
  patchJob: { version: 1, steps: [{ op: 'add', path: '/name', value: 'Rush Twin B' }] },
  restoreJob: { version: 1 },
  putReading: READING,
  moveDrawer: { kind: 'receive', note: '', changes: [{ id: ids[1], version: 0, half }] },
  putKit: { version: 0, kit: { name: 'Kit', note: '', halves: [{ ...half, onHand: undefined, count: 2 }] } },
  acceptTogether: {
    jobs: [{ id: ids[0], version: 1, choice: { at: '2026-01-02T03:04:05.000Z', by: 'W', stations: {} } }],
  },
  setFitted: { fitted: true },
  undoMovement: {},
  putType: { revision: 0, type },
  archiveType: { archived: true },
  signSheet: { seen: 1, revision: 1 },
  putPhoto: { type: 'image/png', data: 'AAAA' },
  inviteDevice: { to: '/' },
  letIn: { code: 'x', name: 'Phone' },
  sayWhere: { tab: 'tab-of-a-test', engine: null, stage: null, part: 'M3' },
  fit: {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: [{ id: 'M1', family: 'main', journal: 59.981, aim: 0.04, low: 0.02, high: 0.06 }],
    housings: [{ id: 'B1', family: 'main', bore: 64.012 }],
    shells: [{ id: 'teal', family: 'main', series: 'A', half: 'either', wall: 1.995, stock: 4 }],
  },
  shims: {
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'ring-shims',
    low: 0.07,
    high: 0.15,
    aim: 0.1,
    gap: 0.58,
    counts: [2],
    pieces: [{ id: 'A', thickness: 0.24, stock: 2 }],
  },
};

/** Values that trip up what reads them. */
const odd: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(
    null,
    '',
    0,
    -1,
    1e308,
    -0,
    2 ** 53,
    '\u0000',
    '\ud800',
    '=1+1',
    '../..',
    '__proto__',
    'constructor',
    '0000-01-01',
    '0000-01-01T00:00:00.000Z',
    '9999-12-31T23:59:59.999Z',
    '-000001-01-01T00:00:00.000Z~x',
    '+275760-09-13T00:00:00.000Z~x',
    'infinity',
    '//elsewhere',
    '/\\elsewhere',
    [],
    {},
    true,
    'x'.repeat(5000),
  ),
  fc.integer(),
  fc.double({ noNaN: true }),
  fc.string({ unit: 'binary' }),
  fc.jsonValue({ maxDepth: 3 }),
);

interface Seeded {
  /** A whole number from one to another, both included. */
  nextInt(from: number, to: number): number;
}

/** Numbers that are the same in every run (mulberry32). */
function seeded(seed: number): Seeded {
  let state = seed;
  return {
    nextInt: (from, to) => {
      state = (state + 0x6d2b79f5) | 0;
      let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
      mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
      return from + (((mixed ^ (mixed >>> 14)) >>> 0) % (to - from + 1));
    },
  };
}

/** A good value with one place of it replaced, taken out, or grown. */
function spoilt(value: unknown, seed: Seeded, next: () => unknown): unknown {
  if (typeof value !== 'object' || value === null || seed.nextInt(0, 3) === 0) return next();
  const copy = structuredClone(value) as Record<string, unknown>;
  const keys = Object.keys(copy);
  if (keys.length === 0) return next();
  const key = keys[seed.nextInt(0, keys.length - 1)]!;
  const what = seed.nextInt(0, 9);
  if (what === 0) delete copy[key];
  else if (what === 1 && Array.isArray(copy)) copy.push(next());
  else if (what === 1) copy[String(next())] = next();
  else copy[key] = spoilt(copy[key], seed, next);
  return copy;
}

interface Shot {
  readonly name: EndpointName;
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** Requests by a seed, each endpoint in turn: half of the bodies are good ones spoilt, a quarter anything, a quarter good. */
function* shots(count: number, seed: number): Generator<Shot> {
  const names = (Object.keys(ENDPOINTS) as EndpointName[]).filter((name) => !SLOW.includes(name));
  const random = seeded(seed);
  const odds = fc.sample(odd, { seed, numRuns: 4000 });
  const next = () => odds[random.nextInt(0, odds.length - 1)];
  for (let at = 0; at < count; at += 1) {
    const name = names[at % names.length]!;
    if (SEARCHES.includes(name) && random.nextInt(0, 9) > 0) continue;
    const { method, at: address, query } = endpointOf(name);
    const part = () =>
      random.nextInt(0, 2) > 0
        ? ids[random.nextInt(0, 5)]!
        : encodeURIComponent(
            String(next())
              .slice(0, 200)
              .replaceAll(/\p{Cs}/gu, ''),
          ) || 'x';
    const asked = Object.keys(query.shape)
      .filter(() => random.nextInt(0, 1) === 0)
      .map(
        (key) =>
          `${key}=${encodeURIComponent(
            String(next())
              .slice(0, 300)
              .replaceAll(/\p{Cs}/gu, ''),
          )}`,
      );
    const path = address.replaceAll(/\{\w+\}/gu, part) + (asked.length > 0 ? `?${asked.join('&')}` : '');
    const good = GOOD[name];
    const how = random.nextInt(0, 3);
    const body = good === undefined ? undefined : how === 0 ? good : how === 1 ? next() : spoilt(good, random, next);
    yield { name, method: method.toUpperCase(), path, body };
  }
}

describe('every endpoint', () => {
  it(`answers whatever it is asked with what its description says, never that it failed (${REQUESTS} requests)`, async () => {
    const seed = 20_261_126;
    const counts = new Map<number, number>();
    const failures: string[] = [];
    const list = shots(REQUESTS, seed);
    const shoot = async (who: Visitor) => {
      for (const { name, method, path, body } of list) {
        try {
          const { status } = await who.ask(method, path, body);
          counts.set(status, (counts.get(status) ?? 0) + 1);
          if (status === 500) failures.push(`${name} ${method} ${path} ${JSON.stringify(body)?.slice(0, 300)}`);
        } catch (error) {
          // An answer that its description does not know.
          failures.push(
            `${name} ${method} ${path} ${JSON.stringify(body)?.slice(0, 300)}: ${(error as Error).message.slice(0, 200)}`,
          );
        }
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, () => shoot(workshop.owner.copy())));
    expect(failures.slice(0, 10)).toEqual([]);
    // The wrong codes before have locked this address for a while.
    await workshop.database.query('DELETE FROM wrong_try');
    // Not all of it was refused at the door.
    expect(counts.get(200) ?? 0).toBeGreaterThan(REQUESTS / 20);
    expect(counts.get(422) ?? 0).toBeGreaterThan(REQUESTS / 10);
    expect((await workshop.stranger().ask('POST', '/api/session', OWNER)).status).toBe(200);
  }, 600_000);
});

import { randomUUID } from 'node:crypto';
import { commonPin } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { OWNER, signedInServer, type Visitor, type Workshop } from '../testing/signedInServer.js';
import { tryPassword, tryPin } from './wrongTries.js';

let workshop: Workshop;
beforeAll(async () => {
  workshop = await signedInServer();
});
afterAll(() => workshop.close());

const OWN = 'a long one of my own';
const kindOf = ({ body }: { body: { type: string } }) => body.type.split('#')[1];

/** Somebody with a password of their own, and a PIN. */
async function withPin(role: 'owner' | 'fitter', pin = '2468') {
  const made = await workshop.added(role);
  await made.someone.ask('PUT', '/api/session/password', { current: made.password, password: OWN });
  expect((await made.someone.ask('PUT', '/api/session/pin', { current: OWN, pin })).status).toBe(200);
  return made;
}

/** A device that somebody let in. */
async function device(by: Visitor = workshop.owner): Promise<Visitor> {
  const { body } = await by.ask('POST', '/api/devices/invitations', { to: '/' });
  const visitor = workshop.stranger();
  const code = body.address.split('#')[1];
  expect((await visitor.ask('POST', '/api/devices', { code, name: 'Tablet' })).status).toBe(201);
  return visitor;
}

describe('tries at a secret', () => {
  it('are counted before they are judged: of 120 PINs at once five are looked at', async () => {
    const { id } = await withPin('fitter');
    const tablet = await device();
    const began = performance.now();
    const kinds = await Promise.all(
      Array.from({ length: 120 }, async (_, at) =>
        kindOf(await tablet.ask('POST', '/api/session', { person: id, pin: String(51_370 + 7 * at) })),
      ),
    );
    const judged = kinds.filter((kind) => kind === 'not-signed-in').length;
    // On a machine so slow that all of it takes longer than the first waits, 5 and 10 s, one more is free after each.
    const took = (performance.now() - began) / 1000;
    expect(judged).toBeGreaterThanOrEqual(5);
    expect(judged).toBeLessThanOrEqual(5 + [5, 15].filter((wait) => took > wait).length);
    expect(kinds.filter((kind) => kind === 'too-many')).toHaveLength(120 - judged);
    expect(kindOf(await tablet.ask('POST', '/api/session', { person: id, pin: '2468' }))).toBe('too-many');
  });

  it('at a PIN count for the account: eight devices give no more tries than one', async () => {
    const { someone, id } = await withPin('fitter');
    const devices = await Promise.all(Array.from({ length: 8 }, () => device(someone)));
    const kinds = [];
    for (const [at, one] of devices.entries()) {
      for (const pin of [3170 + at, 4280 + at]) {
        kinds.push(kindOf(await one.ask('POST', '/api/session', { person: id, pin: String(pin) })));
      }
    }
    expect(kinds.filter((kind) => kind === 'not-signed-in')).toHaveLength(5);
  });

  it('at PINs of many count for the device, and a right one between them takes back itself only', async () => {
    const own = await withPin('fitter');
    const tablet = await device();
    const [id] = [(await tablet.ask('GET', '/api/session')).body.device.id];
    for (let at = 0; at < 20; at += 1) await tryPin(workshop.database, randomUUID(), null, id);
    const held = await tablet.ask('POST', '/api/session', { person: own.id, pin: '2468' });
    expect(kindOf(held)).toBe('too-many');
  });

  it('by a stranger hold nobody up on a device that was let in, nor at another address', async () => {
    const { name } = await withPin('fitter');
    const tablet = await device();
    const kinds = [];
    for (let times = 0; times < 8; times += 1) {
      kinds.push(kindOf(await workshop.stranger().ask('POST', '/api/session', { name, password: 'wrong' })));
    }
    expect(kinds.slice(5)).toEqual(['too-many', 'too-many', 'too-many']);
    const people = (await workshop.owner.ask('GET', '/api/people')).body;
    expect(people.find((one: { name: string }) => one.name === name).lockedUntil).not.toBeNull();
    expect((await tablet.ask('POST', '/api/session', { name, password: OWN })).status).toBe(200);
    const elsewhere = { device: null, address: '192.0.2.9' };
    await (await tryPassword(workshop.database, name, elsewhere)).right();
  });

  it('from many addresses hold up strangers at that name, and only them', async () => {
    const { name } = await withPin('fitter');
    const tablet = await device();
    let judged = 0;
    for (let at = 0; at < 70; at += 1) {
      const place = { device: null, address: `198.51.100.${at}` };
      await tryPassword(workshop.database, name, place).then(
        () => (judged += 1),
        () => undefined,
      );
    }
    expect(judged).toBe(50);
    expect((await tablet.ask('POST', '/api/session', { name, password: OWN })).status).toBe(200);
  });
});

describe('an owner', () => {
  it('signs in by PIN only on a device that an owner let in, with the password just typed', async () => {
    const { someone: fitter } = await withPin('fitter');
    const { id, someone: owner } = await withPin('owner', '8642');
    const byFitter = await device(fitter);
    const told = (await byFitter.ask('GET', '/api/session')).body.people.map((one: { id: string }) => one.id);
    expect(told).not.toContain(id);
    expect(kindOf(await byFitter.ask('POST', '/api/session', { person: id, pin: '8642' }))).toBe('not-signed-in');
    const byOwner = await device(owner);
    expect((await byOwner.ask('POST', '/api/session', { person: id, pin: '8642' })).status).toBe(200);
    // By PIN alone, an owner lets in no device on which owners sign in by PIN.
    const third = await device(byOwner);
    expect(kindOf(await third.ask('POST', '/api/session', { person: id, pin: '8642' }))).toBe('not-signed-in');
  });

  it('does what owners alone may do only within a quarter of an hour of their password', async () => {
    const { id, someone } = await withPin('owner', '8642');
    const tablet = await device(someone);
    const { body } = await tablet.ask('POST', '/api/session', { person: id, pin: '8642' });
    expect(body.confirmedUntil).toBeNull();
    for (const [method, path, sent] of [
      ['GET', '/api/people', undefined],
      ['POST', '/api/people', { name: randomUUID(), role: 'owner' }],
      ['PATCH', `/api/people/${id}`, { role: 'owner' }],
      ['GET', '/api/audit', undefined],
      ['DELETE', `/api/devices/${randomUUID()}`, undefined],
    ] as const) {
      expect(kindOf(await tablet.ask(method, path, sent)), path).toBe('password-needed');
    }
    expect((await tablet.ask('GET', '/api/jobs')).status).toBe(200);
    expect(kindOf(await tablet.ask('POST', '/api/session/password', { password: 'wrong' }))).toBe('not-signed-in');
    const confirmed = await tablet.ask('POST', '/api/session/password', { password: OWN });
    expect(Date.parse(confirmed.body.confirmedUntil) - Date.now()).toBeGreaterThan(890_000);
    expect((await tablet.ask('GET', '/api/people')).status).toBe(200);
    // A quarter of an hour later.
    await workshop.database.query(
      `UPDATE "session" SET "sess" = jsonb_set("sess"::jsonb, '{confirmed}', to_jsonb(("sess"->>'confirmed')::float8 - 900001))
       WHERE "sess"->>'person' = $1`,
      [id],
    );
    expect(kindOf(await tablet.ask('GET', '/api/people'))).toBe('password-needed');
  });
});

describe('a PIN', () => {
  it('is none that everybody tries first', async () => {
    const { someone, id } = await withPin('fitter');
    for (const pin of ['0000', '1234', '4321', '7890', '1212', '123123', '98765432', '55555']) {
      const { status, body } = await someone.ask('PUT', '/api/session/pin', { current: OWN, pin });
      expect([pin, status, body.errors?.[0].path]).toEqual([pin, 422, '/pin']);
    }
    for (const pin of ['2468', '1231', '90210', '135791']) expect([pin, commonPin(pin)]).toEqual([pin, null]);
    // One that was set by an earlier build counts no longer.
    const [{ pin }] = await workshop.database.query(`SELECT "pin" FROM "person" WHERE "id" = $1`, [id]);
    expect(pin).toMatch(/^\$argon2id/u);
    const tablet = await device();
    const told = await tablet.ask('POST', '/api/session', { person: id, pin: '1234' });
    expect(told.body.detail).toContain('too easy to guess');
  });
});

describe('what was typed as a name', () => {
  it('stands nowhere in the record where nobody has it', async () => {
    const typed = `my password ${randomUUID()}`;
    await workshop.stranger().ask('POST', '/api/session', { name: typed, password: 'x' });
    await workshop.stranger().ask('POST', '/api/session', { name: OWNER.name, password: 'x' });
    const { body } = await workshop.owner.ask('GET', '/api/audit?kind=access&most=200');
    const failed = body.entries.filter(({ what }: { what: string }) => what === 'sign-in-failed');
    expect(failed.slice(0, 2).map(({ by, subject }: Record<string, string>) => [by, subject])).toEqual([
      [OWNER.name, OWNER.name],
      ['', 'a name that nobody has'],
    ]);
    expect(JSON.stringify(body)).not.toContain(typed);
  });
});

describe('after signing out', () => {
  it('the browser is told to keep nothing of it', async () => {
    const { someone } = await withPin('fitter');
    expect((await someone.ask('GET', '/api/jobs')).headers.get('cache-control')).toBe('no-store');
    const left = await someone.ask('DELETE', '/api/session');
    expect(left.headers.get('clear-site-data')).toBe('"cache"');
  });
});

/** Opens a stream; tells when it ends, ms after it was asked to watch. */
async function stream(who: Visitor) {
  const stop = new AbortController();
  const response = await who.stream(`/api/events?tab=${randomUUID().slice(0, 20)}`, stop.signal);
  expect(response.status).toBe(200);
  let isOpen = true;
  void (async () => {
    for await (const _ of response.body!);
  })()
    .catch(() => undefined)
    .finally(() => {
      isOpen = false;
    });
  return { isOpen: () => isOpen, stop: () => stop.abort() };
}

describe('a stream of what others change', () => {
  it.each([
    [
      'signing out',
      async ({ someone }: { someone: Visitor }) => void (await someone.copy().ask('DELETE', '/api/session')),
    ],
    [
      'being retired',
      async ({ id }: { id: string }) =>
        void (await workshop.owner.ask('PATCH', `/api/people/${id}`, { retired: true })),
    ],
    [
      'another role',
      async ({ id }: { id: string }) =>
        void (await workshop.owner.ask('PATCH', `/api/people/${id}`, { role: 'reader' })),
    ],
    [
      'another password',
      async ({ id }: { id: string }) => void (await workshop.owner.ask('POST', `/api/people/${id}/reset`, {})),
    ],
  ])('ends with %s, within a second', async (_, end) => {
    const who = await withPin('fitter');
    const [theirs, others] = [await stream(who.someone), await stream(workshop.owner)];
    await end(who);
    await expect.poll(theirs.isOpen, { timeout: 1000, interval: 20 }).toBe(false);
    expect(others.isOpen()).toBe(true);
    others.stop();
  });

  it('ends with the device, and is not begun again there', async () => {
    const { id, someone } = await withPin('fitter');
    const tablet = await device(someone);
    const { body } = await tablet.ask('POST', '/api/session', { person: id, pin: '2468' });
    const open = await stream(tablet);
    await workshop.owner.ask('DELETE', `/api/devices/${body.device.id}`);
    await expect.poll(open.isOpen, { timeout: 1000, interval: 20 }).toBe(false);
    expect((await tablet.stream('/api/events?tab=another-tab', new AbortController().signal)).status).toBe(401);
  });
});

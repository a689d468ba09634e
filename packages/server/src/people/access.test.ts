import { createHash, randomUUID } from 'node:crypto';
import { ENDPOINTS, type EndpointName, endpointOf, mayDo, ROLES } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { accessSettings } from '../access/settings.js';
import { engineOfMany, READING, startedEngine } from '../testing/samples.js';
import { OWNER, signedInServer, type Visitor, type Workshop } from '../testing/signedInServer.js';

let workshop: Workshop;
beforeAll(async () => {
  workshop = await signedInServer();
});
afterAll(() => workshop.close());

const OWN = 'a long one of my own';

/** Somebody with a password of their own. */
async function settled(role: (typeof ROLES)[number], name?: string) {
  const made = await workshop.added(role, name);
  await made.someone.ask('PUT', '/api/session/password', { current: made.password, password: OWN });
  return made;
}

const kindOf = ({ body }: { body: { type: string } }) => body.type.split('#')[1];

describe('signing in', () => {
  it('is asked of everybody, for everything but what signs in', async () => {
    for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
      const { method, at, needs } = endpointOf(name);
      const path = at.replaceAll(/\{\w+\}/gu, randomUUID());
      const body = ['get', 'delete'].includes(method) ? undefined : {};
      const { status } = await workshop.stranger().ask(method.toUpperCase(), path, body);
      expect([name, status === 401], name).toEqual([name, needs !== 'anyone']);
    }
  });

  it('tells a wrong name and a wrong password alike', async () => {
    const wrongName = await workshop.stranger().ask('POST', '/api/session', { name: 'Nobody here', password: OWN });
    const wrongPassword = await workshop.stranger().ask('POST', '/api/session', { name: 'wren', password: OWN });
    expect(wrongName.body).toEqual(wrongPassword.body);
    expect(wrongName.status).toBe(401);
  });

  it('is held back after too many wrong tries, for names that nobody has as well', async () => {
    for (const name of [(await settled('fitter')).name, randomUUID()]) {
      const kinds = [];
      for (let times = 0; times < 6; times += 1) {
        kinds.push(kindOf(await workshop.stranger().ask('POST', '/api/session', { name, password: 'wrong' })));
      }
      expect(kinds).toEqual([...Array(5).fill('not-signed-in'), 'too-many']);
      const held = await workshop.stranger().ask('POST', '/api/session', { name, password: OWN });
      expect(kindOf(held)).toBe('too-many');
      expect(Number(held.headers.get('retry-after'))).toBeGreaterThan(0);
    }
  });

  it('is tried from one address so often in a minute at most', async () => {
    const strict = await signedInServer({ triesAMinute: 3 });
    const visitor = strict.stranger();
    const kinds = [];
    for (let times = 0; times < 4; times += 1) {
      kinds.push(kindOf(await visitor.ask('POST', '/api/session', { name: randomUUID(), password: 'wrong' })));
    }
    // The owner's account took one.
    expect(kinds).toEqual(['not-signed-in', 'not-signed-in', 'too-many', 'too-many']);
    await strict.close();
  });

  it('begins under another session id, and ends for good', async () => {
    const { someone } = await settled('reader');
    const before = someone.copy();
    expect((await before.ask('GET', '/api/jobs')).status).toBe(200);
    await someone.ask('DELETE', '/api/session');
    expect((await before.ask('GET', '/api/jobs')).status).toBe(401);
  });

  it('asks for a password of one’s own first, and ends the other sessions then', async () => {
    const { someone, password, name } = await workshop.added('fitter');
    expect(kindOf(await someone.ask('GET', '/api/jobs'))).toBe('not-allowed');
    const elsewhere = workshop.stranger();
    await elsewhere.ask('POST', '/api/session', { name, password });
    await someone.ask('PUT', '/api/session/password', { current: password, password: OWN });
    expect((await someone.ask('GET', '/api/jobs')).status).toBe(200);
    expect((await elsewhere.ask('GET', '/api/jobs')).status).toBe(401);
  });

  it('keeps passwords, PINs and tokens of devices as hashes only', async () => {
    const { someone } = await settled('fitter');
    await someone.ask('PUT', '/api/session/pin', { current: OWN, pin: '2468' });
    const phone = workshop.stranger();
    const code = await workshop.invited();
    const { headers } = await phone.ask('POST', '/api/devices', { code, name: 'Phone' });
    const people: { password: string; pin: string | null }[] = await workshop.database.query('SELECT * FROM person');
    for (const { password, pin } of people) {
      expect(password).toMatch(/^\$argon2id\$/u);
      if (pin !== null) expect(pin).toMatch(/^\$argon2id\$/u);
    }
    // What the device holds is in its cookie; the database knows the SHA-256 of it, and of the code that let it in (RFC 4648, 5: base64url).
    const token = /fettle-device=([^;]+)/u.exec(headers.getSetCookie().join('; '))![1]!;
    const sha256 = (text: string) => createHash('sha256').update(text).digest('base64url');
    const devices: { name: string; token: string }[] = await workshop.database.query('SELECT * FROM device');
    expect(devices.find(({ token: kept }) => kept === sha256(token))?.name).toBe('Phone');
    const whole = JSON.stringify([devices, await workshop.database.query('SELECT * FROM invitation')]);
    expect(whole).not.toContain(token);
    expect(whole).not.toContain(code);
  });

  it('makes the owner once, with the code only', async () => {
    const fresh = await signedInServer({ hasOwner: false });
    expect((await fresh.stranger().ask('GET', '/api/session')).body).toMatchObject({ accounts: true, first: true });
    expect(kindOf(await fresh.stranger().ask('POST', '/api/session/first', { code: 'no', ...OWNER }))).toBe(
      'not-signed-in',
    );
    // Of two who send it at the same moment, one is.
    const first = (name: string) =>
      fresh.stranger().ask('POST', '/api/session/first', { code: 'the-code', ...OWNER, name });
    const both = await Promise.all([first('Wren'), first('Teasel')]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 401]);
    expect((await fresh.stranger().ask('POST', '/api/session/first', { code: 'the-code', ...OWNER })).status).toBe(401);
    await fresh.close();
  });
});

describe('a role', () => {
  it('may what it may, and is told who else', async () => {
    const asked = await Promise.all(ROLES.map(async (role) => ({ role, who: (await settled(role)).someone })));
    for (const { role, who } of asked) {
      for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
        const { method, at, needs } = endpointOf(name);
        if (needs === 'anyone' || needs === 'person') continue;
        const path = at.replaceAll(/\{\w+\}/gu, randomUUID());
        const { status } = await who.ask(
          method.toUpperCase(),
          path,
          ['get', 'delete'].includes(method) ? undefined : {},
        );
        expect([role, name, status !== 403], `${role} ${name}`).toEqual([role, name, mayDo(role, needs)]);
      }
    }
  });

  it('of the only owner stays', async () => {
    const small = await signedInServer();
    const [{ id }] = (await small.owner.ask('GET', '/api/people')).body;
    const less = await small.owner.ask('PATCH', `/api/people/${id}`, { role: 'fitter' });
    expect([less.status, less.body.errors[0].path]).toEqual([422, '/role']);
    const gone = await small.owner.ask('PATCH', `/api/people/${id}`, { retired: true });
    expect([gone.status, gone.body.errors[0].path]).toEqual([422, '/retired']);
    await small.close();
  });

  it('ends with the account, and what was open with it', async () => {
    const { someone, id, name } = await settled('fitter');
    await workshop.owner.ask('PATCH', `/api/people/${id}`, { retired: true });
    expect((await someone.ask('GET', '/api/jobs')).status).toBe(401);
    expect((await workshop.stranger().ask('POST', '/api/session', { name, password: OWN })).status).toBe(401);
  });
});

async function started(who: Visitor, by?: string): Promise<{ id: string; body: { createdBy: string } }> {
  const document = startedEngine();
  const id = randomUUID();
  const { body } = await who.ask('POST', '/api/jobs', { id, ...(by === undefined ? {} : { by }), document });
  return { id, body };
}

describe('what is done', () => {
  it('is done by the account, whatever name is sent along', async () => {
    const { someone, name } = await settled('fitter');
    expect((await started(someone, 'Someone else')).body.createdBy).toBe(name);
    expect((await started(someone)).body.createdBy).toBe(name);
    // A worker reads what is large.
    const asked = { id: randomUUID(), by: 'Someone else', document: engineOfMany(800) };
    expect((await someone.ask('POST', '/api/jobs', asked)).body.createdBy).toBe(name);
  });

  it('is signed within an engine by the account as well; what others had signed comes back by its own name only', async () => {
    const [one, two] = [await settled('fitter'), await settled('fitter')];
    const at = '2026-01-02T03:04:05.000Z';
    const forged = { ...startedEngine(), printed: { by: two.name, at } };
    const id = randomUUID();
    const made = await one.someone.ask('POST', '/api/jobs', { id, document: forged });
    expect(made.body.document.printed).toEqual({ by: one.name, at });

    let { version } = made.body;
    const patched = async (who: typeof one, path: string, value: unknown) => {
      const step = value === null ? { op: 'remove', path } : { op: 'add', path, value };
      const { status, body } = await who.someone.ask('PATCH', `/api/jobs/${id}`, { version, steps: [step] });
      expect([status, body.errors]).toEqual([200, undefined]);
      version = body.version;
      return body.document;
    };
    const pass = (by: string) => ({ target: '30 N·m', by, at });
    const first = '/torque/passes/main-1';
    expect((await patched(one, first, pass(two.name))).torque.passes).toEqual({ 'main-1': pass(one.name) });
    await patched(one, '/name', 'Rush Twin renamed');
    // Taken back by another, and brought back as it stood.
    await patched(two, first, null);
    expect((await patched(two, first, pass(one.name))).torque.passes['main-1']).toEqual(pass(one.name));
    // Signed anew, and that taken back: only what differs is sent.
    await patched(two, first, { ...pass(two.name), at: '2026-03-04T05:06:07.000Z' });
    expect((await patched(two, first, pass(one.name))).torque.passes['main-1']).toEqual(pass(one.name));
    // It never stood there, nor at that moment.
    expect((await patched(two, '/torque/passes/main-2', pass(one.name))).torque.passes['main-2'].by).toBe(two.name);
    const later = { ...pass(one.name), at: '2026-03-04T05:06:07.000Z' };
    expect((await patched(two, first, later)).torque.passes['main-1'].by).toBe(two.name);
  });

  it('needs the token of the session', async () => {
    const { someone } = await settled('fitter');
    const without = someone.copy();
    without.token = '';
    expect(kindOf(await without.ask('DELETE', '/api/session'))).toBe('not-allowed');
    without.token = 'x'.repeat(someone.token.length);
    expect(kindOf(await without.ask('DELETE', '/api/session'))).toBe('not-allowed');
    expect((await someone.ask('GET', '/api/jobs')).status).toBe(200);
  });

  it('is not taken from a page of another origin, nor under another name', async () => {
    const elsewhere = { origin: 'https://elsewhere.test' };
    expect(kindOf(await workshop.owner.ask('POST', '/api/people', {}, elsewhere))).toBe('not-allowed');
    expect(kindOf(await workshop.owner.ask('POST', '/api/people', {}, { origin: 'null' }))).toBe('not-allowed');
  });

  it('stands in the audit with the device, and cannot be changed there', async () => {
    const phone = workshop.stranger();
    await phone.ask('POST', '/api/devices', { code: await workshop.invited(), name: 'Phone at the vise' });
    const { name } = await settled('fitter', `Finch ${randomUUID()}`);
    await phone.ask('POST', '/api/session', { name, password: OWN });
    const { id } = await started(phone);
    await phone.ask('PUT', `/api/jobs/${id}/readings/${randomUUID()}`, READING);
    const query = `person=${encodeURIComponent(name)}`;
    const { body } = await workshop.owner.ask('GET', `/api/audit?${query}&most=200`);
    const done = body.entries.map(({ kind, what, device }: Record<string, string>) => [kind, what, device]);
    expect(done.slice(0, 3)).toEqual([
      ['reading', 'read', 'Phone at the vise'],
      ['engine', 'created', 'Phone at the vise'],
      ['access', 'signed-in', 'Phone at the vise'],
    ]);
    const file = await workshop.owner.ask('GET', `/api/audit.csv?subject=${id}`);
    expect(file.body.trim().split('\n')).toHaveLength(3);
    const histories = ['event', 'change', 'signed_sheet', 'drawer_movement', 'type_revision', 'reading'];
    for (const table of histories) {
      await expect(workshop.database.query(`TRUNCATE "${table}" CASCADE`)).rejects.toThrow('stays as it was said');
      await expect(workshop.database.query(`DELETE FROM "${table}"`)).rejects.toThrow('stays as it was said');
      await expect(workshop.database.query(`UPDATE "${table}" SET "device" = NULL`)).rejects.toThrow('stays');
    }
  });

  it('is listed page by page without a gap', async () => {
    const seen: string[] = [];
    let after = '';
    do {
      const { body } = await workshop.owner.ask('GET', `/api/audit?most=7${after}`);
      seen.push(...body.entries.map(({ id }: { id: string }) => id));
      after = body.goesOn === null ? '' : `&after=${encodeURIComponent(body.goesOn)}`;
    } while (after !== '');
    const [{ count }] = await workshop.database.query('SELECT count(*)::int FROM audit');
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBe(count);
  });
});

describe('a device', () => {
  it('is let in once by a code, within its time, and out again at once', async () => {
    const code = await workshop.invited('/engines/somewhere');
    const phone = workshop.stranger();
    const [one, other] = await Promise.all([
      phone.ask('POST', '/api/devices', { code, name: 'Phone' }),
      workshop.stranger().ask('POST', '/api/devices', { code, name: 'Another' }),
    ]);
    expect([one.status, other.status].sort()).toEqual([201, 401]);
    const late = await workshop.invited();
    await workshop.database.query(`UPDATE invitation SET until = now() - interval '1 second'`);
    expect((await workshop.stranger().ask('POST', '/api/devices', { code: late, name: 'Late' })).status).toBe(401);
  });

  it('takes PINs once it was let in, and none when it is let out', async () => {
    const { someone, id, name } = await settled('fitter');
    await someone.ask('PUT', '/api/session/pin', { current: OWN, pin: '2468' });
    const stranger = workshop.stranger();
    expect((await stranger.ask('POST', '/api/session', { person: id, pin: '2468' })).status).toBe(401);
    expect((await stranger.ask('GET', '/api/session')).body.people).toEqual([]);
    const tablet = workshop.stranger();
    const { body } = await tablet.ask('POST', '/api/devices', { code: await workshop.invited(), name: 'Tablet' });
    expect(body.session.people).toContainEqual({ id, name });
    expect((await tablet.ask('POST', '/api/session', { person: id, pin: '1111' })).status).toBe(401);
    expect((await tablet.ask('POST', '/api/session', { person: id, pin: '2468' })).status).toBe(200);
    expect((await tablet.ask('GET', '/api/jobs')).status).toBe(200);
    await workshop.owner.ask('DELETE', `/api/devices/${body.session.device.id}`);
    expect((await tablet.ask('GET', '/api/jobs')).status).toBe(401);
  });
});

describe('the settings', () => {
  const firstCode = 'code';
  it('ask nobody to sign in on this machine, and everybody beyond it', () => {
    expect(accessSettings({ host: '127.0.0.1', port: 4780, firstCode })).toMatchObject({
      mustSignIn: false,
      origin: null,
    });
    const beyond = accessSettings({ host: '192.0.2.7', port: 4780, hosts: 'bench.test', firstCode });
    expect(beyond).toMatchObject({ mustSignIn: true, isSecure: true, origin: 'https://bench.test:4780' });
    expect([...beyond.hosts]).toEqual(expect.arrayContaining(['192.0.2.7', 'bench.test', 'localhost']));
  });

  it('take a proxy’s word only where one is named', () => {
    const proxied = accessSettings({ host: '127.0.0.1', port: 4780, origin: 'https://fettle.test/', firstCode });
    expect(proxied).toMatchObject({
      mustSignIn: true,
      isSecure: true,
      isBehindProxy: true,
      origin: 'https://fettle.test',
    });
    expect(() => accessSettings({ host: '127.0.0.1', port: 1, origin: 'fettle', firstCode })).toThrow('FETTLE_ORIGIN');
  });
});

describe('on this machine', () => {
  it('another name that leads here is not answered', async () => {
    const { request } = await import('node:http');
    const { port } = new URL(workshop.origin);
    const status = await new Promise((resolve, reject) => {
      const asked = request({
        host: '127.0.0.1',
        port,
        path: '/api/session',
        headers: { host: `elsewhere.test:${port}` },
      });
      asked
        .on('response', (answer) => resolve(answer.resume().statusCode))
        .on('error', reject)
        .end();
    });
    expect(status).toBe(421);
  });
});

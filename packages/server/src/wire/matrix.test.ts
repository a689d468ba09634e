import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { ENDPOINTS, type Endpoint, type EndpointName, endpointOf, mayDo, ROLES, type Role } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signedInServer, type Visitor, type Workshop } from '../testing/signedInServer.js';
import { hasBody } from './openApi.js';

/** Every endpoint in every situation: made from the descriptions, so that a new endpoint is in it by itself. */
const NAMES = Object.keys(ENDPOINTS) as EndpointName[];
const OWN = 'a long one of my own';
/** Ends the session that asks: each situation asks it with one of its own, or not at all. */
const ENDS: ReadonlySet<EndpointName> = new Set(['signOut']);

let workshop: Workshop;
const byRole = new Map<Role, Visitor>();

beforeAll(async () => {
  workshop = await signedInServer();
  for (const role of ROLES) byRole.set(role, (await settled(role)).someone);
}, 60_000);
afterAll(() => workshop.close());

/** Somebody with a password of their own. */
async function settled(role: Role) {
  const made = await workshop.added(role);
  await made.someone.ask('PUT', '/api/session/password', { current: made.password, password: OWN });
  return made;
}

const pathOf = ({ at }: Endpoint) => at.replaceAll(/\{\w+\}/gu, () => randomUUID());
const isChange = ({ method }: Endpoint) => method !== 'get';
const kindOf = ({ body }: { body: { type?: string } }) => body.type?.split('#')[1];

/** Asks an endpoint with nothing that it could do anything with. */
function ask(who: Visitor, endpoint: Endpoint, headers: Record<string, string> = {}, body: unknown = {}) {
  return who.ask(endpoint.method.toUpperCase(), pathOf(endpoint), hasBody(endpoint) ? body : undefined, headers);
}

interface Situation {
  readonly name: string;
  readonly who: () => Promise<Visitor> | Visitor;
  readonly headers?: Record<string, string>;
  /** What goes along in the place of the session's token. */
  readonly token?: () => string;
  /** The kind of problem that is answered; null where it is asked in earnest: whatever comes then, it is not refused for who asks. */
  readonly expected: (endpoint: Endpoint, name: EndpointName) => string | null;
}

const signedOut = ({ needs }: Endpoint) => (needs === 'anyone' ? null : 'not-signed-in');

const SITUATIONS: readonly Situation[] = [
  { name: 'a stranger', who: () => workshop.stranger(), expected: signedOut },
  ...ROLES.map(
    (role): Situation => ({
      name: `a ${role}`,
      who: () => byRole.get(role)!.copy(),
      expected: ({ needs }) => (mayDo(role, needs) ? null : 'not-allowed'),
    }),
  ),
  {
    name: 'an owner whose password was typed long ago',
    who: async () => {
      const { someone, id } = await settled('owner');
      await workshop.database.query(
        `UPDATE "session" SET "sess" = jsonb_set("sess"::jsonb, '{confirmed}', '0') WHERE "sess"->>'person' = $1`,
        [id],
      );
      return someone;
    },
    expected: ({ needs }) => (needs === 'people' ? 'password-needed' : null),
  },
  {
    name: 'somebody who has yet to set a password of their own',
    who: async () => (await workshop.added('owner')).someone,
    expected: ({ needs }, name) => (needs === 'anyone' || name === 'changePassword' ? null : 'not-allowed'),
  },
  {
    name: 'somebody who has signed out',
    who: async () => {
      const { someone } = await settled('owner');
      const before = someone.copy();
      await someone.ask('DELETE', '/api/session');
      return before;
    },
    expected: signedOut,
  },
  {
    name: 'somebody whose account has ended',
    who: async () => {
      const { someone, id } = await settled('fitter');
      await workshop.owner.ask('PATCH', `/api/people/${id}`, { retired: true });
      return someone;
    },
    expected: signedOut,
  },
  {
    name: 'somebody who got another role meanwhile',
    who: async () => {
      const { someone, id } = await settled('owner');
      await workshop.owner.ask('PATCH', `/api/people/${id}`, { role: 'reader' });
      return someone;
    },
    expected: signedOut,
  },
  {
    name: 'somebody on a device that was let out',
    who: async () => {
      const { name } = await settled('owner');
      const tablet = workshop.stranger();
      const { body } = await tablet.ask('POST', '/api/devices', { code: await workshop.invited(), name: 'Tablet' });
      await tablet.ask('POST', '/api/session', { name, password: OWN });
      await workshop.owner.ask('DELETE', `/api/devices/${body.session.device.id}`);
      return tablet;
    },
    expected: signedOut,
  },
  {
    name: 'an owner without the token of the session',
    who: () => byRole.get('owner')!.copy(),
    token: () => '',
    expected: (endpoint) => (isChange(endpoint) ? 'not-allowed' : null),
  },
  {
    name: 'an owner with the token of another session',
    who: () => byRole.get('owner')!.copy(),
    token: () => byRole.get('fitter')!.token,
    expected: (endpoint) => (isChange(endpoint) ? 'not-allowed' : null),
  },
  {
    name: 'an owner from a page of another origin',
    who: () => byRole.get('owner')!.copy(),
    headers: { origin: 'https://elsewhere.test' },
    expected: (endpoint) => (isChange(endpoint) ? 'not-allowed' : null),
  },
  {
    name: 'an owner from a page without an origin',
    who: () => byRole.get('owner')!.copy(),
    headers: { origin: 'null', 'sec-fetch-site': 'cross-site' },
    expected: (endpoint) => (isChange(endpoint) ? 'not-allowed' : null),
  },
];

/** What says that one may not, whoever asks. */
const REFUSALS: ReadonlySet<string | undefined> = new Set(['not-signed-in', 'not-allowed', 'password-needed']);
/** These try a secret: a wrong one is answered as nobody signed in is. */
const SECRETS: ReadonlySet<EndpointName> = new Set(['signIn', 'makeOwner', 'letIn']);

describe.each(SITUATIONS)('$name', ({ who, headers, token, expected }) => {
  it('is answered as each endpoint says, and nothing of it is kept by a browser', async () => {
    const visitor = await who();
    for (const name of NAMES) {
      if (ENDS.has(name)) continue;
      const endpoint = endpointOf(name);
      if (token) visitor.token = token();
      const answer = await ask(visitor, endpoint, headers);
      const wanted = expected(endpoint, name);
      if (wanted !== null) expect([name, kindOf(answer)]).toEqual([name, wanted]);
      else if (!SECRETS.has(name)) expect([name, REFUSALS.has(kindOf(answer))]).toEqual([name, false]);
      expect([name, answer.status < 500], name).toEqual([name, true]);
      // Whether the server is well is nobody's, and asked without a session.
      expect([name, answer.headers.get('cache-control')]).toEqual([name, name === 'health' ? 'no-cache' : 'no-store']);
      expect([name, answer.headers.get('x-content-type-options')]).toEqual([name, 'nosniff']);
    }
  }, 120_000);
});

describe('an owner who sends what is none', () => {
  const changes = NAMES.filter((name) => hasBody(endpointOf(name)));

  it.each(changes)('%s refuses a body that is no JSON, none of its type, too large, and an odd one', async (name) => {
    const endpoint = endpointOf(name);
    const visitor = byRole.get('owner')!.copy();
    const send = async (text: string, type: string, more: Record<string, string> = {}) => {
      const response = await fetch(workshop.origin + pathOf(endpoint), {
        method: endpoint.method.toUpperCase(),
        headers: { ...visitor.headers, 'content-type': type, ...more },
        body: text,
      });
      const { type: kind = '' } = (await response.json()) as { type?: string };
      return kind.split('#')[1];
    };
    expect(await send('{"a":', 'application/json')).toBe('not-json');
    expect(['not-json', 'unsupported']).toContain(await send('a=1', 'application/x-www-form-urlencoded'));
    expect(await send('{}', 'application/json', { 'content-encoding': 'compress' })).toBe('unsupported');
    const large = `{"a":"${'x'.repeat(endpoint.largestMb * 2 ** 20)}"}`;
    expect(await send(large, 'application/json')).toBe('too-large');
    for (const text of ['[]', '{"__proto__":{"role":"owner"}}', '{"a":"\\u0000"}']) {
      expect([text, await send(text, 'application/json')]).toEqual([text, 'invalid-request']);
    }
    for (const text of ['null', '"x"', '1']) {
      expect(['invalid-request', 'not-json'], text).toContain(await send(text, 'application/json'));
    }
  });
});

describe('another name that leads here', () => {
  it('is answered at no endpoint', async () => {
    const { port } = new URL(workshop.origin);
    for (const name of NAMES) {
      const endpoint = endpointOf(name);
      const status = await new Promise((resolve, reject) => {
        const headers = { host: `elsewhere.test:${port}` };
        request({ host: '127.0.0.1', port, method: endpoint.method.toUpperCase(), path: pathOf(endpoint), headers })
          .on('response', (answer) => resolve(answer.resume().statusCode))
          .on('error', reject)
          .end();
      });
      expect([name, status]).toEqual([name, 421]);
    }
  });
});

describe('signing out', () => {
  it('is anybody’s, and needs the token of a session where there is one', async () => {
    expect((await workshop.stranger().ask('DELETE', '/api/session')).status).toBe(200);
    const { someone } = await settled('reader');
    const without = someone.copy();
    without.token = '';
    expect(kindOf(await without.ask('DELETE', '/api/session'))).toBe('not-allowed');
    expect((await someone.ask('DELETE', '/api/session')).status).toBe(200);
  });
});

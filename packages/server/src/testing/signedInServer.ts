import { randomUUID } from 'node:crypto';
import type { Role } from '@fettle/core';
import { type AccessSettings, ON_THIS_MACHINE } from '../access/settings.js';
import { type Answer, checkAnswer, runningServer } from './runningServer.js';

export const OWNER = { name: 'Wren', password: 'three shells and a shim' };

/** As beyond this machine, but for TLS: it is the cookie's only, and the client of the tests speaks plain HTTP. */
const BEYOND: AccessSettings = {
  ...ON_THIS_MACHINE,
  mustSignIn: true,
  firstCode: 'the-code',
  origin: 'https://fettle.test',
};

/** A browser as far as the server sees one: it keeps cookies, and sends its session's token with every change. */
export class Visitor {
  private readonly origin: string;
  private readonly cookies = new Map<string, string>();
  token = '';

  constructor(origin: string) {
    this.origin = origin;
  }

  async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const response = await fetch(this.origin + path, {
      method,
      headers: {
        origin: this.origin,
        cookie: this.cookieHeader,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(this.token ? { 'x-fettle-token': this.token } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    for (const line of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/u.exec(line)!;
      if (value === '') this.cookies.delete(name!);
      else this.cookies.set(name!, value!);
    }
    const text = await response.text();
    const isJson = response.headers.get('content-type')?.includes('json');
    const answer = { status: response.status, headers: response.headers, body: isJson ? JSON.parse(text) : text };
    checkAnswer(method, path, answer);
    const told = answer.body?.session ?? answer.body;
    if (typeof told?.token === 'string') this.token = told.token;
    return answer;
  }

  /** A stream of events, with the same cookies. */
  stream(path: string, signal: AbortSignal): Promise<Response> {
    return fetch(this.origin + path, { signal, headers: { cookie: this.cookieHeader } });
  }

  /** What goes along with a change that is sent by hand. */
  get headers(): Record<string, string> {
    return { origin: this.origin, cookie: this.cookieHeader, 'x-fettle-token': this.token };
  }

  private get cookieHeader(): string {
    return [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  }

  /** As it is now, for another visit with the same cookies. */
  copy(): Visitor {
    const other = new Visitor(this.origin);
    for (const [name, value] of this.cookies) other.cookies.set(name, value);
    other.token = this.token;
    return other;
  }
}

/** A server that one signs in to, with its owner signed in. */
export async function signedInServer({ hasOwner = true, triesAMinute = 1e6 } = {}) {
  const server = await runningServer(null, null, { settings: BEYOND, triesAMinute });
  const owner = new Visitor(server.origin);
  if (hasOwner) await owner.ask('POST', '/api/session/first', { code: 'the-code', ...OWNER });
  return {
    ...server,
    owner,
    stranger: () => new Visitor(server.origin),
    /** Somebody new, signed in with the password for the first time. */
    async added(role: Role, name: string = randomUUID()) {
      const { person, password } = (await owner.ask('POST', '/api/people', { name, role })).body;
      const someone = new Visitor(server.origin);
      await someone.ask('POST', '/api/session', { name, password });
      return { someone, id: person.id as string, name, password: password as string };
    },
    /** The code that lets a device in. */
    async invited(to = '/'): Promise<string> {
      const { body } = await owner.ask('POST', '/api/devices/invitations', { to });
      return body.address.split('#')[1];
    },
  };
}
export type Workshop = Awaited<ReturnType<typeof signedInServer>>;

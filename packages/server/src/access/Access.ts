import { timingSafeEqual } from 'node:crypto';
import { type EndpointName, endpointOf, mayDo, type Session, type Who, whoMay } from '@fettle/core';
import { parse } from 'cookie';
import type { Request, RequestHandler, Response } from 'express';
import { ipKeyGenerator } from 'express-rate-limit';
import type { Database } from '../database/Database.js';
import { ProblemError } from '../problem/problem.js';
import type { DeviceRow, PersonRow } from './accessEntities.js';
import type { DeviceService } from './deviceService.js';
import { tellEvent } from './events.js';
import type { PeopleService } from './peopleService.js';
import { sessionMark, tellRights } from './rights.js';
import { newToken } from './secrets.js';
import { CONFIRMED_MS, cookieName, IDLE_MS, LONGEST_MS, SEEN_EVERY_MS } from './sessions.js';
import type { AccessSettings } from './settings.js';
import type { Place } from './wrongTries.js';

/** What requests are read with. */
export interface AccessParts {
  readonly settings: AccessSettings;
  readonly database: Database;
  readonly people: PeopleService;
  readonly devices: DeviceService;
  /** What is wrong with the certificate; null for nothing. */
  readonly certificateFault: () => string | null;
}

/** How long a device stays let in, ms: a year. */
const DEVICE_MS = 365 * 24 * 3_600_000;
/** How often it is looked whether there are accounts now, where there were none, ms. */
const LOOK_EVERY_MS = 3000;
/** What may be done before a password of one's own is set. */
const BEFORE_OWN_PASSWORD: ReadonlySet<EndpointName> = new Set(['changePassword']);
/** A page that was signed out leaves nothing of the workshop in the browser's cache; what was typed and not sent stays. */
const CLEARED = '"cache"';

function whoOf({ id, name, role, pin, mustChange }: PersonRow): Who {
  return { id, name, role, hasPin: pin !== null, mustChange };
}

function isSame(one: string, other: string): boolean {
  const [a, b] = [Buffer.from(one), Buffer.from(other)];
  return a.length === b.length && timingSafeEqual(a, b);
}

/** Who asks, from which device, and what they may do. */
export class Access {
  private readonly parts: AccessParts;
  private readonly request: Request;
  private readonly response: Response;
  /** True if one signs in here at all. */
  readonly isOn: boolean;
  person: PersonRow | null = null;
  device: DeviceRow | null = null;

  constructor(parts: AccessParts, request: Request, response: Response, isOn: boolean) {
    this.parts = parts;
    this.request = request;
    this.response = response;
    this.isOn = isOn;
  }

  /** Reads who is there out of cookies and session; a session that ended is taken away. */
  async read(): Promise<void> {
    const token = parse(this.request.headers.cookie ?? '')[cookieName(this.parts.settings, 'fettle-device')];
    if (token) this.device = await this.parts.devices.byToken(token);
    const { session } = this.request;
    if (!session?.person) return;
    const person = await this.parts.people.byId(session.person);
    const now = Date.now();
    const [since, seen] = [session.since ?? 0, session.seen ?? 0];
    // On a device that is let in no longer, who was signed in is not any more.
    const isGone = (session.device ?? null) !== null && session.device !== this.device?.id;
    const isOver = now - since > LONGEST_MS || now - seen > IDLE_MS || isGone;
    if (!person || person.retiredAt || isOver || since < person.sessionsFrom.getTime()) {
      await this.endSession();
      return;
    }
    if (now - seen > SEEN_EVERY_MS) session.seen = now;
    this.person = person;
  }

  /** @throws ProblemError `not-signed-in` or `not-allowed` where who asks may not */
  check(name: EndpointName): void {
    if (!this.isOn) return;
    const { needs, method } = endpointOf(name);
    if (method !== 'get' && this.person) {
      const sent = this.request.get('x-fettle-token') ?? '';
      if (!isSame(sent, this.request.session.token ?? '')) {
        throw new ProblemError('not-allowed', 'The change came without this session’s token; load the page again.');
      }
    }
    if (needs === 'anyone') return;
    if (!this.person) throw new ProblemError('not-signed-in', 'Sign in first.');
    if (this.person.mustChange && !BEFORE_OWN_PASSWORD.has(name)) {
      throw new ProblemError('not-allowed', 'Set your own password first.');
    }
    if (!mayDo(this.person.role, needs)) throw new ProblemError('not-allowed', whoMay(needs));
    if (needs === 'people' && !this.isConfirmed) {
      throw new ProblemError(
        'password-needed',
        'Enter your password again: only the owner sees and changes users and devices.',
      );
    }
  }

  /** Until when what the owner alone may do needs no password; null where it needs one now. */
  private get confirmedUntil(): Date | null {
    const until = (this.request.session?.confirmed ?? 0) + CONFIRMED_MS;
    return this.person && until > Date.now() ? new Date(until) : null;
  }

  /** True if who is signed in has typed their password within the last quarter of an hour. */
  get isConfirmed(): boolean {
    return this.confirmedUntil !== null;
  }

  /** From where it is asked. */
  get place(): Place {
    // Whoever has one address of IPv6 has a whole network of them.
    return { device: this.device?.id ?? null, address: ipKeyGenerator(this.request.ip ?? '', 64) };
  }

  /** Who listens to what others change; null where nobody signs in. */
  get listens(): { person: string; device: string | null; session: string } | null {
    if (!this.person) return null;
    const { id } = this.person;
    return { person: id, device: this.device?.id ?? null, session: sessionMark(this.request.session.id) };
  }

  /** True if who was signed in when this was asked still is. */
  async isStillIn(): Promise<boolean> {
    if (!this.isOn) return true;
    const isThere = await new Promise<boolean>((resolve) => this.request.session.reload((error) => resolve(!error)));
    if (!isThere) return false;
    this.person = null;
    this.device = null;
    await this.read();
    return this.person !== null;
  }

  /** The password was typed again, and was right. */
  confirm(): void {
    this.request.session.confirmed = Date.now();
  }

  /** Begins a session of somebody's, under another id than whatever was there. */
  async begin(person: PersonRow, byPassword: boolean): Promise<void> {
    await new Promise<void>((resolve, reject) => {
      this.request.session.regenerate((error) => (error ? reject(error as Error) : resolve()));
    });
    const now = Date.now();
    Object.assign(this.request.session, {
      person: person.id,
      since: now,
      seen: now,
      confirmed: byPassword ? now : 0,
      token: newToken(),
      device: this.device?.id ?? null,
    });
    await new Promise<void>((resolve, reject) => {
      this.request.session.save((error) => (error ? reject(error as Error) : resolve()));
    });
    this.person = person;
  }

  async signIn(person: PersonRow, how: 'password' | 'PIN'): Promise<void> {
    await this.begin(person, how === 'password');
    const told = { what: 'signed-in', subject: person.name, subjectId: person.id, detail: how, by: person.name };
    await tellEvent(this.parts.database, { ...told, device: this.device?.id ?? null });
  }

  async signOut(): Promise<void> {
    const { person } = this;
    if (person) {
      await tellEvent(this.parts.database, { what: 'signed-out', subject: person.name, subjectId: person.id });
    }
    await this.endSession();
  }

  private async endSession(): Promise<void> {
    this.person = null;
    const session = sessionMark(this.request.session.id);
    await new Promise<void>((resolve, reject) => {
      this.request.session.destroy((error) => (error ? reject(error as Error) : resolve()));
    });
    await tellRights(this.parts.database.manager, { session });
    // A stream that was opened as it ended has its headers sent by now.
    if (this.response.headersSent) return;
    this.response.set('clear-site-data', CLEARED);
    this.response.clearCookie(cookieName(this.parts.settings, 'fettle'), {
      path: '/',
      secure: this.parts.settings.isSecure,
    });
  }

  /** Gives this device its token. */
  keepDevice(device: DeviceRow, token: string): void {
    this.device = device;
    const { isSecure } = this.parts.settings;
    this.response.cookie(cookieName(this.parts.settings, 'fettle-device'), token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: isSecure,
      maxAge: DEVICE_MS,
      path: '/',
    });
  }

  /** What the page is told of it. */
  async told(): Promise<Session> {
    const { person, device, isOn } = this;
    const isFirst = isOn && (await this.parts.people.count()) === 0;
    return {
      accounts: isOn,
      first: isFirst,
      person: person ? whoOf(person) : null,
      device: device ? { id: device.id, name: device.name } : null,
      people: isOn && device ? await this.parts.people.withPin(device) : [],
      certificate: person?.role === 'owner' ? this.parts.certificateFault() : null,
      confirmedUntil: this.confirmedUntil?.toISOString() ?? null,
      token: (isOn && person && this.request.session.token) || '',
    };
  }
}

/** Who asks, as what answers a request finds it. */
export function accessOf(response: Response): Access {
  return response.locals.access as Access;
}

/** True if one signs in here now: beyond this machine always; on it once there is an account. */
export type SignsIn = () => Promise<boolean>;

/** Looks whether one signs in, now and then where nobody does yet. */
export function signsInOnce({ settings, people }: Pick<AccessParts, 'settings' | 'people'>): SignsIn {
  let isOn = settings.mustSignIn;
  let lookedAt = 0;
  return async () => {
    if (isOn || Date.now() - lookedAt < LOOK_EVERY_MS) return isOn;
    lookedAt = Date.now();
    isOn = (await people.count()) > 0;
    return isOn;
  };
}

/**
 * Finds out who asks.
 *
 * @param readSession reads the session, where one signs in
 */
export function whoAsks(parts: AccessParts, signsIn: SignsIn, readSession: RequestHandler): RequestHandler {
  return async (request, response, next) => {
    // Whether server and database answer is asked by what started them, and told to anyone.
    const isOnNow = request.path === '/health' ? false : await signsIn();
    if (isOnNow) {
      await new Promise<void>((resolve, reject) => {
        readSession(request, response, (error?: unknown) => (error ? reject(error as Error) : resolve()));
      });
    }
    // What is somebody's is kept by no cache on the way, nor by the browser; what is nobody's may be, if it is asked for again.
    if (!isOnNow) response.set('cache-control', 'no-cache');
    const access = new Access(parts, request, response, isOnNow);
    if (isOnNow) await access.read();
    response.locals.access = access;
    next();
  };
}

import { randomBytes } from 'node:crypto';
import type { RequestHandler } from 'express';
import session from 'express-session';
import type { Pool } from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { EndingStore } from './EndingStore.js';
import type { AccessSettings } from './settings.js';

declare module 'express-session' {
  interface SessionData {
    /** Who signed in, when, and when they were here last, ms. */
    person: string;
    since: number;
    seen: number;
    /** Goes along with every change, so that no other page can make one. */
    token: string;
    /** When they typed their password last, ms; 0 for never in this session. */
    confirmed: number;
    /** The device that it was on when they did; null for one that nobody let in. */
    device: string | null;
  }
}

/** A session ends after so long without anything, and after so long in any case, ms. */
export const IDLE_MS = 12 * 3_600_000;
export const LONGEST_MS = 7 * 24 * 3_600_000;
/** What the owner alone may do needs a password that was typed so short a time ago, ms. */
export const CONFIRMED_MS = 900_000;
/** When somebody was here last is kept to so many ms. */
export const SEEN_EVERY_MS = 300_000;

/** What sessions are signed with: made once, the same for every process on the database. */
async function sessionSecret(database: DataSource): Promise<string> {
  await database.query(`INSERT INTO "secret" ("name", "value") VALUES ('session', $1) ON CONFLICT DO NOTHING`, [
    randomBytes(32).toString('base64url'),
  ]);
  const [row]: { value: string }[] = await database.query(`SELECT "value" FROM "secret" WHERE "name" = 'session'`);
  return row!.value;
}

/** The name of a cookie: over TLS one that only this very host can set. */
export function cookieName({ isSecure }: AccessSettings, name: string): string {
  return isSecure ? `__Host-${name}` : name;
}

/** Reads and keeps sessions, in the database. @returns what reads one, and what ends looking for old ones */
export async function sessions(
  database: DataSource,
  settings: AccessSettings,
  log: Logger,
): Promise<{ read: RequestHandler; close: () => void }> {
  const { master } = database.driver as unknown as { master: Pool };
  const store = new EndingStore({
    pool: master,
    tableName: 'session',
    // When somebody was here last is kept in the session itself, now and then.
    disableTouch: true,
    ttl: LONGEST_MS / 1000,
    errorLog: (error: unknown) => log.warn({ err: error }, 'old sessions could not be removed'),
  });
  const read = session({
    name: cookieName(settings, 'fettle'),
    secret: await sessionSecret(database),
    store,
    resave: false,
    saveUninitialized: false,
    proxy: settings.isBehindProxy,
    cookie: { httpOnly: true, sameSite: 'strict', secure: settings.isSecure, maxAge: LONGEST_MS, path: '/' },
  });
  return { read, close: () => store.close() };
}

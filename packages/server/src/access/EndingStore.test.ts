import { randomUUID } from 'node:crypto';
import type { SessionData } from 'express-session';
import type { Pool } from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signedInServer, type Workshop } from '../testing/signedInServer.js';
import { EndingStore } from './EndingStore.js';

let workshop: Workshop;
let store: EndingStore;
beforeAll(async () => {
  workshop = await signedInServer();
  const { master } = workshop.database.driver as unknown as { master: Pool };
  store = new EndingStore({ pool: master, tableName: 'session', disableTouch: true, ttl: 3600 });
});
afterAll(async () => {
  store.close();
  await workshop.close();
});

const cookie = { originalMaxAge: 1000, expires: new Date(Date.now() + 60_000) };
const data = (person: string) =>
  ({ cookie, person, since: 1, seen: 1, token: 't', device: null, confirmed: 0 }) as unknown as SessionData;
const saved = (sid: string, person: string) =>
  new Promise<void>((resolve, reject) =>
    store.set(sid, data(person), (error) => (error ? reject(error as Error) : resolve())),
  );
const ended = (sid: string) =>
  new Promise<void>((resolve, reject) => store.destroy(sid, (error) => (error ? reject(error as Error) : resolve())));
const found = (sid: string) =>
  new Promise<SessionData | null>((resolve, reject) =>
    store.get(sid, (error, session) => (error ? reject(error as Error) : resolve(session ?? null))),
  );

describe('a session that ended', () => {
  it('stays ended, whatever a request in flight saves after it', async () => {
    const sid = randomUUID();
    await saved(sid, 'Wren');
    expect(await found(sid)).toMatchObject({ person: 'Wren' });
    await ended(sid);
    await saved(sid, 'Wren');
    expect(await found(sid)).toBeNull();
  });

  it('stays ended however saves and the end cross each other', async () => {
    for (let round = 0; round < 40; round += 1) {
      const sid = randomUUID();
      await saved(sid, 'Wren');
      await Promise.all([saved(sid, 'a'), ended(sid), saved(sid, 'b'), saved(sid, 'c')]);
      expect(await found(sid)).toBeNull();
    }
  });

  it('is no session that another can be begun under, and ends though it was never saved', async () => {
    const sid = randomUUID();
    await ended(sid);
    await saved(sid, 'Teasel');
    expect(await found(sid)).toBeNull();
  });

  it('is over for every request with its cookie, those in flight too', async () => {
    const { someone } = await workshop.added('fitter');
    const copy = someone.copy();
    // What was seen last is saved again by the next request: every one of these writes its session.
    await workshop.database.query(
      `UPDATE "session" SET "sess" = jsonb_set("sess"::jsonb, '{seen}', '1')::json WHERE "sess"->>'isEnded' IS NULL`,
    );
    const flying = Array.from({ length: 20 }, () => copy.ask('GET', '/api/types'));
    expect((await someone.ask('DELETE', '/api/session')).status).toBe(200);
    await Promise.all(flying);
    expect((await copy.ask('GET', '/api/types')).status).toBe(401);
  });
});

import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData } from 'express-session';
import type { Pool } from 'pg';

const PgStore = connectPgSimple(session);

/** An ended session is remembered longer than any request takes, s. */
const REMEMBERED_S = 3_600;

/** What stands in the row of a session that ended. */
const ENDED = JSON.stringify({ isEnded: true });

type Options = NonNullable<ConstructorParameters<typeof PgStore>[0]> & { readonly pool: Pool };

/**
 * Sessions in the database whose end is final: the row of one that ended is marked, and what a request in flight saves after that changes nothing.
 * (The store of the package deletes the row, and a later save writes it back.)
 */
export class EndingStore extends PgStore {
  private readonly pool: Pool;

  constructor(options: Options) {
    super(options);
    this.pool = options.pool;
  }

  override get(sid: string, told: (error: unknown, session?: SessionData | null) => void): void {
    super.get(sid, (error, found) => {
      const isEnded = found != null && (found as SessionData & { isEnded?: boolean }).isEnded === true;
      told(error, isEnded ? null : found);
    });
  }

  override set(sid: string, data: SessionData, told?: (error?: unknown) => void): void {
    const until = data.cookie.expires ? new Date(data.cookie.expires) : null;
    // The row is looked at as it is when its lock is had: a mark that came meanwhile stays.
    this.run(
      `INSERT INTO "session" ("sid", "sess", "expire") VALUES ($1, $2, coalesce($3::timestamptz, now() + interval '1 day'))
       ON CONFLICT ("sid") DO UPDATE SET "sess" = excluded."sess", "expire" = excluded."expire"
       WHERE "session"."sess"->>'isEnded' IS NULL`,
      [sid, JSON.stringify(data), until],
      told,
    );
  }

  override destroy(sid: string, told?: (error?: unknown) => void): void {
    this.run(
      `INSERT INTO "session" ("sid", "sess", "expire") VALUES ($1, $2, now() + make_interval(secs => $3))
       ON CONFLICT ("sid") DO UPDATE SET "sess" = excluded."sess", "expire" = excluded."expire"`,
      [sid, ENDED, REMEMBERED_S],
      told,
    );
  }

  private run(query: string, values: unknown[], told: ((error?: unknown) => void) | undefined): void {
    this.pool.query(query, values).then(
      () => told?.(),
      (error: unknown) => told?.(error),
    );
  }
}

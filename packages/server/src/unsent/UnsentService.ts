import type { Missing, Unsent, UnsentChange } from '@fettle/core';
import type { Database } from '../database/Database.js';

/** Whom a browser belongs to where nobody signs in: whoever is at this machine. */
const WHOEVER_IS_HERE = '';
/** Browsers that are remembered of one person; the ones heard of last. */
const MOST_BROWSERS = 20;
/** What a browser had waiting is forgotten after so many days. */
const FORGOTTEN_AFTER_DAYS = 90;

interface Row {
  readonly browser: string;
  readonly told_at: Date;
  readonly changes: readonly UnsentChange[];
  readonly more: number;
}

/** What waits in browsers for the server, as they told it. */
export class UnsentService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /** @param person id of the account; null where nobody signs in */
  async tell(person: string | null, browser: string, { changes, more }: Unsent): Promise<void> {
    if (changes.length + more === 0) return this.forget(person, browser);
    const whose = person ?? WHOEVER_IS_HERE;
    await this.database.manager.query(
      `INSERT INTO "unsent" ("person", "browser", "told_at", "changes", "more") VALUES ($1, $2, now(), $3, $4)
       ON CONFLICT ("person", "browser") DO UPDATE
         SET "told_at" = excluded."told_at", "changes" = excluded."changes", "more" = excluded."more"`,
      [whose, browser, JSON.stringify(changes), more],
    );
    await this.database.manager.query(
      `DELETE FROM "unsent" WHERE "told_at" < now() - make_interval(days => $3) OR ("person" = $1 AND "browser" IN (
         SELECT "browser" FROM "unsent" WHERE "person" = $1 ORDER BY "told_at" DESC OFFSET $2))`,
      [whose, MOST_BROWSERS, FORGOTTEN_AFTER_DAYS],
    );
  }

  async forget(person: string | null, browser: string): Promise<void> {
    await this.database.manager.query('DELETE FROM "unsent" WHERE "person" = $1 AND "browser" = $2', [
      person ?? WHOEVER_IS_HERE,
      browser,
    ]);
  }

  /** What other browsers of a person had waiting and has not come since, the one heard of last first. */
  async missing(person: string | null, browser: string): Promise<readonly Missing[]> {
    const rows: readonly Row[] = await this.database.manager.query(
      `SELECT "browser", "told_at", "changes", "more" FROM "unsent" WHERE "person" = $1 AND "browser" <> $2
       ORDER BY "told_at" DESC`,
      [person ?? WHOEVER_IS_HERE, browser],
    );
    const come = await this.come(rows.flatMap(({ changes }) => changes));
    return rows
      .map(({ browser, told_at, changes, more }) => ({
        browser,
        toldAt: told_at.toISOString(),
        changes: changes.filter(({ id }) => !come.has(id)),
        more,
      }))
      .filter(({ changes, more }) => changes.length + more > 0);
  }

  /** Ids of the changes that are here after all: readings, and new engines. */
  private async come(changes: readonly UnsentChange[]): Promise<ReadonlySet<string>> {
    const [readings, engines] = (['reading', 'create'] as const).map((kind) =>
      changes.filter((change) => change.kind === kind),
    ) as [UnsentChange[], UnsentChange[]];
    if (readings.length + engines.length === 0) return new Set();
    const rows: readonly { id: string }[] = await this.database.manager.query(
      `SELECT "id" FROM "reading" WHERE "id" = ANY($1) UNION ALL SELECT "id" FROM "job" WHERE "id" = ANY($2)`,
      [readings.map(({ id }) => id), engines.map(({ engine }) => engine)],
    );
    const found = new Set(rows.map(({ id }) => id));
    return new Set([
      ...readings.flatMap(({ id }) => (found.has(id) ? [id] : [])),
      ...engines.flatMap(({ id, engine }) => (found.has(engine) ? [id] : [])),
    ]);
  }
}

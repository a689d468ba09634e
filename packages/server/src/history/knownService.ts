import {
  type Answered,
  bandsOf,
  type EngineType,
  type Feature,
  isSample,
  type OffsetGroup,
  randomEffects,
  SAMPLE_ENGINES,
} from '@fettle/core';
import type { Database } from '../database/Database.js';
import { paramsOf, type Scope } from './knownScope.js';

/** Engines of a group that are told with it, the latest; and lines of a list at most. */
const LATEST = 200;
const MOST_LINES = 500;
/** Stated chances that trials are compared with, and how many standard uncertainties each takes of a normal distribution. */
const LEVELS = [
  { stated: 0.5, times: 0.674_49 },
  { stated: 0.6827, times: 1 },
  { stated: 0.8, times: 1.281_552 },
  { stated: 0.9, times: 1.644_854 },
  { stated: 0.9545, times: 2 },
  { stated: 0.99, times: 2.575_829 },
] as const;

/** The engines that count, by what they are narrowed to; five parameters. */
const COUNTED = `
  counted AS (
    SELECT e."job_id", e."type", e."at" FROM "evidence" e
    WHERE NOT EXISTS (SELECT 1 FROM "left_out" l WHERE l."job_id" = e."job_id")
      AND ($1 = '' OR e."type" = $1)
      AND ($2 = '' OR EXISTS (SELECT 1 FROM "evidence_use" s WHERE s."job_id" = e."job_id" AND s."series" = $2))
      AND ($3 = '' OR $3 = ANY(e."people"))
      AND ($4::date IS NULL OR e."at" >= $4::date) AND ($5::date IS NULL OR e."at" < $5::date + 1)
  )`;

/** What the workshop knows from its engines: each answer is a sum over what was worked out engine by engine. */
export class KnownService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  private rows<Row>(query: string, scope: Scope, more: readonly unknown[] = []): Promise<Row[]> {
    return this.database.manager.query(`WITH ${COUNTED} ${query}`, [...paramsOf(scope), ...more]);
  }

  /** What the engines can be narrowed by. */
  async scope(): Promise<Answered<'knownScope'>> {
    const { manager } = this.database;
    const list = async (query: string): Promise<string[]> =>
      ((await manager.query(`${query} ORDER BY 1 LIMIT ${MOST_LINES}`)) as { one: string }[]).map(({ one }) => one);
    const [{ engines, out, samples }] = await manager.query(
      `SELECT count(*)::int AS "engines", (count(l."job_id"))::int AS "out",
         (count(*) FILTER (WHERE l."job_id" IS NULL AND e."job_id" = ANY($1)))::int AS "samples"
       FROM "evidence" e LEFT JOIN "left_out" l ON l."job_id" = e."job_id"`,
      [SAMPLE_ENGINES],
    );
    return {
      engines: engines - out,
      leftOut: out,
      samples,
      types: await list(`SELECT DISTINCT "type" AS "one" FROM "evidence" WHERE "type" <> ''`),
      series: await list(`SELECT DISTINCT "series" AS "one" FROM "evidence_use" WHERE "series" <> ''`),
      people: await list(`SELECT DISTINCT unnest("people") AS "one" FROM "evidence"`),
    };
  }

  async offsets(scope: Scope): Promise<Answered<'knownOffsets'>> {
    interface Row extends Pick<OffsetGroup, 'type' | 'family' | 'series' | 'fasteners'> {
      readonly id: string;
      readonly name: string;
      readonly at: Date;
      readonly offset: number;
      readonly u: number;
      readonly trials: number;
    }
    const rows = await this.rows<Row>(
      `SELECT c."type", o."family", o."series", o."fasteners", c."job_id" AS "id", job."name", c."at", o."offset_nm" AS "offset",
         o."u", o."trials"
       FROM "evidence_offset" o JOIN counted c ON c."job_id" = o."job_id" JOIN "job" job ON job."id" = o."job_id"
       WHERE ($2 = '' OR o."series" = $2)
       ORDER BY c."at" DESC, c."job_id"`,
      scope,
    );
    const groups = new Map<string, Row[]>();
    for (const row of rows) {
      const key = JSON.stringify([row.type, row.family, row.series, row.fasteners]);
      const own = groups.get(key);
      if (own) own.push(row);
      else groups.set(key, [row]);
    }
    return {
      groups: [...groups.values()]
        .map((own): OffsetGroup => {
          const { type, family, series, fasteners } = own[0]!;
          const found = randomEffects(own.map(({ offset, u }) => ({ value: offset, u })))!;
          const latest = own
            .slice(0, LATEST)
            .map(({ id, name, at, offset, u, trials }) => ({ id, name, at: at.toISOString(), offset, u, trials }));
          const samples = own.filter(({ id }) => isSample(id)).length;
          return { type, family, series, fasteners, samples, ...found, latest };
        })
        .sort((one, other) => other.engines - one.engines),
    };
  }

  /** Bands that were never seen stand among the others: that they never come is known as well. */
  async marks(scope: Scope): Promise<Answered<'knownMarks'>> {
    interface Row {
      readonly type: string;
      readonly feature: Feature;
      readonly mark: string;
      readonly count: number;
      readonly read: number;
      readonly mean: number | null;
      readonly deviation: number | null;
    }
    const rows = await this.rows<Row>(
      `SELECT c."type", p."feature", p."mark", count(*)::int AS "count", count(p."size")::int AS "read",
         avg(p."size")::float8 AS "mean", stddev_samp(p."size")::float8 AS "deviation"
       FROM "evidence_part" p JOIN counted c ON c."job_id" = p."job_id"
       WHERE p."mark" <> '' GROUP BY 1, 2, 3 ORDER BY 1, 2, 3`,
      scope,
    );
    const sheets = await this.sheetsOf([...new Set(rows.map(({ type }) => type))]);
    const groups = new Map<string, Row[]>();
    for (const row of rows) {
      const key = JSON.stringify([row.type, row.feature]);
      groups.set(key, [...(groups.get(key) ?? []), row]);
    }
    return {
      features: [...groups.values()].map((own) => {
        const { type, feature } = own[0]!;
        const bands = bandsOf(sheets.get(type) ?? null, feature);
        const seen = new Map(own.map((row) => [row.mark, row]));
        const names = [...new Set([...bands.map(({ mark }) => mark), ...seen.keys()])];
        return {
          type,
          feature,
          bands: names.map((mark) => {
            const band = bands.find((one) => one.mark === mark);
            const { count = 0, read = 0, mean = null, deviation = null } = seen.get(mark) ?? {};
            return { mark, low: band?.low ?? null, high: band?.high ?? null, count, read, mean, deviation };
          }),
        };
      }),
    };
  }

  /** The data sheets of some types, as the last engine of each has it. */
  private async sheetsOf(types: readonly string[]): Promise<Map<string, EngineType>> {
    const rows: { type: string; sheet: EngineType | null }[] = await this.database.manager.query(
      `SELECT DISTINCT ON (e."type") e."type", job."document"->'sheet' AS "sheet"
       FROM "evidence" e JOIN "job" job ON job."id" = e."job_id" WHERE e."type" = ANY($1) ORDER BY e."type", e."at" DESC`,
      [types],
    );
    return new Map(rows.flatMap(({ type, sheet }) => (sheet ? [[type, sheet] as const] : [])));
  }

  async walls(scope: Scope): Promise<Answered<'knownWalls'>> {
    return {
      walls: await this.rows(
        `SELECT w."family", w."series", w."grade", w."half", w."low"::float8 AS "low", w."high"::float8 AS "high",
           count(*)::int AS "engines", avg(w."wall")::float8 AS "mean", stddev_samp(w."wall")::float8 AS "deviation",
           min(w."wall")::float8 AS "smallest", max(w."wall")::float8 AS "largest"
         FROM "evidence_wall" w JOIN counted c ON c."job_id" = w."job_id"
         WHERE ($2 = '' OR w."series" = $2)
         GROUP BY 1, 2, 3, 4, 5, 6 ORDER BY 1, 2, 8, 4 LIMIT $6`,
        scope,
        [MOST_LINES],
      ),
    };
  }

  async use(scope: Scope): Promise<Answered<'knownUse'>> {
    const uses: Answered<'knownUse'>['uses'] = await this.rows(
      `, taken AS (
         SELECT u."family", u."series", u."grade", u."half", c."at", u."count"
         FROM "evidence_use" u JOIN counted c ON c."job_id" = u."job_id" WHERE ($2 = '' OR u."series" = $2)
       ), monthly AS (
         SELECT "family", "series", "grade", "half",
           jsonb_agg(jsonb_build_object('month', "month", 'count', "count") ORDER BY "month") AS "months", sum("count")::int AS "total"
         FROM (
           SELECT "family", "series", "grade", "half", to_char("at" AT TIME ZONE 'UTC', 'YYYY-MM') AS "month", sum("count")::int AS "count"
           FROM taken GROUP BY 1, 2, 3, 4, 5
         ) one GROUP BY 1, 2, 3, 4
       ), byEngine AS (
         SELECT "family", "series", "grade", "half",
           jsonb_agg(jsonb_build_object('pieces', "count", 'engines', "engines") ORDER BY "count") AS "taken"
         FROM (SELECT "family", "series", "grade", "half", "count", count(*)::int AS "engines" FROM taken GROUP BY 1, 2, 3, 4, 5) one
         GROUP BY 1, 2, 3, 4
       )
       SELECT * FROM monthly JOIN byEngine USING ("family", "series", "grade", "half")
       ORDER BY "total" DESC, 1, 2, 3, 4 LIMIT $6`,
      scope,
      [MOST_LINES],
    );
    const [span] = await this.rows<{ months: number; engines: number }>(
      `SELECT coalesce(extract(epoch FROM coalesce($5::timestamptz, now()) - coalesce($4::timestamptz, min("at"))) / 2629746, 0)::float8
         AS "months", count(*)::int AS "engines" FROM counted`,
      scope,
    );
    return { months: Math.max(0, span!.months), engines: span!.engines, onBench: await this.onBench(scope.type), uses };
  }

  /** Engines that are still to take their shells: open, not samples left out, and without evidence, which begins with an accepted selection. */
  private async onBench(type: string): Promise<number> {
    const [row]: { count: number }[] = await this.database.manager.query(
      `SELECT count(*)::int AS "count" FROM "job" j
       WHERE j."deleted_at" IS NULL AND ($1 = '' OR j."document"->'sheet'->>'name' = $1)
         AND NOT EXISTS (SELECT 1 FROM "evidence" e WHERE e."job_id" = j."id")
         AND NOT EXISTS (SELECT 1 FROM "left_out" l WHERE l."job_id" = j."id")`,
      [type],
    );
    return row!.count;
  }

  async readers(scope: Scope): Promise<Answered<'knownReaders'>> {
    const sums = `sum(r."readings")::int AS "readings", sum(r."slips")::int AS "slips", sum(r."repeats")::int AS "repeats",
      CASE WHEN sum(r."repeats") > 0 THEN sqrt(sum(r."squares") / sum(r."repeats") / 2) END AS "repeatability"`;
    const joined = `"evidence_reading" r JOIN counted c ON c."job_id" = r."job_id"`;
    return {
      people: await this.rows(
        `SELECT r."person", ${sums} FROM ${joined} GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT $6`,
        scope,
        [MOST_LINES],
      ),
      instruments: await this.rows(
        `SELECT r."instrument" AS "id", max(coalesce(i."number", '')) AS "name", ${sums}
         FROM ${joined} LEFT JOIN "instrument" i ON i."id"::text = r."instrument"
         WHERE r."instrument" <> '' GROUP BY 1 ORDER BY 3 DESC, 1 LIMIT $6`,
        scope,
        [MOST_LINES],
      ),
      kinds: await this.rows(
        `SELECT i."document"->>'kind' AS "kind", count(DISTINCT i."id")::int AS "instruments", ${sums}
         FROM ${joined} JOIN "instrument" i ON i."id"::text = r."instrument" GROUP BY 1 ORDER BY 3 DESC, 1 LIMIT $6`,
        scope,
        [MOST_LINES],
      ),
    };
  }

  async trust(scope: Scope): Promise<Answered<'knownTrust'>> {
    const counts = LEVELS.map(
      ({ times }, at) => `count(*) FILTER (WHERE abs(k."off") <= ${times} * k."u")::int AS "n${at}"`,
    );
    const [row] = await this.rows<Record<string, number | null>>(
      `SELECT count(*)::int AS "checks", count(DISTINCT k."job_id")::int AS "engines",
         sqrt(avg((k."off" / nullif(k."u", 0)) ^ 2))::float8 AS "ratio", ${counts.join(', ')}
       FROM "evidence_check" k JOIN counted c ON c."job_id" = k."job_id"
       WHERE ($2 = '' OR k."series" = $2) AND ($3 = '' OR k."by" = $3)`,
      scope,
    );
    return {
      checks: row!.checks!,
      engines: row!.engines!,
      ratio: row!.ratio ?? null,
      levels: LEVELS.map(({ stated }, at) => ({ stated, inside: row![`n${at}`]! })),
    };
  }
}

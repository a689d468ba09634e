import type { MigrationInterface, QueryRunner } from 'typeorm';

/** An instrument that an engine had of its own, under a name, before the workshop had a register. */
interface OwnInstrument {
  readonly role: string;
  readonly unit: string;
  readonly own: {
    readonly name: string;
    readonly needle: string | null;
    readonly resolution: number;
    readonly setting: number;
    readonly repeatability: number;
    readonly operator: number;
    readonly calibratedOn: string | null;
    readonly calibrateAfterMonths: number | null;
    readonly holder: string;
    readonly range?: unknown;
    readonly ball?: number | null;
  };
  readonly by: string;
}

const KINDS: Readonly<Record<string, string>> = {
  boreGauge: 'boreGauge',
  micrometer: 'outsideMicrometer',
  ballMicrometer: 'ballMicrometer',
};

/** Two zero checks that differ by more make readings suspect, nm: 0.002 mm or 0.0001 in, common practice. */
const DRIFT: Readonly<Record<string, number>> = { mm: 2_000, in: 2_540 };

/** The longest number that the register takes. */
const LONGEST_NUMBER = 60;

/** A number that no other has: a bore gauge and a micrometer may both be number 1, and the second says which it is. */
function freeNumber(name: string, role: string, taken: ReadonlySet<string>): string {
  let number = name;
  for (let nth = 1; taken.has(number.toLowerCase()); nth += 1) {
    const ending = nth === 1 ? ` (${role})` : ` (${role} ${nth})`;
    number = name.slice(0, LONGEST_NUMBER - ending.length) + ending;
  }
  return number;
}

/** The register of instruments: calibrations with their certificates, zero checks. Instruments that engines had of their own go into it. */
export class Instruments1795000000012 implements MigrationInterface {
  readonly name = 'Instruments1795000000012';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "instrument" (
        "id" uuid PRIMARY KEY,
        "revision" int NOT NULL,
        "number" text NOT NULL,
        "document" jsonb NOT NULL,
        "updated_at" timestamptz NOT NULL,
        "updated_by" text NOT NULL
      )`);
    await runner.query(`CREATE UNIQUE INDEX "instrument_number" ON "instrument" (lower("number"))`);
    await runner.query(`
      CREATE TABLE "calibration" (
        "id" uuid PRIMARY KEY,
        "instrument_id" uuid NOT NULL REFERENCES "instrument" ("id"),
        "done_on" date NOT NULL,
        "document" jsonb NOT NULL,
        "wrong" jsonb,
        "file_name" text,
        "file_type" text,
        "file" bytea,
        "by" text NOT NULL,
        "at" timestamptz NOT NULL
      )`);
    await runner.query(`CREATE INDEX "calibration_instrument" ON "calibration" ("instrument_id", "done_on")`);
    await runner.query(`
      CREATE TABLE "zero_check" (
        "id" uuid PRIMARY KEY,
        "instrument_id" uuid NOT NULL REFERENCES "instrument" ("id"),
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        "standard" int8,
        "shown" int8 NOT NULL,
        "is_reset" boolean NOT NULL
      )`);
    await runner.query(`CREATE INDEX "zero_check_instrument" ON "zero_check" ("instrument_id", "at")`);
    await runner.query(`
      CREATE TABLE "gauge_study" (
        "id" uuid PRIMARY KEY,
        "instrument_id" uuid NOT NULL REFERENCES "instrument" ("id"),
        "plan" jsonb NOT NULL,
        "by" text NOT NULL,
        "at" timestamptz NOT NULL,
        "taken_at" timestamptz
      )`);
    await runner.query(`CREATE INDEX "gauge_study_instrument" ON "gauge_study" ("instrument_id", "at")`);
    await runner.query(`
      CREATE TABLE "study_entry" (
        "study_id" uuid NOT NULL REFERENCES "gauge_study" ("id"),
        "part" text NOT NULL,
        "person" text NOT NULL,
        "trial" int NOT NULL,
        "text" text NOT NULL,
        "nm" int8 NOT NULL,
        "by" text NOT NULL,
        "at" timestamptz NOT NULL,
        PRIMARY KEY ("study_id", "part", "person", "trial")
      )`);
    await runner.query(
      `CREATE INDEX "reading_instrument" ON "reading" (("taken"->>'instrumentId')) WHERE "taken" ? 'instrumentId'`,
    );
    await this.carryOver(runner);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "reading_instrument"`);
    for (const table of ['study_entry', 'gauge_study', 'zero_check', 'calibration', 'instrument'])
      await runner.query(`DROP TABLE "${table}"`);
  }

  /** One entry for each kind and name, as the engine changed last has it. What engines keep of their own stays with them. */
  private async carryOver(runner: QueryRunner): Promise<void> {
    const found: OwnInstrument[] = await runner.query(`
      SELECT DISTINCT ON ("role", lower("own"->>'name')) "role", "job"."unit", "own", "job"."updated_by" AS "by"
      FROM "job", jsonb_each("job"."document"->'instruments') AS "each" ("role", "own")
      WHERE jsonb_typeof("job"."document"->'instruments') = 'object' AND trim("own"->>'name') <> ''
      ORDER BY "role", lower("own"->>'name'), "job"."updated_at" DESC, "job"."id"`);
    const taken = new Set<string>();
    for (const { role, unit, own, by } of found) {
      const kind = KINDS[role];
      if (kind === undefined) continue;
      const number = freeNumber(own.name.trim(), role, taken);
      taken.add(number.toLowerCase());
      const document = {
        number,
        kind,
        unit,
        range: own.range ?? null,
        size: null,
        ball: own.ball ?? null,
        resolution: own.resolution,
        // Which way a needle goes is asked, and never assumed.
        needle: role === 'boreGauge' ? own.needle : null,
        setting: own.setting,
        repeatability: own.repeatability,
        operator: own.operator,
        basis: 'as it stood in an engine, before the register',
        drift: DRIFT[unit] ?? DRIFT.mm,
        calibrateAfterMonths: own.calibrateAfterMonths,
        holder: own.holder,
        place: '',
        state: 'inUse',
      };
      const [{ id }] = await runner.query(
        `INSERT INTO "instrument" ("id", "revision", "number", "document", "updated_at", "updated_by")
         VALUES (gen_random_uuid(), 1, $1, $2, now(), $3) RETURNING "id"`,
        [number, document, by],
      );
      if (own.calibratedOn === null) continue;
      await runner.query(
        `INSERT INTO "calibration" ("id", "instrument_id", "done_on", "document", "by", "at")
         VALUES (gen_random_uuid(), $1, $2, $3, $4, now())`,
        [id, own.calibratedOn, { due: null, laboratory: '', certificate: '', points: [] }, by],
      );
    }
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Counts a try at a secret before it is judged, at every place where it counts, in one statement: of many at the same moment each waits for the
 * one before it. Each place forgets one wrong try in so many seconds ("decays"); "frees" of them are free, then waits double up to the longest.
 * Returns how long to wait, s: 0 where the try may be judged. Where it is not judged it is not counted either.
 * Rows are locked in the order of the keys, which the caller sorts.
 */
const TAKE_TRY = `
  CREATE FUNCTION "take_try"("keys" text[], "accounts" text[], "frees" int[], "decays" float[], "first_wait" float, "longest_wait" float)
  RETURNS float LANGUAGE plpgsql AS $$
  DECLARE
    wait float := 0;
    row record;
    counts float[] := '{}';
    moment timestamptz;
  BEGIN
    FOR i IN 1 .. array_length("keys", 1) LOOP
      INSERT INTO "wrong_try" AS w ("key", "account", "times", "last_at", "locked_until")
        VALUES ("keys"[i], "accounts"[i], 0, clock_timestamp(), '-infinity')
        ON CONFLICT ("key") DO UPDATE SET "account" = excluded."account"
        RETURNING w."times", w."last_at", w."locked_until" INTO row;
      moment := clock_timestamp();
      wait := greatest(wait, CASE WHEN row."locked_until" > moment THEN extract(epoch FROM row."locked_until" - moment) ELSE 0 END);
      counts := counts || greatest(0, row."times" - extract(epoch FROM moment - row."last_at") / "decays"[i]) + 1;
    END LOOP;
    IF wait > 0 THEN
      RETURN wait;
    END IF;
    FOR i IN 1 .. array_length("keys", 1) LOOP
      UPDATE "wrong_try" SET "times" = counts[i], "last_at" = moment,
        -- A little forgetting between two tries frees none.
        "locked_until" = CASE WHEN counts[i] <= "frees"[i] - 0.5 THEN '-infinity'
          ELSE moment + make_interval(secs => least("longest_wait", "first_wait" * 2 ^ least(20, round(counts[i]) - "frees"[i]))) END
        WHERE "key" = "keys"[i];
    END LOOP;
    RETURN 0;
  END $$`;

/** What a reading says stays; only that another one replaces it is written beside it. */
const READING_SAYS = [
  'id',
  'job_id',
  'feature',
  'station',
  'slot',
  'text',
  'unit',
  'setting',
  'nm',
  'replaces',
  'by',
  'at',
  'received_at',
  'taken',
  'device',
] as const;

/** Tables that are only ever added to. */
const STAY = ['drawer_movement', 'type_revision'] as const;

/** Tries are counted before they are judged; devices know who let them in; movements, revisions and readings stay as they were said. */
export class Locks1795000000009 implements MigrationInterface {
  readonly name = 'Locks1795000000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "wrong_try"`);
    await runner.query(`
      CREATE TABLE "wrong_try" (
        "key" text PRIMARY KEY,
        "account" text,
        "times" float NOT NULL,
        "last_at" timestamptz NOT NULL,
        "locked_until" timestamptz NOT NULL
      )`);
    await runner.query(TAKE_TRY);
    await runner.query(`ALTER TABLE "device" ADD COLUMN "let_in_by_id" uuid`);
    await runner.query(
      `UPDATE "device" SET "let_in_by_id" = "person"."id" FROM "person" WHERE "person"."name" = "device"."let_in_by"`,
    );
    await runner.query(`ALTER TABLE "invitation" ADD COLUMN "by_id" uuid`);
    // What was typed as a name may have been a password: where nobody has such a name it goes.
    await runner.query(`ALTER TABLE "event" DISABLE TRIGGER "event_stays"`);
    await runner.query(`
      UPDATE "event" SET "by" = '', "subject" = 'a name that nobody has'
      WHERE "what" = 'sign-in-failed' AND NOT EXISTS (
        SELECT FROM "person" WHERE "person"."name_key" = lower(normalize(trim("event"."subject"), NFKC)))`);
    await runner.query(`ALTER TABLE "event" ENABLE TRIGGER "event_stays"`);
    for (const table of STAY) {
      await runner.query(`
        CREATE TRIGGER "${table}_stays" BEFORE UPDATE OR DELETE OR TRUNCATE ON "${table}"
        FOR EACH STATEMENT EXECUTE FUNCTION "keep_as_it_is"()`);
    }
    const said = READING_SAYS.map((column) => `"${column}"`).join(', ');
    await runner.query(`
      CREATE TRIGGER "reading_stays" BEFORE UPDATE OF ${said} OR DELETE OR TRUNCATE ON "reading"
      FOR EACH STATEMENT EXECUTE FUNCTION "keep_as_it_is"()`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [...STAY, 'reading']) await runner.query(`DROP TRIGGER "${table}_stays" ON "${table}"`);
    await runner.query(`ALTER TABLE "invitation" DROP COLUMN "by_id"`);
    await runner.query(`ALTER TABLE "device" DROP COLUMN "let_in_by_id"`);
    await runner.query(`DROP FUNCTION "take_try"(text[], text[], int[], float[], float, float)`);
    await runner.query(`DROP TABLE "wrong_try"`);
    await runner.query(`
      CREATE TABLE "wrong_try" (
        "key" text PRIMARY KEY,
        "times" int NOT NULL,
        "last_at" timestamptz NOT NULL,
        "locked_until" timestamptz NOT NULL
      )`);
  }
}

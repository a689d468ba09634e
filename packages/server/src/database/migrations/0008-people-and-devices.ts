import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables that say what was done, and the time each row of them is told by. */
const DONE = [
  ['change', 'at'],
  ['reading', 'received_at'],
  ['drawer_movement', 'at'],
  ['type_revision', 'at'],
  ['signed_sheet', 'signed_at'],
] as const;

/**
 * Keeps readings in the order they come, in one round trip and one transaction. What was checked against a layout counts only while that is
 * the engine's: its version comes along. What came of each: made, known (it was sent before, or its id is another's), stale (something else
 * stands there), moved (the engine has another version), or that there is no such engine, or it was deleted.
 */
const KEEP_READINGS = `
  CREATE FUNCTION "keep_readings"("items" jsonb)
  RETURNS TABLE ("place" int, "outcome" text, "other" uuid) LANGUAGE plpgsql AS $$
  DECLARE
    item record;
    engine record;
    is_free boolean;
    kept jsonb[] := '{}';
  BEGIN
    -- In one order for all who do this, so that nobody waits in a circle.
    PERFORM 1 FROM "job" WHERE "job"."id" IN (SELECT (value->>'jobId')::uuid FROM jsonb_array_elements("items"))
      ORDER BY "job"."id" FOR UPDATE;
    FOR item IN
      SELECT (at - 1)::int AS at, (value->>'id')::uuid AS id, (value->>'jobId')::uuid AS job_id, (value->>'version')::int AS version,
        value->>'feature' AS feature, (value->>'station')::int AS station, value->>'slot' AS slot, (value->>'replaces')::uuid AS replaces,
        value
      FROM jsonb_array_elements("items") WITH ORDINALITY AS given (value, at)
    LOOP
      "place" := item.at;
      "other" := NULL;
      SELECT "job"."version", "job"."deleted_at" INTO engine FROM "job" WHERE "job"."id" = item.job_id;
      IF NOT FOUND THEN
        "outcome" := 'no-engine';
      ELSIF engine.deleted_at IS NOT NULL THEN
        "outcome" := 'deleted';
      ELSIF EXISTS (SELECT FROM "reading" WHERE "reading"."id" = item.id) THEN
        "outcome" := 'known';
        "other" := item.id;
      ELSIF engine.version <> item.version THEN
        "outcome" := 'moved';
      ELSE
        -- What stands there is found by its id, or by the index that allows one at a place: either is as quick however much was read.
        is_free := true;
        IF item.replaces IS NOT NULL THEN
          UPDATE "reading" SET "replaced_by" = item.id
            WHERE "reading"."id" = item.replaces AND "reading"."job_id" = item.job_id AND "reading"."feature" = item.feature
              AND "reading"."station" = item.station AND "reading"."slot" = item.slot AND "reading"."replaced_by" IS NULL;
          is_free := FOUND;
        END IF;
        IF is_free THEN
          INSERT INTO "reading" ("id", "job_id", "feature", "station", "slot", "text", "unit", "setting", "nm", "replaces", "by", "at",
              "received_at", "taken", "device")
            VALUES (item.id, item.job_id, item.feature, item.station, item.slot, item.value->>'text', item.value->>'unit',
              (item.value->>'setting')::bigint, (item.value->>'nm')::bigint, item.replaces, item.value->>'by',
              (item.value->>'at')::timestamptz, (item.value->>'receivedAt')::timestamptz, nullif(item.value->'taken', 'null'),
              (item.value->>'device')::uuid)
            ON CONFLICT ("job_id", "feature", "station", "slot") WHERE "replaced_by" IS NULL DO NOTHING;
          is_free := FOUND;
        END IF;
        IF is_free THEN
          "outcome" := 'made';
          kept := kept || item.value;
        ELSE
          "outcome" := 'stale';
          SELECT "reading"."id" INTO "other" FROM "reading"
            WHERE "reading"."job_id" = item.job_id AND "reading"."feature" = item.feature AND "reading"."station" = item.station
              AND "reading"."slot" = item.slot AND "reading"."replaced_by" IS NULL;
        END IF;
      END IF;
      RETURN NEXT;
    END LOOP;
    -- Each engine once, however much was read of it.
    UPDATE "job" SET "revision" = "job"."revision" + made.many, "updated_at" = made.at, "updated_by" = made.by
      FROM (
        SELECT (value->>'jobId')::uuid AS job_id, count(*)::int AS many, max((value->>'receivedAt')::timestamptz) AS at,
          (array_agg(value->>'by' ORDER BY nth DESC))[1] AS by
        FROM unnest(kept) WITH ORDINALITY AS one (value, nth) GROUP BY 1
      ) AS made
      WHERE "job"."id" = made.job_id;
  END $$`;

/** Accounts, devices that were let in, sessions; and what was done by whom from where, which nothing changes afterwards. */
export class PeopleAndDevices1795000000008 implements MigrationInterface {
  readonly name = 'PeopleAndDevices1795000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "person" (
        "id" uuid PRIMARY KEY,
        "name" text NOT NULL,
        "name_key" text NOT NULL UNIQUE,
        "role" text NOT NULL CHECK ("role" IN ('owner', 'fitter', 'stores', 'reader')),
        "password" text NOT NULL,
        "must_change" boolean NOT NULL,
        "pin" text,
        "created_at" timestamptz NOT NULL,
        "created_by" text NOT NULL,
        "retired_at" timestamptz,
        "sessions_from" timestamptz NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "device" (
        "id" uuid PRIMARY KEY,
        "name" text NOT NULL,
        "token" text NOT NULL UNIQUE,
        "let_in_at" timestamptz NOT NULL,
        "let_in_by" text NOT NULL,
        "seen_at" timestamptz NOT NULL,
        "revoked_at" timestamptz
      )`);
    await runner.query(`
      CREATE TABLE "invitation" (
        "code" text PRIMARY KEY,
        "by" text NOT NULL,
        "to" text NOT NULL,
        "until" timestamptz NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "wrong_try" (
        "key" text PRIMARY KEY,
        "times" int NOT NULL,
        "last_at" timestamptz NOT NULL,
        "locked_until" timestamptz NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "session" ("sid" varchar PRIMARY KEY, "sess" json NOT NULL, "expire" timestamp(6) NOT NULL)`);
    await runner.query(`CREATE TABLE "secret" ("name" text PRIMARY KEY, "value" text NOT NULL)`);
    await runner.query(`CREATE INDEX "session_expire" ON "session" ("expire")`);
    await runner.query(`
      CREATE TABLE "event" (
        "id" bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        "device" uuid,
        "kind" text NOT NULL,
        "what" text NOT NULL,
        "subject_id" text,
        "subject" text NOT NULL,
        "detail" text NOT NULL
      )`);
    await runner.query(`CREATE INDEX "event_at" ON "event" ("at" DESC)`);
    for (const [table, at] of DONE) {
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "device" uuid`);
      await runner.query(`CREATE INDEX "${table}_done_at" ON "${table}" ("${at}" DESC)`);
    }
    await runner.query(`
      CREATE VIEW "audit" AS
        SELECT 'c' || "change"."id" AS "id", "change"."at", "change"."by", "change"."device", 'engine' AS "kind",
               "change"."kind" AS "what", "change"."job_id"::text AS "subject_id", "job"."name" AS "subject",
               'version ' || "change"."version" AS "detail"
        FROM "change" JOIN "job" ON "job"."id" = "change"."job_id"
        UNION ALL
        SELECT 'r' || "reading"."id", "received_at", "reading"."by", "reading"."device", 'reading',
               CASE WHEN "text" = '' THEN 'taken-back' ELSE 'read' END, "job_id"::text, "job"."name",
               jsonb_build_array("feature", "station", "slot", "text")::text
        FROM "reading" JOIN "job" ON "job"."id" = "reading"."job_id"
        UNION ALL
        SELECT 'm' || "id", "at", "by", "device", 'drawer', "kind", NULL, 'Workshop drawer',
               jsonb_array_length("changes") || ' kinds' || CASE WHEN "note" = '' THEN '' ELSE ': ' || "note" END
        FROM "drawer_movement"
        UNION ALL
        SELECT 't' || "type_id" || '_' || "revision", "at", "by", "device", 'type',
               CASE WHEN "revision" = 1 THEN 'created' ELSE 'changed' END, "type_id"::text, "type"->>'name',
               'revision ' || "revision"
        FROM "type_revision"
        UNION ALL
        SELECT 's' || "job_id" || '_' || "signed_sheet"."revision", "signed_at", "signed_by", "signed_sheet"."device", 'sheet', 'signed',
               "job_id"::text, "job"."name", 'sheet ' || "signed_sheet"."revision"
        FROM "signed_sheet" JOIN "job" ON "job"."id" = "signed_sheet"."job_id"
        UNION ALL
        SELECT 'e' || "id", "at", "by", "device", "kind", "what", "subject_id", "subject", "detail" FROM "event"`);
    // What was done stays said: a change of such a row is refused by the database itself.
    await runner.query(`
      CREATE FUNCTION "keep_as_it_is"() RETURNS trigger LANGUAGE plpgsql AS $$
      BEGIN
        RAISE EXCEPTION 'what was done stays as it was said';
      END $$`);
    await runner.query(KEEP_READINGS);
    for (const table of ['event', 'change', 'signed_sheet']) {
      await runner.query(`
        CREATE TRIGGER "${table}_stays" BEFORE UPDATE OR DELETE OR TRUNCATE ON "${table}"
        FOR EACH STATEMENT EXECUTE FUNCTION "keep_as_it_is"()`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['event', 'change', 'signed_sheet']) {
      await runner.query(`DROP TRIGGER "${table}_stays" ON "${table}"`);
    }
    await runner.query(`DROP FUNCTION "keep_as_it_is"()`);
    await runner.query(`DROP FUNCTION "keep_readings"(jsonb)`);
    await runner.query(`DROP VIEW "audit"`);
    for (const [table] of DONE) {
      await runner.query(`DROP INDEX "${table}_done_at"`);
      await runner.query(`ALTER TABLE "${table}" DROP COLUMN "device"`);
    }
    for (const table of ['event', 'session', 'secret', 'wrong_try', 'invitation', 'device', 'person']) {
      await runner.query(`DROP TABLE "${table}"`);
    }
  }
}

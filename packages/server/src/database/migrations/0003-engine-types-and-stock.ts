import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The library of engine types with every revision, what was done to the workshop's drawer, and kits. */
export class EngineTypesAndStock1795000000003 implements MigrationInterface {
  readonly name = 'EngineTypesAndStock1795000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "engine_type" (
        "id" uuid PRIMARY KEY,
        "revision" integer NOT NULL,
        "archived_at" timestamptz
      )`);
    await runner.query(`
      CREATE TABLE "type_revision" (
        "type_id" uuid NOT NULL REFERENCES "engine_type" ("id"),
        "revision" integer NOT NULL,
        "type" jsonb NOT NULL,
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        PRIMARY KEY ("type_id", "revision")
      )`);
    await runner.query(`
      CREATE TABLE "drawer_movement" (
        "id" uuid PRIMARY KEY,
        "at" timestamptz NOT NULL,
        "by" text NOT NULL,
        "kind" text NOT NULL,
        "note" text NOT NULL,
        "changes" jsonb NOT NULL,
        "undoes" uuid UNIQUE REFERENCES "drawer_movement" ("id")
      )`);
    await runner.query(`CREATE INDEX "drawer_movement_at" ON "drawer_movement" ("at")`);
    await runner.query(`
      CREATE TABLE "kit" (
        "id" uuid PRIMARY KEY,
        "version" integer NOT NULL,
        "kit" jsonb NOT NULL,
        "updated_at" timestamptz NOT NULL,
        "updated_by" text NOT NULL
      )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['kit', 'drawer_movement', 'type_revision', 'engine_type']) {
      await runner.query(`DROP TABLE "${table}"`);
    }
  }
}

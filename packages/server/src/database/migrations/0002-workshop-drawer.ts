import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The workshop's halves, and which engine has reserved or used how many of each. */
export class WorkshopDrawer1795000000002 implements MigrationInterface {
  readonly name = 'WorkshopDrawer1795000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "drawer_line" (
        "id" uuid PRIMARY KEY,
        "version" integer NOT NULL,
        "half" jsonb NOT NULL,
        "updated_at" timestamptz NOT NULL,
        "updated_by" text NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "reservation" (
        "job_id" uuid NOT NULL REFERENCES "job" ("id"),
        "line_id" uuid NOT NULL REFERENCES "drawer_line" ("id"),
        "count" integer NOT NULL CHECK ("count" > 0),
        "state" text NOT NULL CHECK ("state" IN ('reserved', 'used')),
        PRIMARY KEY ("job_id", "line_id")
      )`);
    await runner.query(`CREATE INDEX "reservation_of_line" ON "reservation" ("line_id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "reservation"`);
    await runner.query(`DROP TABLE "drawer_line"`);
  }
}

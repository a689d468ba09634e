import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Signed sheets, which stay as they were; and pictures of what was found while an engine was put together. */
export class SheetsAndPhotos1795000000007 implements MigrationInterface {
  readonly name = 'SheetsAndPhotos1795000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "signed_sheet" (
        "job_id" uuid NOT NULL REFERENCES "job" ("id"),
        "revision" int NOT NULL,
        "signed_at" timestamptz NOT NULL,
        "signed_by" text NOT NULL,
        "reason" text NOT NULL,
        "open" jsonb NOT NULL,
        "sheet" jsonb NOT NULL,
        "hash" text NOT NULL,
        PRIMARY KEY ("job_id", "revision")
      )`);
    await runner.query(`
      CREATE TABLE "photo" (
        "id" uuid PRIMARY KEY,
        "job_id" uuid NOT NULL REFERENCES "job" ("id"),
        "type" text NOT NULL,
        "data" bytea NOT NULL,
        "by" text NOT NULL,
        "at" timestamptz NOT NULL
      )`);
    await runner.query(`CREATE INDEX "photo_job" ON "photo" ("job_id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "photo"`);
    await runner.query(`DROP TABLE "signed_sheet"`);
  }
}

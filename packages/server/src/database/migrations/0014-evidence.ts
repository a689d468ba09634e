import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What engines tell the workshop, worked out once for each engine: so a page costs what it shows. All of it but `left_out` can be worked out anew; the
 * engines are marked so that it is.
 */
export class Evidence1795000000014 implements MigrationInterface {
  readonly name = 'Evidence1795000000014';

  async up(runner: QueryRunner): Promise<void> {
    const engine = `"job_id" uuid NOT NULL REFERENCES "job" ("id")`;
    await runner.query(`
      CREATE TABLE "evidence" (
        "job_id" uuid PRIMARY KEY REFERENCES "job" ("id"),
        "type" text NOT NULL,
        "at" timestamptz NOT NULL,
        "people" text[] NOT NULL
      )`);
    await runner.query(`CREATE INDEX "evidence_at" ON "evidence" ("at")`);
    await runner.query(`
      CREATE TABLE "evidence_offset" (
        ${engine}, "family" text NOT NULL, "series" text NOT NULL, "fasteners" text NOT NULL,
        "offset_nm" float8 NOT NULL, "u" float8 NOT NULL, "trials" int NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "evidence_check" (
        ${engine}, "station" text NOT NULL, "family" text NOT NULL, "series" text NOT NULL, "at" timestamptz NOT NULL,
        "by" text NOT NULL, "off" float8 NOT NULL, "u" float8 NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "evidence_part" (
        ${engine}, "feature" text NOT NULL, "number" int NOT NULL, "mark" text NOT NULL, "size" int8
      )`);
    await runner.query(`
      CREATE TABLE "evidence_wall" (
        ${engine}, "shell" text NOT NULL, "family" text NOT NULL, "series" text NOT NULL, "grade" text NOT NULL,
        "half" text NOT NULL, "wall" int8 NOT NULL, "low" int8, "high" int8
      )`);
    await runner.query(`
      CREATE TABLE "evidence_use" (
        ${engine}, "family" text NOT NULL, "series" text NOT NULL, "grade" text NOT NULL, "half" text NOT NULL,
        "count" int NOT NULL
      )`);
    await runner.query(`
      CREATE TABLE "evidence_reading" (
        ${engine}, "person" text NOT NULL, "instrument" text NOT NULL, "readings" int NOT NULL, "slips" int NOT NULL,
        "repeats" int NOT NULL, "squares" float8 NOT NULL
      )`);
    for (const table of ['offset', 'check', 'part', 'wall', 'use', 'reading']) {
      await runner.query(`CREATE INDEX "evidence_${table}_job" ON "evidence_${table}" ("job_id")`);
    }
    await runner.query(`
      CREATE TABLE "left_out" (
        "job_id" uuid PRIMARY KEY REFERENCES "job" ("id"),
        "reason" text NOT NULL,
        "by" text NOT NULL,
        "at" timestamptz NOT NULL
      )`);
    await runner.query(`UPDATE "job" SET "progress_of" = NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['_offset', '_check', '_part', '_wall', '_use', '_reading', '']) {
      await runner.query(`DROP TABLE "evidence${table}"`);
    }
    await runner.query(`DROP TABLE "left_out"`);
  }
}

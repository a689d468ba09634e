import { engineTypeSchema, headOfType } from '@fettle/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What lists show stands in columns of its own, so that a list reads no document; how far an engine is is kept with it. */
export class Lists1795000000004 implements MigrationInterface {
  readonly name = 'Lists1795000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE "job"
        ADD COLUMN "name" text,
        ADD COLUMN "unit" text,
        ADD COLUMN "mains" integer,
        ADD COLUMN "rods" integer,
        ADD COLUMN "progress" jsonb,
        ADD COLUMN "progress_of" integer`);
    await runner.query(`
      UPDATE "job" SET
        "name" = "document"->>'name',
        "unit" = "document"->>'unit',
        "mains" = ("document"->'layout'->>'mains')::integer,
        "rods" = (SELECT coalesce(sum((pin->>'rods')::integer), 0)
                  FROM jsonb_array_elements("document"->'layout'->'pins') AS pin)`);
    await runner.query(`
      ALTER TABLE "job"
        ALTER COLUMN "name" SET NOT NULL,
        ALTER COLUMN "unit" SET NOT NULL,
        ALTER COLUMN "mains" SET NOT NULL,
        ALTER COLUMN "rods" SET NOT NULL`);
    await runner.query(`CREATE INDEX "job_on_bench" ON "job" ("updated_at" DESC, "id") WHERE "deleted_at" IS NULL`);
    await runner.query(
      `CREATE INDEX "job_taken_off" ON "job" ("updated_at" DESC, "id") WHERE "deleted_at" IS NOT NULL`,
    );
    await runner.query(`CREATE INDEX "change_of_job_at" ON "change" ("job_id", "at")`);
    await runner.query(`ALTER TABLE "type_revision" ADD COLUMN "head" jsonb, ADD COLUMN "lines" text`);
    const revisions: { type_id: string; revision: number; type: unknown }[] = await runner.query(
      `SELECT "type_id", "revision", "type" FROM "type_revision"`,
    );
    for (const { type_id, revision, type } of revisions) {
      const { head, lines } = headOfType(engineTypeSchema.parse(type));
      await runner.query(
        `UPDATE "type_revision" SET "head" = $3, "lines" = $4 WHERE "type_id" = $1 AND "revision" = $2`,
        [type_id, revision, JSON.stringify(head), lines],
      );
    }
    await runner.query(
      `ALTER TABLE "type_revision" ALTER COLUMN "head" SET NOT NULL, ALTER COLUMN "lines" SET NOT NULL`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "type_revision" DROP COLUMN "head", DROP COLUMN "lines"`);
    for (const index of ['change_of_job_at', 'job_taken_off', 'job_on_bench']) {
      await runner.query(`DROP INDEX "${index}"`);
    }
    await runner.query(`
      ALTER TABLE "job" DROP COLUMN "name", DROP COLUMN "unit", DROP COLUMN "mains", DROP COLUMN "rods",
        DROP COLUMN "progress", DROP COLUMN "progress_of"`);
  }
}

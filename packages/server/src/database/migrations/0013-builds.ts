import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Serial numbers of engines, by which earlier builds are found; and the instruments that each knows, by which its trials are. */
export class Builds1795000000013 implements MigrationInterface {
  readonly name = 'Builds1795000000013';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "job" ADD COLUMN "serial" text NOT NULL DEFAULT ''`);
    await runner.query(`CREATE INDEX "job_serial" ON "job" (lower("serial")) WHERE "serial" <> ''`);
    await runner.query(`ALTER TABLE "job" ADD COLUMN "instruments" text[] NOT NULL DEFAULT '{}'`);
    await runner.query(`
      UPDATE "job" SET "instruments" = ARRAY(SELECT jsonb_object_keys("document"->'registered'))
      WHERE jsonb_typeof("document"->'registered') = 'object'`);
    await runner.query(`CREATE INDEX "job_instruments" ON "job" USING gin ("instruments")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "job_serial"`);
    await runner.query(`ALTER TABLE "job" DROP COLUMN "serial"`);
    await runner.query(`ALTER TABLE "job" DROP COLUMN "instruments"`);
  }
}

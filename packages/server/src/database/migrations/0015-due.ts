import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Closed engines with something to be done again, by the first day of it: a few among many; and engines on the benches, by their type. */
export class Due1795000000015 implements MigrationInterface {
  readonly name = 'Due1795000000015';

  async up(runner: QueryRunner): Promise<void> {
    const first = `("progress"->'reminders'->0->>'on')`;
    await runner.query(
      `CREATE INDEX "job_due" ON "job" (${first}, "id") WHERE "deleted_at" IS NOT NULL AND ${first} IS NOT NULL`,
    );
    await runner.query(
      `CREATE INDEX "job_type_on_bench" ON "job" (("document"->'sheet'->>'name')) WHERE "deleted_at" IS NULL`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "job_type_on_bench"`);
    await runner.query(`DROP INDEX "job_due"`);
  }
}

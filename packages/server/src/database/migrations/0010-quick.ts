import type { MigrationInterface, QueryRunner } from 'typeorm';

const FAMILIES = ['main', 'rod'] as const;
const INDEXES = ['job_next', 'job_people', 'job_people_off', ...FAMILIES.map((family) => `job_fasteners_${family}`)];

/** What lists and their filters look for is found by an index; which build has said how far an engine is stands beside it. */
export class Quick1795000000010 implements MigrationInterface {
  readonly name = 'Quick1795000000010';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "job" ADD COLUMN "progress_build" text`);
    await runner.query(
      `CREATE INDEX "job_next" ON "job" (("progress"->>'next'), "updated_at" DESC, "id") WHERE "deleted_at" IS NULL`,
    );
    await runner.query(`CREATE INDEX "job_people" ON "job" ("updated_by") WHERE "deleted_at" IS NULL`);
    await runner.query(`CREATE INDEX "job_people_off" ON "job" ("updated_by") WHERE "deleted_at" IS NOT NULL`);
    for (const family of FAMILIES) {
      const since = `"document"->'fasteners'->'${family}'->>'since'`;
      await runner.query(
        `CREATE INDEX "job_fasteners_${family}" ON "job" ((${since}) DESC, "id") WHERE ${since} IS NOT NULL`,
      );
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const index of INDEXES) await runner.query(`DROP INDEX "${index}"`);
    await runner.query(`ALTER TABLE "job" DROP COLUMN "progress_build"`);
  }
}

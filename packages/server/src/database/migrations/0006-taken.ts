import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A reading says how it was taken: instrument, needle, temperatures, and why it takes the place of another. */
export class Taken1795000000006 implements MigrationInterface {
  readonly name = 'Taken1795000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "reading" ADD COLUMN "taken" jsonb`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "reading" DROP COLUMN "taken"`);
  }
}

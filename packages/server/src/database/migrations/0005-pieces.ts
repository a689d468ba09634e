import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The workshop's drawer holds washers and shims beside its halves. */
export class Pieces1795000000005 implements MigrationInterface {
  readonly name = 'Pieces1795000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "drawer_line" RENAME COLUMN "half" TO "item"`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM "drawer_line" WHERE "item" ? 'kind'`);
    await runner.query(`ALTER TABLE "drawer_line" RENAME COLUMN "item" TO "half"`);
  }
}

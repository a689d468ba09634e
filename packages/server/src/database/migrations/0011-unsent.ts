import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What waits in browsers, as they told it: who clears a browser's data is told what was lost with it. */
export class Unsent1795000000011 implements MigrationInterface {
  readonly name = 'Unsent1795000000011';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE "unsent" (
        "person" text NOT NULL,
        "browser" uuid NOT NULL,
        "told_at" timestamptz NOT NULL,
        "changes" jsonb NOT NULL,
        "more" int NOT NULL,
        PRIMARY KEY ("person", "browser")
      )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE "unsent"');
  }
}

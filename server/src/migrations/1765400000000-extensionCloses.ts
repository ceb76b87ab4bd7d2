import type { MigrationInterface, QueryRunner } from 'typeorm';

/** More time for one group may say when it closes for it, too. */
export class ExtensionCloses1765400000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "extension" ADD "closes" timestamptz`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "extension" DROP COLUMN "closes"`);
  }
}

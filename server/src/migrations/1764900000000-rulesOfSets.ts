import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a set's deals are to bring about, kept with the set. */
export class RulesOfSets1764900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" ADD "rules" jsonb NOT NULL DEFAULT '[]'`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "rules"`);
  }
}

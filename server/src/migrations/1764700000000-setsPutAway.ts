import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A set can be put away, and brought back. */
export class SetsPutAway1764700000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" ADD "putAwayAt" TIMESTAMP WITH TIME ZONE`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "putAwayAt"`);
  }
}

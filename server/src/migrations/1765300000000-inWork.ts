import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is changed in an activity that groups have already waits until somebody makes it visible; a draft can be put away. */
export class InWork1765300000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "activity" ADD "inWork" jsonb, ADD "deletedAt" timestamptz`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "activity" DROP COLUMN "inWork", DROP COLUMN "deletedAt"`);
  }
}

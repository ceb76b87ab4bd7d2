import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Releases tell by themselves when they go live, open and close. What was before this was seen without being told. */
export class Moments1767300000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "release" ADD "toldUntil" TIMESTAMP WITH TIME ZONE NOT NULL DEFAULT now()`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "release" DROP COLUMN "toldUntil"`);
  }
}

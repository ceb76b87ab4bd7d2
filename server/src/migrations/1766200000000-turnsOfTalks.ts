import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whatever happens to a post has its place in the order of all that happened in its talk: a page asks for what came since. */
export class TurnsOfTalks1766200000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "post" ADD "turn" integer NOT NULL DEFAULT '0'`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "post" DROP COLUMN "turn"`);
  }
}

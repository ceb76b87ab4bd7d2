import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a set's deals are to bring about, kept with the set; and of expert tables, the homes that their people come from. */
export class RulesOfSets1764900000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" ADD "rules" jsonb NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "group_set" ADD "homeSetId" uuid`);
    await run.query(
      `ALTER TABLE "group_set" ADD CONSTRAINT "FK_8646501c5a5219952d783cc6b2d" FOREIGN KEY ("homeSetId") REFERENCES "group_set"("id")`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" DROP CONSTRAINT "FK_8646501c5a5219952d783cc6b2d"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "homeSetId"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "rules"`);
  }
}

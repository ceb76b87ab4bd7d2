import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What members may do with their group is called what it is: they name it. */
export class MembersName1765100000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" RENAME COLUMN "membersDress" TO "membersName"`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" RENAME COLUMN "membersName" TO "membersDress"`);
  }
}

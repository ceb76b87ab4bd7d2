import type { MigrationInterface, QueryRunner } from 'typeorm';

const references = [
  ['FK_4bb025ae441b430ae1b396e8286', 'groupId', 'course_group'],
  ['FK_3f35e10f826c82b766a3b642526', 'enrolmentId', 'enrolment'],
  ['FK_a9605d0859d419256ca301e6f96', 'namedBy', 'person'],
] as const;

/** Groups have leaders among the students and staff who look after them; members may dress their group; moves have reasons. */
export class WaysOfGroups1764800000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "group_set" ADD "hasLeaders" boolean NOT NULL DEFAULT false`);
    await run.query(`ALTER TABLE "group_set" ADD "membersDress" boolean NOT NULL DEFAULT false`);
    await run.query(`ALTER TABLE "group_set" ADD "isFormedAtHandIn" boolean NOT NULL DEFAULT false`);
    await run.query(`ALTER TABLE "course_group" ADD "motto" text NOT NULL DEFAULT ''`);
    await run.query(`ALTER TABLE "membership" ADD "isLeader" boolean NOT NULL DEFAULT false`);
    await run.query(`ALTER TABLE "membership" ADD "why" text`);
    await run.query(`ALTER TABLE "membership" ADD "endedWhy" text`);
    await run.query(
      `CREATE UNIQUE INDEX "membership_leader_once" ON "membership" ("groupId") WHERE "until" IS NULL AND "isLeader"`,
    );
    await run.query(
      `CREATE TABLE "group_lead" ("groupId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "since" TIMESTAMP WITH TIME ZONE NOT NULL, "namedBy" uuid NOT NULL,
        CONSTRAINT "PK_group_lead" PRIMARY KEY ("groupId", "enrolmentId"))`,
    );
    for (const [name, column, table] of references)
      await run.query(
        `ALTER TABLE "group_lead" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id")`,
      );
    await run.query(`CREATE INDEX "group_lead_by_enrolment" ON "group_lead" ("enrolmentId")`);
    await run.query(`ALTER TABLE "course" ADD "assistantsSee" text NOT NULL DEFAULT 'all'`);
    await run.query(
      `ALTER TABLE "course" ADD CONSTRAINT "course_assistants_see" CHECK ("assistantsSee" IN ('all', 'theirs'))`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "course" DROP CONSTRAINT "course_assistants_see"`);
    await run.query(`ALTER TABLE "course" DROP COLUMN "assistantsSee"`);
    await run.query(`DROP TABLE "group_lead"`);
    await run.query(`DROP INDEX "membership_leader_once"`);
    await run.query(`ALTER TABLE "membership" DROP COLUMN "endedWhy"`);
    await run.query(`ALTER TABLE "membership" DROP COLUMN "why"`);
    await run.query(`ALTER TABLE "membership" DROP COLUMN "isLeader"`);
    await run.query(`ALTER TABLE "course_group" DROP COLUMN "motto"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "isFormedAtHandIn"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "membersDress"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "hasLeaders"`);
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A student of each course who is no one: what is tried out as them stands in copies of its own, which no one else meets. */
export class Practice1767700000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "course" ADD "practiceRound" integer NOT NULL DEFAULT 1`);
    await run.query(`ALTER TABLE "copy" ADD "practiceRound" integer`);
    await run.query(`ALTER TABLE "enrolment" DROP CONSTRAINT "enrolment_role"`);
    await run.query(
      `ALTER TABLE "enrolment" ADD CONSTRAINT "enrolment_role" CHECK ("role" IN ('instructor', 'assistant', 'student', 'observer', 'practice'))`,
    );
    await run.query(
      `CREATE UNIQUE INDEX "practice_once" ON "enrolment" ("courseId") WHERE "role" = 'practice'`,
    );
    await run.query(`DROP INDEX "copy_once"`);
    await run.query(`DROP INDEX "copy_for_all_once"`);
    await run.query(
      `CREATE UNIQUE INDEX "copy_once" ON "copy" ("releaseId", "groupId") WHERE "practiceRound" IS NULL`,
    );
    await run.query(
      `CREATE UNIQUE INDEX "copy_for_all_once" ON "copy" ("releaseId") WHERE "groupId" IS NULL AND "practiceRound" IS NULL`,
    );
    await run.query(
      `CREATE UNIQUE INDEX "copy_of_practice_once" ON "copy" ("releaseId", "groupId", "practiceRound") WHERE "practiceRound" IS NOT NULL`,
    );
    await run.query(
      `CREATE UNIQUE INDEX "copy_of_practice_for_all_once" ON "copy" ("releaseId", "practiceRound") WHERE "groupId" IS NULL AND "practiceRound" IS NOT NULL`,
    );
    for (const [name, query] of Object.entries(views)) await run.query(`CREATE VIEW "${name}" AS ${query}`);
    await run.query(`CREATE OR REPLACE VIEW "course_person" AS ${coursePerson} WHERE e."role" <> 'practice'`);
    await run.query(
      `CREATE OR REPLACE VIEW "released_copy" AS ${releasedCopy} WHERE c."practiceRound" IS NULL`,
    );
  }

  /** Only where nothing was practised: what was, other tables hang on, and their keys refuse. */
  async down(run: QueryRunner): Promise<void> {
    await run.query(`CREATE OR REPLACE VIEW "released_copy" AS ${releasedCopy}`);
    await run.query(`CREATE OR REPLACE VIEW "course_person" AS ${coursePerson}`);
    for (const name of Object.keys(views)) await run.query(`DROP VIEW "${name}"`);
    for (const name of [
      'copy_of_practice_for_all_once',
      'copy_of_practice_once',
      'copy_for_all_once',
      'copy_once',
      'practice_once',
    ])
      await run.query(`DROP INDEX "${name}"`);
    await run.query(`DELETE FROM "copy" WHERE "practiceRound" IS NOT NULL`);
    await run.query(`DELETE FROM "enrolment" WHERE "role" = 'practice'`);
    await run.query(`CREATE UNIQUE INDEX "copy_once" ON "copy" ("releaseId", "groupId")`);
    await run.query(
      `CREATE UNIQUE INDEX "copy_for_all_once" ON "copy" ("releaseId") WHERE "groupId" IS NULL`,
    );
    await run.query(`ALTER TABLE "enrolment" DROP CONSTRAINT "enrolment_role"`);
    await run.query(
      `ALTER TABLE "enrolment" ADD CONSTRAINT "enrolment_role" CHECK ("role" IN ('instructor', 'assistant', 'student', 'observer'))`,
    );
    await run.query(`ALTER TABLE "copy" DROP COLUMN "practiceRound"`);
    await run.query(`ALTER TABLE "course" DROP COLUMN "practiceRound"`);
  }
}

const views = {
  author: `
    SELECT "id" AS "enrolmentId", "name", "reading", CASE "role" WHEN 'practice' THEN 'student' ELSE "role" END AS "role" FROM "enrolment"`,
};
const coursePerson = `
  SELECT e."id" AS "enrolmentId", e."courseId", e."personId", e."role", e."number", e."attributes", e."joinedAt",
         e."leftAt", e."listedAt", e."joinedTo", e."name", e."familyName", e."reading", a."email", a."addressKey",
         a."hasPassword", a."lastSeenAt", a."isProven" OR (a."hasPassword" AND e."openedFor" IS NOT DISTINCT FROM e."personId") AS "hasComeIn"
    FROM "enrolment" e JOIN "account" a ON a."personId" = e."personId"`;
const releasedCopy = `
  SELECT c."id" AS "copyId", c."groupId", r."id" AS "releaseId", r."activityId", r."courseId", c."setId", r."mode",
         r."state", a."kind", a."title", a."points", a."settings", a."rubric"
    FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`;

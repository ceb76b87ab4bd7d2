import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A mark that was given keeps what it is out of and what being late cost. Whether it still is what would be given is found by comparing, so the sheet
 * keeps no version of it. */
export class GivenMarks1765200000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "released_mark" ADD "points" numeric(7,2), ADD "latePolicy" jsonb`);
    await run.query(
      `UPDATE "released_mark" r SET "latePolicy" = a."latePolicy",
              "points" = coalesce((SELECT (s->>'max')::numeric FROM jsonb_array_elements(r."steps") s WHERE s->>'code' = 'group-mark' LIMIT 1), a."points")
         FROM "copy" c JOIN "release" x ON x."id" = c."releaseId" JOIN "activity" a ON a."id" = x."activityId"
        WHERE c."id" = r."copyId"`,
    );
    await run.query(`ALTER TABLE "mark" DROP COLUMN "releasedVersion"`);
    await run.query(
      `CREATE OR REPLACE VIEW "released_copy" AS
       SELECT c."id" AS "copyId", c."groupId", r."id" AS "releaseId", r."activityId", r."courseId", r."setId", r."mode",
              r."state", a."kind", a."title", a."points", a."settings", a."rubric"
         FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP VIEW "released_copy"`);
    await run.query(
      `CREATE VIEW "released_copy" AS
       SELECT c."id" AS "copyId", c."groupId", r."id" AS "releaseId", r."activityId", r."courseId", r."setId", r."mode",
              r."state", a."kind", a."title", a."points", a."settings"
         FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`,
    );
    await run.query(`ALTER TABLE "mark" ADD "releasedVersion" int`);
    await run.query(
      `UPDATE "mark" m SET "releasedVersion" = m."version"
        WHERE EXISTS (SELECT FROM "released_mark" r WHERE r."copyId" = m."copyId" AND (m."enrolmentId" IS NULL OR r."enrolmentId" = m."enrolmentId"))`,
    );
    await run.query(`ALTER TABLE "released_mark" DROP COLUMN "points", DROP COLUMN "latePolicy"`);
  }
}

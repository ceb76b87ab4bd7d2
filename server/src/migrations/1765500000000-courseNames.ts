import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A course writes its own name for a person; an account keeps its owner's. */
export class CourseNames1765500000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "enrolment" ADD "name" text, ADD "familyName" text, ADD "reading" text`);
    await run.query(
      `UPDATE "enrolment" e SET "name" = p."name", "familyName" = p."familyName", "reading" = p."reading"
         FROM "person" p WHERE p."id" = e."personId"`,
    );
    await run.query(`ALTER TABLE "enrolment" ALTER COLUMN "name" SET NOT NULL`);
    await run.query(`CREATE OR REPLACE VIEW "course_person" AS ${coursePerson('e')}`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`CREATE OR REPLACE VIEW "course_person" AS ${coursePerson('a')}`);
    await run.query(
      `ALTER TABLE "enrolment" DROP COLUMN "name", DROP COLUMN "familyName", DROP COLUMN "reading"`,
    );
  }
}

/** @param names whose names they are: the enrolment's or the account's. */
const coursePerson = (names: 'e' | 'a') => `
  SELECT e."id" AS "enrolmentId", e."courseId", e."personId", e."role", e."number", e."attributes", e."joinedAt",
         e."leftAt", e."listedAt", e."joinedTo", ${names}."name", ${names}."familyName", ${names}."reading", a."email", a."addressKey",
         a."hasPassword", a."lastSeenAt"
    FROM "enrolment" e JOIN "account" a ON a."personId" = e."personId"`;

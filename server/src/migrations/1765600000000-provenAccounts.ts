import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A link that a course hands out lets in to that course; one that was mailed shows that its reader has the address, and lets in to all. */
export class ProvenAccounts1765600000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "person" ADD "provenAt" timestamptz`);
    await run.query(`ALTER TABLE "enrolment" ADD "openedFor" uuid`);
    // Whoever could come in goes on to; those whom the operator of the server made have always been theirs.
    await run.query(
      `UPDATE "person" SET "provenAt" = "createdAt" WHERE "mayCreateCourses" AND "passwordHash" IS NOT NULL`,
    );
    await run.query(
      `UPDATE "enrolment" e SET "openedFor" = p."id" FROM "person" p WHERE p."id" = e."personId" AND p."passwordHash" IS NOT NULL`,
    );
    // A link so far did not say which course made it: it could open any.
    await run.query(`DELETE FROM "password_link"`);
    await run.query(`ALTER TABLE "password_link" ADD "enrolmentId" uuid`);
    await run.query(
      `CREATE OR REPLACE VIEW "account" AS ${account}, "provenAt" IS NOT NULL AS "isProven" FROM "person"`,
    );
    await run.query(
      `CREATE OR REPLACE VIEW "course_person" AS ${coursePerson},
              a."isProven" OR (a."hasPassword" AND e."openedFor" IS NOT DISTINCT FROM e."personId") AS "hasComeIn" ${ofEnrolments}`,
    );
    await run.query(`ALTER TABLE "mail" ALTER COLUMN "courseId" DROP NOT NULL, ADD "carriedAt" timestamptz`);
    await run.query(
      `UPDATE "mail" SET "carriedAt" = "at", "text" = jsonb_set("text", '{link}', ("text"->'link') ||
              CASE WHEN "text"->'link'->>'url' LIKE '%/welcome#%' THEN '{"isPersonal": true, "url": ""}'::jsonb ELSE '{"isPersonal": false}' END)`,
    );
    await run.query(`CREATE INDEX "mail_to_carry" ON "mail" ("at") WHERE "carriedAt" IS NULL`);
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DELETE FROM "mail" WHERE "courseId" IS NULL`);
    await run.query(`DROP INDEX "mail_to_carry"`);
    await run.query(`ALTER TABLE "mail" ALTER COLUMN "courseId" SET NOT NULL, DROP COLUMN "carriedAt"`);
    // A column of a view can be taken away only with the view and what is made of it.
    const made = (await run.query(
      `SELECT "viewname", "definition" FROM pg_views WHERE "schemaname" = current_schema() AND "viewname" IN ('present_student', 'seat')`,
    )) as { viewname: string; definition: string }[];
    const definition = (name: string) => made.find((each) => each.viewname === name)?.definition ?? '';
    await run.query(`DROP VIEW "seat"`);
    await run.query(`DROP VIEW "present_student"`);
    await run.query(`DROP VIEW "course_person"`);
    await run.query(`DROP VIEW "account"`);
    await run.query(`CREATE VIEW "account" AS ${account} FROM "person"`);
    await run.query(`CREATE VIEW "course_person" AS ${coursePerson} ${ofEnrolments}`);
    await run.query(`CREATE VIEW "present_student" AS ${definition('present_student')}`);
    await run.query(`CREATE VIEW "seat" AS ${definition('seat')}`);
    await run.query(`ALTER TABLE "password_link" DROP COLUMN "enrolmentId"`);
    await run.query(`ALTER TABLE "enrolment" DROP COLUMN "openedFor"`);
    await run.query(`ALTER TABLE "person" DROP COLUMN "provenAt"`);
  }
}

const account = `
  SELECT "id" AS "personId", "email", "addressKey", "name", "familyName", "reading",
         "passwordHash" IS NOT NULL AS "hasPassword", "lastSeenAt"`;
const coursePerson = `
  SELECT e."id" AS "enrolmentId", e."courseId", e."personId", e."role", e."number", e."attributes", e."joinedAt",
         e."leftAt", e."listedAt", e."joinedTo", e."name", e."familyName", e."reading", a."email", a."addressKey",
         a."hasPassword", a."lastSeenAt"`;
const ofEnrolments = `FROM "enrolment" e JOIN "account" a ON a."personId" = e."personId"`;

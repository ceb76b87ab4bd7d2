import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Each table is read by the SQL of one area. What others need of it, its owner offers as a view; these are all of them. */
export class ViewsOfOwners1765000000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const [name, query] of Object.entries(views)) await run.query(`CREATE VIEW "${name}" AS ${query}`);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const name of Object.keys(views).reverse()) await run.query(`DROP VIEW "${name}"`);
  }
}

/** In an order in which each may be made of those before it. */
const views = {
  account: `
    SELECT "id" AS "personId", "email", "addressKey", "name", "familyName", "reading",
           "passwordHash" IS NOT NULL AS "hasPassword", "lastSeenAt"
      FROM "person"`,
  course_person: `
    SELECT e."id" AS "enrolmentId", e."courseId", e."personId", e."role", e."number", e."attributes", e."joinedAt",
           e."leftAt", e."listedAt", e."joinedTo", a."name", a."familyName", a."reading", a."email", a."addressKey",
           a."hasPassword", a."lastSeenAt"
      FROM "enrolment" e JOIN "account" a ON a."personId" = e."personId"`,
  present_student: `SELECT * FROM "course_person" WHERE "role" = 'student' AND "leftAt" IS NULL`,
  set_group: `
    SELECT g."id" AS "groupId", g."setId", s."courseId", s."name" AS "setName", s."position" AS "setPosition",
           g."number", g."name", coalesce(g."capacity", s."capacity") AS "capacity", g."isLocked", s."isExclusive",
           s."putAwayAt" AS "setPutAwayAt", s."latecomers", s."rules"
      FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId"`,
  course_set: `
    SELECT "id" AS "setId", "courseId", "isExclusive" AND NOT "isFormedAtHandIn" AND "putAwayAt" IS NULL AS "isForEach",
           CASE WHEN "signUp" IS NOT NULL AND "frozenAt" IS NULL
                THEN coalesce(("signUp"->>'closes')::timestamptz, 'infinity') END AS "choosableUntil"
      FROM "group_set"`,
  seat: `
    SELECT m."enrolmentId", m."groupId", m."setId", m."isLeader", m."from"
      FROM "membership" m JOIN "present_student" p ON p."enrolmentId" = m."enrolmentId" WHERE m."until" IS NULL`,
  stay: `SELECT "enrolmentId", "groupId", "setId", "from", "until" FROM "membership"`,
  released_copy: `
    SELECT c."id" AS "copyId", c."groupId", r."id" AS "releaseId", r."activityId", r."courseId", r."setId", r."mode",
           r."state", a."kind", a."title", a."points", a."settings"
      FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`,
};

import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Topics of expert tables are kept with their set: until now only the names of the tables told them (“Salt”, “Salt 2”). What is said of a group to those
 * who choose a place, and who wants to hear when one comes free. The names of a course can be
 * changed, and not written over unseen. */
export class TopicsAndDetails1766500000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "course" ADD "version" integer NOT NULL DEFAULT 1`);
    await run.query(`ALTER TABLE "group_set" ADD "topics" jsonb NOT NULL DEFAULT '[]'`);
    await run.query(
      `ALTER TABLE "course_group" ADD "details" jsonb NOT NULL DEFAULT '{"time":"","place":"","about":"","halfDay":null}'`,
    );
    await run.query(`ALTER TABLE "course_group" ADD "topic" integer`);
    await run.query(
      `WITH "named" AS (
         SELECT g."id", g."setId", g."number", regexp_replace(g."name", ' [0-9]+$', '') AS "topic"
           FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE s."homeSetId" IS NOT NULL
       ), "topics" AS (
         SELECT "setId", "topic", row_number() OVER (PARTITION BY "setId" ORDER BY min("number"))::int AS "at" FROM "named" GROUP BY 1, 2
       ), "told" AS (
         UPDATE "course_group" g SET "topic" = t."at" FROM "named" n JOIN "topics" t ON t."setId" = n."setId" AND t."topic" = n."topic" WHERE g."id" = n."id"
       )
       UPDATE "group_set" s SET "topics" = x."topics"
         FROM (SELECT "setId", jsonb_agg(jsonb_build_object('name', "topic", 'about', '') ORDER BY "at") AS "topics" FROM "topics" GROUP BY 1) x
        WHERE s."id" = x."setId"`,
    );
    await run.query(
      `CREATE TABLE "awaited_place" ("groupId" uuid NOT NULL, "enrolmentId" uuid NOT NULL, "since" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_awaited_place" PRIMARY KEY ("groupId", "enrolmentId"))`,
    );
    await run.query(`CREATE INDEX "awaited_place_by_enrolment" ON "awaited_place" ("enrolmentId")`);
    await run.query(
      `ALTER TABLE "awaited_place" ADD CONSTRAINT "FK_04dd9c2b0b8be6a36065afcab07" FOREIGN KEY ("groupId") REFERENCES "course_group"("id") ON DELETE CASCADE`,
    );
    await run.query(
      `ALTER TABLE "awaited_place" ADD CONSTRAINT "FK_75fdc0ab6613366388ebc58690a" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment"("id") ON DELETE CASCADE`,
    );
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP TABLE "awaited_place"`);
    await run.query(`ALTER TABLE "course" DROP COLUMN "version"`);
    await run.query(`ALTER TABLE "course_group" DROP COLUMN "topic"`);
    await run.query(`ALTER TABLE "course_group" DROP COLUMN "details"`);
    await run.query(`ALTER TABLE "group_set" DROP COLUMN "topics"`);
  }
}

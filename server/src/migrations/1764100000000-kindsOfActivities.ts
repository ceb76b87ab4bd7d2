import type { MigrationInterface, QueryRunner } from 'typeorm';

/** An activity is of a kind with settings and perhaps a rubric; a release may be to the class or be one copy for all; a group may have longer;
 * a mark is the group's or one student's; discussions, wikis and what somebody has seen are kept. */
export class KindsOfActivities1764100000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const statement of up) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const statement of down) await run.query(statement);
  }
}

const foreignKey = (table: string, name: string, column: string, to: string) =>
  `ALTER TABLE "${table}" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${to}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`;

const up = [
  `ALTER TABLE "activity" ADD "rubric" jsonb`,
  `ALTER TABLE "activity" ADD "settings" jsonb NOT NULL DEFAULT '{}'`,
  `ALTER TABLE "activity" ALTER COLUMN "points" DROP NOT NULL`,
  `ALTER TABLE "release" ALTER COLUMN "setId" DROP NOT NULL`,
  `CREATE UNIQUE INDEX "copy_for_all_once" ON "copy" ("releaseId") WHERE "groupId" IS NULL`,
  `CREATE TABLE "extension" ("activityId" uuid NOT NULL, "groupId" uuid NOT NULL, "due" TIMESTAMP WITH TIME ZONE NOT NULL, "reason" text NOT NULL, "grantedBy" uuid NOT NULL, "grantedAt" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_dce02b020b0c3431f22e8bf9013" PRIMARY KEY ("activityId", "groupId"))`,
  foreignKey('extension', 'FK_d4c38a27b9cb9361482cc0d92e9', 'activityId', 'activity'),
  foreignKey('extension', 'FK_3649649abe50bafcf5088b023c3', 'groupId', 'course_group'),
  foreignKey('extension', 'FK_e43bb01783939a14c007c31a2ed', 'grantedBy', 'person'),

  `CREATE TABLE "seen" ("enrolmentId" uuid NOT NULL, "subjectId" uuid NOT NULL, "version" integer NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_66604bf58065f7e700df8e9c841" PRIMARY KEY ("enrolmentId", "subjectId"))`,
  foreignKey('seen', 'FK_3cd61fb018d8bce623e58033c59', 'enrolmentId', 'enrolment'),

  `CREATE TABLE "post" ("id" uuid NOT NULL, "copyId" uuid NOT NULL, "threadId" uuid NOT NULL, "parentId" uuid, "authorId" uuid NOT NULL, "text" jsonb NOT NULL, "plain" text NOT NULL, "words" integer NOT NULL, "version" integer NOT NULL DEFAULT '1', "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, "editedAt" TIMESTAMP WITH TIME ZONE, "takenOutAt" TIMESTAMP WITH TIME ZONE, "takenOutBy" uuid, CONSTRAINT "PK_be5fda3aac270b134ff9c21cdee" PRIMARY KEY ("id"))`,
  `CREATE INDEX "post_by_thread" ON "post" ("threadId")`,
  `CREATE INDEX "post_by_copy" ON "post" ("copyId", "createdAt")`,
  foreignKey('post', 'FK_17152644b7851ba4e649e138584', 'copyId', 'copy'),
  foreignKey('post', 'FK_985731f28966e0d45a7bd9078a6', 'parentId', 'post'),
  foreignKey('post', 'FK_c6fb082a3114f35d0cc27c518e0', 'authorId', 'enrolment'),
  foreignKey('post', 'FK_d61b4f064dab8209419e2043207', 'takenOutBy', 'enrolment'),

  `CREATE TABLE "wiki_page" ("id" uuid NOT NULL, "copyId" uuid NOT NULL, "revision" integer NOT NULL, "createdBy" uuid NOT NULL, "createdAt" TIMESTAMP WITH TIME ZONE NOT NULL, "takenOutAt" TIMESTAMP WITH TIME ZONE, CONSTRAINT "PK_7b75399a325fe565b68275aadda" PRIMARY KEY ("id"))`,
  `CREATE INDEX "wiki_page_by_copy" ON "wiki_page" ("copyId", "createdAt")`,
  foreignKey('wiki_page', 'FK_69262c51494456cf668305675b0', 'copyId', 'copy'),
  foreignKey('wiki_page', 'FK_7b11f687442f9c0676619fbfe62', 'createdBy', 'enrolment'),
  `CREATE TABLE "wiki_revision" ("pageId" uuid NOT NULL, "number" integer NOT NULL, "title" text NOT NULL, "text" jsonb NOT NULL, "plain" text NOT NULL, "words" integer NOT NULL, "added" integer NOT NULL, "removed" integer NOT NULL, "authorId" uuid NOT NULL, "savedAt" TIMESTAMP WITH TIME ZONE NOT NULL, CONSTRAINT "PK_a0324538ec507196b49e961529a" PRIMARY KEY ("pageId", "number"))`,
  `CREATE INDEX "wiki_revision_by_author" ON "wiki_revision" ("authorId")`,
  foreignKey('wiki_revision', 'FK_3a2b674600dfa1160c3a7e8369e', 'pageId', 'wiki_page'),
  foreignKey('wiki_revision', 'FK_35d784b0cdbc6b3471eeba93c12', 'authorId', 'enrolment'),

  `ALTER TABLE "hand_in" ADD "ownerId" uuid`,
  foreignKey('hand_in', 'FK_93fba54903685c1f9e69785e612', 'ownerId', 'enrolment'),
  `DROP INDEX "hand_in_attempt_once"`,
  `CREATE UNIQUE INDEX "hand_in_attempt_once" ON "hand_in" ("copyId", "attempt") WHERE "ownerId" IS NULL`,
  `CREATE UNIQUE INDEX "hand_in_attempt_once_each" ON "hand_in" ("copyId", "ownerId", "attempt") WHERE "ownerId" IS NOT NULL`,

  // Marks that were there are their group's; what was on the desk is known by its moment from here on.
  `ALTER TABLE "mark" ADD "id" uuid NOT NULL DEFAULT gen_random_uuid()`,
  `ALTER TABLE "mark" ALTER COLUMN "id" DROP DEFAULT`,
  `ALTER TABLE "mark" DROP CONSTRAINT "PK_59fe3344cb841596202cd814931"`,
  `ALTER TABLE "mark" ADD CONSTRAINT "PK_0c6d4afd73cc2b4eee5a926aafc" PRIMARY KEY ("id")`,
  `ALTER TABLE "mark" ADD "enrolmentId" uuid`,
  foreignKey('mark', 'FK_4b5a713519c8a91ed95c6f4457d', 'enrolmentId', 'enrolment'),
  `ALTER TABLE "mark" RENAME COLUMN "groupMark" TO "typedMark"`,
  `ALTER TABLE "mark" ADD "overrideReason" text NOT NULL DEFAULT ''`,
  `ALTER TABLE "mark" ADD "picks" jsonb NOT NULL DEFAULT '{}'`,
  `ALTER TABLE "mark" ADD "workAt" TIMESTAMP WITH TIME ZONE`,
  `UPDATE "mark" m SET "workAt" = h."handedInAt" FROM "hand_in" h WHERE h."copyId" = m."copyId" AND h."attempt" = m."attempt"`,
  `ALTER TABLE "mark" DROP COLUMN "attempt"`,
  `CREATE UNIQUE INDEX "mark_of_group" ON "mark" ("copyId") WHERE "enrolmentId" IS NULL`,
  `CREATE UNIQUE INDEX "mark_of_student" ON "mark" ("copyId", "enrolmentId") WHERE "enrolmentId" IS NOT NULL`,
  `ALTER TABLE "released_mark" ADD "rubric" jsonb`,
];

/** What only the new schema can hold does not outlive it: marks and hand-ins of single students, releases to the class. */
const down = [
  `ALTER TABLE "released_mark" DROP COLUMN "rubric"`,
  `DELETE FROM "mark" WHERE "enrolmentId" IS NOT NULL`,
  `DROP INDEX "mark_of_student"`,
  `DROP INDEX "mark_of_group"`,
  `ALTER TABLE "mark" ADD "attempt" integer NOT NULL DEFAULT 0`,
  `UPDATE "mark" m SET "attempt" = h."attempt" FROM "hand_in" h WHERE h."copyId" = m."copyId" AND h."handedInAt" = m."workAt" AND h."ownerId" IS NULL`,
  `ALTER TABLE "mark" ALTER COLUMN "attempt" DROP DEFAULT`,
  `ALTER TABLE "mark" DROP COLUMN "workAt"`,
  `ALTER TABLE "mark" DROP COLUMN "picks"`,
  `ALTER TABLE "mark" DROP COLUMN "overrideReason"`,
  `ALTER TABLE "mark" RENAME COLUMN "typedMark" TO "groupMark"`,
  `ALTER TABLE "mark" DROP COLUMN "enrolmentId"`,
  `ALTER TABLE "mark" DROP COLUMN "id"`,
  `ALTER TABLE "mark" ADD CONSTRAINT "PK_59fe3344cb841596202cd814931" PRIMARY KEY ("copyId")`,
  `DROP INDEX "hand_in_attempt_once_each"`,
  `DELETE FROM "credit" WHERE "handInId" IN (SELECT "id" FROM "hand_in" WHERE "ownerId" IS NOT NULL)`,
  `DELETE FROM "hand_in" WHERE "ownerId" IS NOT NULL`,
  `DROP INDEX "hand_in_attempt_once"`,
  `CREATE UNIQUE INDEX "hand_in_attempt_once" ON "hand_in" ("copyId", "attempt")`,
  `ALTER TABLE "hand_in" DROP COLUMN "ownerId"`,
  `DROP TABLE "wiki_revision"`,
  `DROP TABLE "wiki_page"`,
  `DROP TABLE "post"`,
  `DROP TABLE "seen"`,
  `DROP TABLE "extension"`,
  `DROP INDEX "copy_for_all_once"`,
  `UPDATE "release" SET "state" = 'withdrawn', "setId" = (SELECT "id" FROM "group_set" s WHERE s."courseId" = "release"."courseId" LIMIT 1) WHERE "setId" IS NULL`,
  `ALTER TABLE "release" ALTER COLUMN "setId" SET NOT NULL`,
  `UPDATE "activity" SET "points" = 0 WHERE "points" IS NULL`,
  `ALTER TABLE "activity" ALTER COLUMN "points" SET NOT NULL`,
  `ALTER TABLE "activity" DROP COLUMN "settings"`,
  `ALTER TABLE "activity" DROP COLUMN "rubric"`,
];

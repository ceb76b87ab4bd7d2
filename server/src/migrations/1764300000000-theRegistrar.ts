import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A course may follow a registrar, whose sections are a group set. */
export class TheRegistrar1764300000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    for (const statement of up) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const statement of down) await run.query(statement);
  }
}

const up = [
  `ALTER TABLE "course" ADD "registrarCode" text, ADD "syncedAt" TIMESTAMP WITH TIME ZONE`,
  `ALTER TABLE "enrolment" ADD "listedAt" TIMESTAMP WITH TIME ZONE`,
  `ALTER TABLE "group_set" ADD "isSynchronised" boolean NOT NULL DEFAULT false`,
  `CREATE UNIQUE INDEX "group_set_of_sections_once" ON "group_set" ("courseId") WHERE "isSynchronised"`,
  `ALTER TABLE "course_group" ADD "sourceId" text`,
  `ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN ('import', 'sync', 'add', 'edit', 'drop', 'bring-back', 'undo'))`,
];

const down = [
  `DELETE FROM "roster_change" WHERE "kind" = 'sync'`,
  `ALTER TABLE "roster_change" DROP CONSTRAINT "roster_change_kind"`,
  `ALTER TABLE "roster_change" ADD CONSTRAINT "roster_change_kind" CHECK ("kind" IN ('import', 'add', 'edit', 'drop', 'bring-back', 'undo'))`,
  `ALTER TABLE "course_group" DROP COLUMN "sourceId"`,
  `DROP INDEX "group_set_of_sections_once"`,
  `ALTER TABLE "group_set" DROP COLUMN "isSynchronised"`,
  `ALTER TABLE "enrolment" DROP COLUMN "listedAt"`,
  `ALTER TABLE "course" DROP COLUMN "syncedAt", DROP COLUMN "registrarCode"`,
];

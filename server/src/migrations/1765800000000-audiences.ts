import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A release goes to several sets, groups and people together: a copy knows the set of its group, and so does an audience that names groups. */
export class Audiences1765800000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `ALTER TABLE "copy" ADD "setId" uuid CONSTRAINT "FK_074b419aa7a9a4cd2ad15292967" REFERENCES "group_set"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `UPDATE "copy" c SET "setId" = g."setId" FROM "course_group" g WHERE g."id" = c."groupId"`,
    );
    await run.query(
      `UPDATE "release" SET "audience" = jsonb_set("audience", '{include}',
              (SELECT coalesce(jsonb_agg(CASE WHEN e->>'kind' = 'group' THEN e || jsonb_build_object('setId', "setId") ELSE e END), '[]'::jsonb)
                 FROM jsonb_array_elements("audience"->'include') AS e))`,
    );
    await run.query(`CREATE OR REPLACE VIEW "released_copy" AS ${releasedCopy('c')}`);
    await run.query(`ALTER TABLE "release" DROP COLUMN "setId"`);
    await run.query(`CREATE INDEX "release_by_course" ON "release" ("courseId")`);
  }

  /** A release to several sets keeps the first of them. */
  async down(run: QueryRunner): Promise<void> {
    await run.query(`DROP INDEX "release_by_course"`);
    await run.query(
      `ALTER TABLE "release" ADD "setId" uuid CONSTRAINT "FK_77afb6af2f70ec015697c528af0" REFERENCES "group_set"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
    );
    await run.query(
      `UPDATE "release" SET "setId" = (SELECT (e->>'setId')::uuid FROM jsonb_array_elements("audience"->'include') AS e WHERE e ? 'setId' LIMIT 1)`,
    );
    await run.query(`CREATE OR REPLACE VIEW "released_copy" AS ${releasedCopy('r')}`);
    await run.query(`ALTER TABLE "copy" DROP COLUMN "setId"`);
  }
}

/** @param set whose set it tells: the copy's own, or its release's. */
const releasedCopy = (set: 'c' | 'r') => `
  SELECT c."id" AS "copyId", c."groupId", r."id" AS "releaseId", r."activityId", r."courseId", ${set}."setId", r."mode",
         r."state", a."kind", a."title", a."points", a."settings", a."rubric"
    FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"`;

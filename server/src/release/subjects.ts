import type { EntityManager } from 'typeorm';
import type { ActivityId, CopyId, CourseId, GroupId } from '@jigsaw/core/ids';

export interface SubjectOfRelease {
  readonly subjectId: string;
  readonly activityId: ActivityId;
  readonly title: string;
  /** null: it is about the activity, not about one of its copies. */
  readonly copyId: CopyId | null;
  readonly groupId: GroupId | null;
}

/** What these ids are of: an activity of the course, deleted ones too, its release, or one of its copies; practised ones are none. One statement. */
export const subjectsOfReleases = (
  manager: EntityManager,
  courseId: CourseId,
  subjectIds: readonly string[],
): Promise<SubjectOfRelease[]> =>
  manager.query(
    `SELECT a."id" AS "subjectId", a."id" AS "activityId", a."title", NULL::uuid AS "copyId", NULL::uuid AS "groupId"
       FROM "activity" a WHERE a."courseId" = $1 AND a."id" = ANY($2)
     UNION ALL
     SELECT r."id", a."id", a."title", NULL, NULL
       FROM "release" r JOIN "activity" a ON a."id" = r."activityId" WHERE a."courseId" = $1 AND r."id" = ANY($2)
     UNION ALL
     SELECT c."id", a."id", a."title", c."id", c."groupId"
       FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"
      WHERE a."courseId" = $1 AND c."id" = ANY($2) AND c."practiceRound" IS NULL`,
    [courseId, subjectIds],
  );

/** Every id that events of an activity may be about: its own, its release's and its copies'. */
export async function idsOfActivity(
  manager: EntityManager,
  courseId: CourseId,
  activityId: ActivityId,
): Promise<readonly string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `SELECT a."id" FROM "activity" a WHERE a."courseId" = $1 AND a."id" = $2
     UNION SELECT r."id" FROM "release" r WHERE r."courseId" = $1 AND r."activityId" = $2
     UNION SELECT c."id" FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" WHERE r."courseId" = $1 AND r."activityId" = $2`,
    [courseId, activityId],
  );
  return rows.map(({ id }) => id);
}

/** Every activity of a course by its title. */
export const titlesOfActivities = (
  manager: EntityManager,
  courseId: CourseId,
): Promise<{ readonly id: ActivityId; readonly title: string }[]> =>
  manager.query(`SELECT "id", "title" FROM "activity" WHERE "courseId" = $1 AND "deletedAt" IS NULL ORDER BY "title", "id"`, [courseId]); // prettier-ignore

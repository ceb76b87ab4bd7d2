import type { EntityManager } from 'typeorm';
import type { ActivityId, CourseId, ReleaseId } from '@jigsaw/core/ids';

export interface ActivityIds {
  readonly activityId: ActivityId;
  /** null: it was never released. */
  readonly releaseId: ReleaseId | null;
}

/** Every activity of a course, as they were begun; one statement. */
export const activityIdsOf = (manager: EntityManager, courseId: CourseId): Promise<ActivityIds[]> =>
  manager.query(
    `SELECT a."id" AS "activityId", r."id" AS "releaseId" FROM "activity" a LEFT JOIN "release" r ON r."activityId" = a."id"
      WHERE a."courseId" = $1 AND a."deletedAt" IS NULL ORDER BY a."createdAt", a."id"`,
    [courseId],
  );

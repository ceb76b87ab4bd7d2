import type { EntityManager } from 'typeorm';
import { isReleased } from '@jigsaw/core/release';
import type { CourseId } from '@jigsaw/core/ids';
import type { ReleaseRow } from './release.rows.js';

/** How many activities of a course are with their groups, or will be from a moment on, and how many are nobody's yet or no longer. */
export async function countActivities(
  manager: EntityManager,
  courseId: CourseId,
): Promise<{ readonly live: number; readonly drafts: number }> {
  const rows = await manager.query<{ state: ReleaseRow['state'] | null }[]>(
    `SELECT r."state" FROM "activity" a LEFT JOIN "release" r ON r."activityId" = a."id" WHERE a."courseId" = $1 AND a."deletedAt" IS NULL`,
    [courseId],
  );
  const live = rows.filter(({ state }) => isReleased({ state: state ?? 'draft' })).length;
  return { live, drafts: rows.length - live };
}

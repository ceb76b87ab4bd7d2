import type { EntityManager } from 'typeorm';
import { stateAt } from '@jigsaw/core/release';
import type { CourseId } from '@jigsaw/core/ids';
import { stateOf } from './facts.js';
import type { ReleaseRow } from './release.rows.js';

export interface ActivityCounts {
  readonly live: number;
  readonly scheduled: number;
  readonly closed: number;
  readonly drafts: number;
}

/** How many activities of a course are in which state at this moment; withdrawn ones are in none of these. One query. */
export async function countActivities(
  manager: EntityManager,
  courseId: CourseId,
  now: Date,
): Promise<ActivityCounts> {
  const rows = await manager.query<
    { state: ReleaseRow['state'] | null; stateAt: Date | null; closes: Date | null }[]
  >(
    `SELECT r."state", r."stateAt", a."closes" FROM "activity" a LEFT JOIN "release" r ON r."activityId" = a."id"
      WHERE a."courseId" = $1 AND a."deletedAt" IS NULL`,
    [courseId],
  );
  const counts = { draft: 0, scheduled: 0, live: 0, closed: 0, withdrawn: 0 };
  for (const row of rows) {
    const stored = stateOf({ state: row.state ?? 'draft', stateAt: row.stateAt });
    counts[stateAt(stored, { closes: row.closes?.getTime() ?? null }, now.getTime()).state] += 1;
  }
  return { live: counts.live, scheduled: counts.scheduled, closed: counts.closed, drafts: counts.draft };
}

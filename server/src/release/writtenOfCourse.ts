import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { WrittenFacts } from '@jigsaw/core/checks';
import type { ActivityId, CourseId } from '@jigsaw/core/ids';
import type { Kinds } from './kinds.js';
import { ActivityRow } from './release.rows.js';

/** What stands in each activity of a course, drafts too, as its groups have it; in one statement. Who may know of it is the caller's to decide. */
export async function writtenOfCourse(
  manager: EntityManager,
  kinds: Kinds,
  courseId: CourseId,
): Promise<ReadonlyMap<ActivityId, WrittenFacts>> {
  const rows = await manager.find(ActivityRow, {
    where: { courseId, deletedAt: IsNull() },
    select: { id: true, kind: true, settings: true, brief: true, points: true, rubric: true },
  });
  return new Map(
    rows.map((row) => {
      const { isWork, whyNotDone } = kinds.of(row);
      const { brief, points, rubric } = row;
      const settings = kinds.settingsOf(row);
      return [
        row.id,
        { brief, points, rubric, isWork, whyNotDone: (members) => whyNotDone?.(settings, members) ?? null },
      ];
    }),
  );
}

import type { EntityManager } from 'typeorm';
import type { CourseId } from '@jigsaw/core/ids';

/** Students of a course who lack a seat in a set in which everybody is to have one. Sets that were put away do not count, nor those whose
 * groups are formed at hand-in, nor those in which students still choose: that is not the instructor's to mend yet. One query. */
export async function countStudentsToPlace(
  manager: EntityManager,
  courseId: CourseId,
  now: Date,
): Promise<number> {
  const [row] = await manager.query<{ students: number }[]>(
    `SELECT count(*)::int AS "students" FROM "present_student" p
      WHERE p."courseId" = $1 AND EXISTS (
        SELECT 1 FROM "course_set" s
         WHERE s."courseId" = $1 AND s."isForEach" AND (s."choosableUntil" IS NULL OR s."choosableUntil" <= $2)
           AND NOT EXISTS (SELECT 1 FROM "membership" m
                            WHERE m."setId" = s."setId" AND m."enrolmentId" = p."enrolmentId" AND m."until" IS NULL))`,
    [courseId, now],
  );
  return row?.students ?? 0;
}

import type { EntityManager } from 'typeorm';
import type { ToPlace } from '@jigsaw/contract/common';
import type { CourseId } from '@jigsaw/core/ids';

/** Students of a course who lack a seat in a set in which everyone is to have one: the instructor's to place, or still to choose for themselves. Archived
 * sets do not count, nor those whose groups are formed at hand-in. One query. */
export async function countStudentsToPlace(
  manager: EntityManager,
  courseId: CourseId,
  now: Date,
): Promise<ToPlace> {
  const [row] = await manager.query<ToPlace[]>(
    `SELECT count(*) FILTER (WHERE "unplaced")::int AS "unplaced",
            count(*) FILTER (WHERE "chooses" AND NOT "unplaced")::int AS "choosing"
       FROM (SELECT bool_or(s."choosableUntil" IS NULL OR s."choosableUntil" <= $2) AS "unplaced",
                    bool_or(s."choosableUntil" > $2) AS "chooses"
               FROM "present_student" p JOIN "course_set" s ON s."courseId" = p."courseId" AND s."isForEach"
              WHERE p."courseId" = $1
                AND NOT EXISTS (SELECT 1 FROM "membership" m
                                 WHERE m."setId" = s."setId" AND m."enrolmentId" = p."enrolmentId" AND m."until" IS NULL)
              GROUP BY p."enrolmentId") lacking`,
    [courseId, now],
  );
  return row ?? { unplaced: 0, choosing: 0 };
}

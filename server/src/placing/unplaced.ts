/** How many students have no seat in a set, as an SQL expression over the ids of the set and its course. */
export const unplacedSql = (setId: string, courseId: string): string =>
  `(SELECT count(*)::int FROM "present_student" p WHERE p."courseId" = ${courseId}
      AND NOT EXISTS (SELECT 1 FROM "membership" m
                       WHERE m."setId" = ${setId} AND m."enrolmentId" = p."enrolmentId" AND m."until" IS NULL))`;

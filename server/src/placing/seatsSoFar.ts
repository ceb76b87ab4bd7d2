import type { EntityManager } from 'typeorm';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';

export interface SeatSoFar {
  readonly enrolmentId: EnrolmentId;
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
  readonly from: Date;
  /** null: they still sit there. */
  readonly until: Date | null;
}

/** Where everyone sat in the sets of a course, from the beginning on. What was ended in the moment in which it began was never seen by anyone. */
export const seatsSoFar = (manager: EntityManager, courseId: CourseId): Promise<SeatSoFar[]> =>
  manager.query(
    `SELECT m."enrolmentId", m."groupId", m."setId", m."from", m."until" FROM "membership" m JOIN "course_set" s ON s."setId" = m."setId"
      WHERE s."courseId" = $1 AND (m."until" IS NULL OR m."until" > m."from") ORDER BY m."from", m."id"`,
    [courseId],
  );

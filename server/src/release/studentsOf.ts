import type { EntityManager } from 'typeorm';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';

/** A student who is in the course now, and where they sit. */
export interface Student {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
}

/** All students of a course, in the order of their names. */
export const studentsOf = (manager: EntityManager, courseId: CourseId): Promise<Student[]> =>
  manager.query(
    `SELECT p."enrolmentId", p."name",
            coalesce((SELECT jsonb_agg(jsonb_build_object('groupId', s."groupId", 'setId', s."setId"))
                        FROM "seat" s WHERE s."enrolmentId" = p."enrolmentId"), '[]'::jsonb) AS "groups"
       FROM "present_student" p WHERE p."courseId" = $1 ORDER BY p."name", p."enrolmentId"`,
    [courseId],
  );

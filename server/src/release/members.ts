import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId, CopyId, CourseId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { isInAudience } from '@jigsaw/core/release';
import type { CopyAccess } from './gate.js';

interface Student {
  readonly enrolmentId: EnrolmentId;
  readonly courseId: CourseId;
  readonly groups: readonly { groupId: GroupId; setId: GroupSetId }[] | null;
}

/** Whose work each copy is now, in the order of their names: its group without whoever was left out by name, or everybody whom a copy for all
 * reaches. One query. */
export async function membersOfCopies(
  manager: EntityManager,
  accesses: readonly CopyAccess[],
): Promise<(copyId: CopyId) => readonly EnrolmentId[]> {
  const courseIds = [...new Set(accesses.map((access) => access.release.courseId))];
  const students =
    courseIds.length === 0
      ? []
      : await manager.query<Student[]>(
          `SELECT p."enrolmentId", p."courseId",
                  (SELECT jsonb_agg(jsonb_build_object('groupId', s."groupId", 'setId', s."setId"))
                     FROM "seat" s WHERE s."enrolmentId" = p."enrolmentId") AS "groups"
             FROM "present_student" p WHERE p."courseId" = ANY($1) ORDER BY p."name"`,
          [courseIds],
        );
  const seats = students.flatMap(({ enrolmentId, groups }) =>
    (groups ?? []).map(({ groupId }): { enrolmentId: EnrolmentId; groupId: GroupId } => ({
      enrolmentId,
      groupId,
    })),
  );
  const byGroup = groupedBy(seats, (seat) => seat.groupId);
  const members = new Map<string, readonly EnrolmentId[]>();
  for (const { copy, release } of accesses) {
    const leftOut = new Set(release.audience.exclude);
    const own =
      copy.groupId !== null
        ? (byGroup.get(copy.groupId) ?? []).flatMap(({ enrolmentId }) =>
            leftOut.has(enrolmentId) ? [] : [enrolmentId],
          )
        : students.flatMap(({ enrolmentId, groups, courseId }) =>
            courseId === release.courseId &&
            isInAudience({ enrolmentId, groups: groups ?? [] }, release.audience)
              ? [enrolmentId]
              : [],
          );
    members.set(copy.id, own);
  }
  return (copyId) => members.get(copyId) ?? [];
}

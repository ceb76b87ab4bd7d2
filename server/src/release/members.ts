import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { isInAudience } from '@jigsaw/core/release';
import type { CopyAccess } from './gate.js';

interface Student {
  readonly enrolmentId: EnrolmentId;
  readonly courseId: string;
  readonly groups: readonly { groupId: GroupId; setId: GroupSetId }[] | null;
}

/** Whose work each copy is now, in the order of their names: its group, or everybody whom a copy for all reaches. One query. */
export async function membersOfCopies(
  manager: EntityManager,
  accesses: readonly CopyAccess[],
): Promise<(copyId: string) => readonly EnrolmentId[]> {
  const courseIds = [...new Set(accesses.map((access) => access.release.courseId))];
  const students =
    courseIds.length === 0
      ? []
      : await manager.query<Student[]>(
          `SELECT e."id" AS "enrolmentId", e."courseId",
                  (SELECT jsonb_agg(jsonb_build_object('groupId', m."groupId", 'setId', m."setId"))
                     FROM "membership" m WHERE m."enrolmentId" = e."id" AND m."until" IS NULL) AS "groups"
             FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
            WHERE e."courseId" = ANY($1) AND e."role" = 'student' AND e."leftAt" IS NULL ORDER BY p."name"`,
          [courseIds],
        );
  const byGroup = new Map<string, EnrolmentId[]>();
  for (const { enrolmentId, groups } of students)
    for (const { groupId } of groups ?? [])
      byGroup.set(groupId, [...(byGroup.get(groupId) ?? []), enrolmentId]);
  const members = new Map<string, readonly EnrolmentId[]>();
  for (const { copy, release } of accesses) {
    const own =
      copy.groupId !== null
        ? (byGroup.get(copy.groupId) ?? [])
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

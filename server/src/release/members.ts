import type { EntityManager } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId, CopyId, CourseId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import type { Audience } from '@jigsaw/core/release';
import { audiencesOf, isInAudience } from '@jigsaw/core/release';
import { evaluator } from './evaluate.js';
import type { CopyAccess } from './gate.js';

interface Reached {
  readonly enrolmentId: EnrolmentId;
  readonly courseId: CourseId;
  readonly groups: readonly { groupId: GroupId; setId: GroupSetId }[] | null;
}

/** Whose work each copy is now, in the order of their names: its group without those left out by name, or everyone that a copy for all
 * reaches. One query for copies of groups and one for copies for all. */
export async function membersOfCopies(
  manager: EntityManager,
  accesses: readonly CopyAccess[],
): Promise<(copyId: CopyId) => readonly EnrolmentId[]> {
  const inGroup = await membersOfGroups(manager, accesses);
  const reached = await studentsReached(
    manager,
    accesses.filter((access) => access.copy.groupId === null || namesSaved(access)),
  );
  const members = new Map<string, readonly EnrolmentId[]>();
  for (const access of accesses) {
    const { copy, release } = access;
    const leftOut = new Set(release.audience.exclude);
    // Everyone in a group that is named is reached, but a saved audience may leave out some of them.
    const own =
      copy.groupId === null
        ? reached(access)
        : namesSaved(access)
          ? onlyThose(inGroup(copy.groupId), reached(access))
          : inGroup(copy.groupId);
    members.set(copy.id, leftOut.size === 0 ? own : own.filter((id) => !leftOut.has(id)));
  }
  return (copyId) => members.get(copyId) ?? [];
}

const namesSaved = ({ release }: CopyAccess): boolean => audiencesOf(release.audience).length > 0;
function onlyThose(members: readonly EnrolmentId[], reached: readonly EnrolmentId[]): readonly EnrolmentId[] {
  const known = new Set(reached);
  return members.filter((id) => known.has(id));
}

async function membersOfGroups(manager: EntityManager, accesses: readonly CopyAccess[]) {
  const groupIds = [...new Set(accesses.flatMap(({ copy }) => copy.groupId ?? []))];
  const rows =
    groupIds.length === 0
      ? []
      : await manager.query<{ groupId: GroupId; enrolmentId: EnrolmentId }[]>(
          `SELECT s."groupId", s."enrolmentId" FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
            WHERE s."groupId" = ANY($1) ORDER BY p."name"`,
          [groupIds],
        );
  const byGroup = groupedBy(rows, (row) => row.groupId);
  const ids = new Map([...byGroup].map(([groupId, own]) => [groupId, own.map((row) => row.enrolmentId)]));
  return (groupId: GroupId): readonly EnrolmentId[] => ids.get(groupId) ?? [];
}

async function studentsReached(manager: EntityManager, accesses: readonly CopyAccess[]) {
  const courseIds = [...new Set(accesses.map((access) => access.release.courseId))];
  const students =
    courseIds.length === 0
      ? []
      : await manager.query<Reached[]>(
          `SELECT p."enrolmentId", p."courseId",
                  (SELECT jsonb_agg(jsonb_build_object('groupId', s."groupId", 'setId', s."setId"))
                     FROM "seat" s WHERE s."enrolmentId" = p."enrolmentId") AS "groups"
             FROM "present_student" p WHERE p."courseId" = ANY($1) ORDER BY p."name"`,
          [courseIds],
        );
  const audienceById = new Map<string, Audience>();
  for (const courseId of courseIds) {
    const releases = accesses.flatMap(({ release }) => (release.courseId === courseId ? [release] : []));
    const { audienceNow } = await evaluator(
      manager,
      courseId,
      releases.map((release) => release.audience),
    );
    for (const { id, audience } of releases) audienceById.set(id, audienceNow(audience));
  }
  const byCourse = groupedBy(students, (student) => student.courseId);
  const known = new Map<string, readonly EnrolmentId[]>();
  return ({ release }: CopyAccess): readonly EnrolmentId[] => {
    const before = known.get(release.id);
    if (before) return before;
    const audience = sure(audienceById.get(release.id));
    const reached = (byCourse.get(release.courseId) ?? []).flatMap(({ enrolmentId, groups }) =>
      isInAudience({ enrolmentId, groups: groups ?? [] }, audience) ? [enrolmentId] : [],
    );
    known.set(release.id, reached);
    return reached;
  };
}

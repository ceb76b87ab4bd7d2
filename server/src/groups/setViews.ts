import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { BoardGroup, GroupSetView } from '@jigsaw/contract/sets';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../roster/index.js';
import type { GroupRow, GroupSetRow } from './groups.rows.js';

/** The sets of a course in their order; one query.
 * @param also one that is shown even if it is put away. */
export async function setViews(
  manager: EntityManager,
  courseId: string,
  also: string | null = null,
): Promise<GroupSetView[]> {
  const rows = await manager.query<(GroupSetRow & { groupCount: number; unplaced: number })[]>(
    `SELECT s.*,
            (SELECT count(*)::int FROM "course_group" g WHERE g."setId" = s."id") AS "groupCount",
            (SELECT count(*)::int FROM "enrolment" e WHERE e."courseId" = s."courseId" AND e."role" = 'student' AND e."leftAt" IS NULL
                AND NOT EXISTS (SELECT 1 FROM "membership" m WHERE m."setId" = s."id" AND m."enrolmentId" = e."id" AND m."until" IS NULL)) AS "unplaced"
       FROM "group_set" s WHERE s."courseId" = $1 AND (s."putAwayAt" IS NULL OR s."id" = $2) ORDER BY s."position", s."createdAt"`,
    [courseId, also],
  );
  return rows.map((row) => setView(row, row.groupCount, row.unplaced));
}

export async function viewOfSet(
  manager: EntityManager,
  courseId: string,
  setId: string,
): Promise<GroupSetView> {
  const set = (await setViews(manager, courseId, setId)).find((each) => each.id === setId);
  assert(set, 'a set of the course is among its sets');
  return set;
}

export const setView = (set: GroupSetRow, groupCount: number, unplaced: number): GroupSetView => ({
  id: set.id as GroupSetId,
  name: set.name,
  capacity: set.capacity,
  groupCount,
  unplaced,
  isSynchronised: set.isSynchronised,
  isExclusive: set.isExclusive,
  hasLeaders: set.hasLeaders,
  membersDress: set.membersDress,
  isFormedAtHandIn: set.isFormedAtHandIn,
  description: set.description,
  isDescriptionShown: set.isDescriptionShown,
  latecomers: set.latecomers,
  signUp: set.signUp,
  frozenAt: set.frozenAt?.toISOString() ?? null,
  version: set.version,
});

/** Groups with the staff who look after each; one query for all. */
export async function groupViews(manager: EntityManager, groups: readonly GroupRow[]): Promise<BoardGroup[]> {
  const leads = await manager.query<
    { groupId: string; enrolmentId: BoardGroup['leads'][number]['enrolmentId']; name: string }[]
  >(
    `SELECT l."groupId", l."enrolmentId", p."name" FROM "group_lead" l JOIN "enrolment" e ON e."id" = l."enrolmentId" JOIN "person" p ON p."id" = e."personId"
      WHERE l."groupId" = ANY($1) AND e."leftAt" IS NULL ORDER BY p."name"`,
    [groups.map((group) => group.id)],
  );
  return groups.map((group) => ({
    id: group.id as GroupId,
    number: group.number,
    name: group.name,
    capacity: group.capacity,
    isLocked: group.isLocked,
    motto: group.motto,
    leads: leads.flatMap(({ groupId, enrolmentId, name }) =>
      groupId === group.id ? [{ enrolmentId, name }] : [],
    ),
    version: group.version,
  }));
}

export const countStudents = (manager: EntityManager, courseId: string) =>
  manager.countBy(EnrolmentRow, { courseId, role: 'student', leftAt: IsNull() });

import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { BoardGroup, GroupSetView } from '@jigsaw/contract/sets';
import type { GroupId, GroupSetId, CourseId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { groupRows } from './lookups.js';
import type { GroupRow, GroupSetRow } from './sets.rows.js';

/** Sets as staff see them. */
@Injectable()
export class SetViews {
  private unplacedSql: (setId: string, courseId: string) => string = () => '0';

  /** The area that knows the seats says how those without one are counted: an SQL expression over the ids of a set and its course. */
  countUnplaced(sql: (setId: string, courseId: string) => string): void {
    this.unplacedSql = sql;
  }

  /** The sets of a course in their order; one query.
   * @param also one that is shown even if it is archived. */
  async all(manager: EntityManager, courseId: CourseId, also: string | null = null): Promise<GroupSetView[]> {
    const rows = await manager.query<(GroupSetRow & { groupCount: number; unplaced: number })[]>(
      `SELECT s.*, (SELECT count(*)::int FROM "course_group" g WHERE g."setId" = s."id") AS "groupCount",
              ${this.unplacedSql('s."id"', 's."courseId"')} AS "unplaced"
         FROM "group_set" s WHERE s."courseId" = $1 AND (s."archivedAt" IS NULL OR s."id" = $2)
        ORDER BY s."position", s."createdAt"`,
      [courseId, also],
    );
    return rows.map((row) => setView(row, row.groupCount, row.unplaced));
  }

  async one(manager: EntityManager, courseId: CourseId, setId: GroupSetId): Promise<GroupSetView> {
    const set = (await this.all(manager, courseId, setId)).find((each) => each.id === setId);
    assert(set, 'a set of the course is among its sets');
    return set;
  }
}

export const setView = (set: GroupSetRow, groupCount: number, unplaced: number): GroupSetView => ({
  id: set.id,
  name: set.name,
  capacity: set.capacity,
  groupCount,
  unplaced,
  isSynchronised: set.isSynchronised,
  isExclusive: set.isExclusive,
  hasLeaders: set.hasLeaders,
  membersName: set.membersName,
  isFormedAtHandIn: set.isFormedAtHandIn,
  description: set.description,
  isDescriptionShown: set.isDescriptionShown,
  latecomers: set.latecomers,
  signUp: set.signUp,
  frozenAt: set.frozenAt?.toISOString() ?? null,
  version: set.version,
});

/** Groups with the staff who lead each; one query for all. */
export async function groupViews(manager: EntityManager, groups: readonly GroupRow[]): Promise<BoardGroup[]> {
  const rows = await manager.query<(BoardGroup['leads'][number] & { groupId: GroupId })[]>(
    `SELECT l."groupId", l."enrolmentId", p."name"
       FROM "group_lead" l JOIN "course_person" p ON p."enrolmentId" = l."enrolmentId"
      WHERE l."groupId" = ANY($1) AND p."leftAt" IS NULL ORDER BY p."name"`,
    [groups.map((group) => group.id)],
  );
  const leadsOf = groupedBy(rows, (row) => row.groupId);
  return groups.map((group) => ({
    id: group.id,
    number: group.number,
    name: group.name,
    capacity: group.capacity,
    isLocked: group.isLocked,
    motto: group.motto,
    details: group.details,
    topic: group.topic,
    leads: (leadsOf.get(group.id) ?? []).map(({ enrolmentId, name }) => ({ enrolmentId, name })),
    version: group.version,
  }));
}

export const groupsOfSet = async (manager: EntityManager, setId: GroupSetId): Promise<BoardGroup[]> =>
  groupViews(manager, await groupRows(manager, setId));

import type { EntityManager } from 'typeorm';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { GroupId } from '@jigsaw/core/ids';

/** Groups as they are shown beside work: by number and name, in the order of their sets. */
export async function groupTags(
  manager: EntityManager,
  groupIds: readonly (string | null)[],
): Promise<Map<string, GroupTag>> {
  const rows = await manager.query<GroupTag[]>(
    `SELECT "groupId" AS "id", "setId", "setName", "number", "name"
       FROM "set_group" WHERE "groupId" = ANY($1) ORDER BY "setPosition", "number"`,
    [groupIds.filter((id) => id !== null)],
  );
  return new Map(rows.map((row) => [row.id as string, row]));
}

/** By set, and within a set by number; what belongs to no group stands last. */
export function inOrderOf(
  tags: ReadonlyMap<string, GroupTag>,
): (a: GroupTag | null | undefined, b: GroupTag | null | undefined) => number {
  const place = new Map([...new Set([...tags.values()].map((tag) => tag.setId))].map((id, at) => [id, at]));
  const last = { set: Infinity, number: Infinity };
  const key = (tag: GroupTag | null | undefined) =>
    tag ? { set: place.get(tag.setId) ?? 0, number: tag.number } : last;
  return (a, b) => {
    const [one, other] = [key(a), key(b)];
    if (one.set !== other.set) return one.set < other.set ? -1 : 1;
    return one.number === other.number ? 0 : one.number < other.number ? -1 : 1;
  };
}

/** What members see and make of a group of theirs. */
export interface GroupForMembers {
  readonly motto: string;
  readonly about: string;
  /** The version that they may change; null: its name and motto are fixed. */
  readonly namingVersion: number | null;
}

export async function groupsForMembers(
  manager: EntityManager,
  groupIds: readonly GroupId[],
): Promise<ReadonlyMap<string, GroupForMembers>> {
  const rows = await manager.query<(GroupForMembers & { id: string })[]>(
    `SELECT g."id", g."motto", CASE WHEN s."isDescriptionShown" THEN s."description" ELSE '' END AS "about",
            CASE WHEN s."membersName" AND s."frozenAt" IS NULL AND s."archivedAt" IS NULL AND NOT g."isLocked" THEN g."version" END AS "namingVersion"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = ANY($1)`,
    [groupIds],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

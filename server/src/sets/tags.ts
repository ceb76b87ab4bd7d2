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
            CASE WHEN s."membersName" AND s."frozenAt" IS NULL AND s."putAwayAt" IS NULL AND NOT g."isLocked" THEN g."version" END AS "namingVersion"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = ANY($1)`,
    [groupIds],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

import type { EntityManager } from 'typeorm';
import type { HappeningView } from '@jigsaw/contract/release';
import type { ActivityId, GroupId } from '@jigsaw/core/ids';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';

/** When and where activities of one course take place: for all first, then for each group that has a time of its own, in the order of time.
 * One query where any group has. */
export async function happeningsOf(
  manager: EntityManager,
  kinds: Kinds,
  activities: readonly ActivityRow[],
): Promise<(activityId: ActivityId) => HappeningView[]> {
  const groupIds = [...new Set(activities.flatMap((activity) => kinds.groupsWithOwn(activity)))];
  const named =
    groupIds.length === 0
      ? []
      : await manager.query<{ groupId: GroupId; name: string }[]>(
          `SELECT "groupId", "name" FROM "set_group" WHERE "groupId" = ANY($1) AND "courseId" = $2`,
          [groupIds, activities[0]?.courseId],
        );
  const nameOf = new Map(named.map(({ groupId, name }) => [groupId, name]));
  const of = new Map(
    activities.map((activity) => {
      const forAll = kinds.happensOf(activity, null);
      const own = kinds.groupsWithOwn(activity).flatMap((groupId) => {
        const whose = nameOf.get(groupId);
        const happening = kinds.happensOf(activity, groupId);
        return whose !== undefined && happening ? [{ ...happening, whose }] : [];
      });
      own.sort((a, b) => a.starts.localeCompare(b.starts) || a.whose.localeCompare(b.whose));
      const all: HappeningView[] = [...(forAll ? [{ ...forAll, whose: null }] : []), ...own];
      return [activity.id, all] as const;
    }),
  );
  return (activityId) => of.get(activityId) ?? [];
}

import type { EntityManager } from 'typeorm';
import type { DealtGroup } from '@jigsaw/core/placing';
import { spreadIncrease } from '@jigsaw/core/dealing';
import type { Rule } from '@jigsaw/core/dealing';
import { emptiest } from '@jigsaw/core/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { EntryChange, Roster, RosterChange } from '@jigsaw/core/roster';

type Attributes = Readonly<Record<string, string>>;

interface FillingGroup extends DealtGroup {
  readonly setId: string;
  readonly rules: readonly { readonly kind: Rule['kind'] }[];
  readonly memberIds: readonly EnrolmentId[];
}

/** Seats those who join with this change in every set that says so, once somebody sits in it (CALC §3). The seats are part of the
 * change, so that undoing it frees them.
 * @returns the change, and how many seats were given. */
export async function seatLatecomers(
  manager: EntityManager,
  courseId: string,
  roster: Roster,
  change: RosterChange,
): Promise<{ readonly change: RosterChange; readonly seated: number }> {
  if (!change.some((each) => joins(each, roster))) return { change, seated: 0 };
  const groups = await manager.query<FillingGroup[]>(
    `SELECT g."id", g."setId", g."isLocked", coalesce(g."capacity", s."capacity") AS "capacity",
            (SELECT count(*)::int FROM "membership" m WHERE m."groupId" = g."id" AND m."until" IS NULL) AS "members", s."rules",
            ARRAY(SELECT m."enrolmentId" FROM "membership" m WHERE m."groupId" = g."id" AND m."until" IS NULL) AS "memberIds"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId"
      WHERE s."courseId" = $1 AND s."latecomers" = 'smallest' AND s."putAwayAt" IS NULL
        AND EXISTS (SELECT 1 FROM "membership" m WHERE m."setId" = s."id" AND m."until" IS NULL) ORDER BY s."position", g."number"`,
    [courseId],
  );
  const sets = [...new Set(groups.map((group) => group.setId))].map((setId) =>
    groups.filter((group) => group.setId === setId),
  );
  const taken = new Map<GroupId, number>();
  let seated = 0;
  const came = new Map<GroupId, Attributes[]>();
  const everyone = [...roster.values()].flatMap((entry) =>
    entry.isHere && entry.role === 'student' ? [entry.attributes] : [],
  );
  /** Who sits there so far, those who came with this change among them. */
  const membersOf = (group: FillingGroup): Attributes[] => {
    const before = group.memberIds.flatMap((id): Attributes[] =>
      roster.has(id) ? [roster.get(id)!.attributes] : [],
    );
    return [...before, ...(came.get(group.id) ?? [])];
  };
  const seatIn = (own: readonly GroupId[], attributes: Attributes): GroupId[] =>
    sets.flatMap((all) => {
      const isSeated = all.some((group) => own.includes(group.id));
      const unevenness = (groupId: GroupId) => {
        const group = all.find((each) => each.id === groupId)!;
        return spreadIncrease(group.rules, [...everyone, attributes], membersOf(group), attributes);
      };
      const filled = all.map((group) => ({ ...group, members: group.members + (taken.get(group.id) ?? 0) }));
      const to = isSeated ? null : emptiest(filled, unevenness);
      if (to === null) return [];
      taken.set(to, (taken.get(to) ?? 0) + 1);
      came.set(to, [...(came.get(to) ?? []), attributes]);
      seated += 1;
      return [to];
    });
  const next = change.map((each): EntryChange => {
    if (!joins(each, roster)) return each;
    if (each.kind !== 'set')
      return {
        ...each,
        entry: {
          ...each.entry,
          groups: [...each.entry.groups, ...seatIn(each.entry.groups, each.entry.attributes)],
        },
      };
    const before = roster.get(each.enrolmentId)!.groups;
    const own = each.to.groups ?? before;
    return {
      ...each,
      from: { ...each.from, groups: before },
      to: { ...each.to, groups: [...own, ...seatIn(own, roster.get(each.enrolmentId)!.attributes)] },
    };
  });
  return { change: next, seated };
}

/** A student who was not here before. */
function joins(each: EntryChange, roster: Roster): boolean {
  if (each.kind === 'add') return each.entry.role === 'student';
  if (each.kind === 'remove' || each.to.isHere !== true) return false;
  return (each.to.role ?? roster.get(each.enrolmentId as EnrolmentId)?.role) === 'student';
}

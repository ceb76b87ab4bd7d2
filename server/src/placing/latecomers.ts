import type { EntityManager } from 'typeorm';
import type { Rule } from '@jigsaw/core/dealing';
import { spreadIncrease } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId, CourseId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { DealtGroup } from '@jigsaw/core/placing';
import { emptiest } from '@jigsaw/core/placing';

type Attributes = Readonly<Record<string, string>>;

/** A student who joins the course now. */
export interface Latecomer {
  readonly enrolmentId: EnrolmentId;
  readonly attributes: Attributes;
  /** Where they have a seat already, as the file that brought them says. */
  readonly groups: readonly GroupId[];
}

interface FillingGroup extends Omit<DealtGroup, 'members'> {
  readonly setId: GroupSetId;
  readonly rules: readonly { readonly kind: Rule['kind'] }[];
  readonly memberIds: readonly EnrolmentId[];
}

/** Seats for those who join, in every set that gives them one, once someone sits in it (CALC §3). Nothing is written: the seats are part of
 * the change that brings them, so that undoing it frees them.
 * @param classmates attributes of every student in the course now, by enrolment.
 * @returns the groups that each gets beyond their own. */
export async function seatsForLatecomers(
  manager: EntityManager,
  courseId: CourseId,
  latecomers: readonly Latecomer[],
  classmates: ReadonlyMap<EnrolmentId, Attributes>,
): Promise<ReadonlyMap<EnrolmentId, readonly GroupId[]>> {
  if (latecomers.length === 0) return new Map();
  const sets = [...groupedBy(await fillingGroups(manager, courseId), (group) => group.setId).values()].map(
    (groups) => new Filling(groups, classmates),
  );
  return new Map(
    latecomers.map((latecomer) => [latecomer.enrolmentId, sets.flatMap((set) => set.seat(latecomer) ?? [])]),
  );
}

const fillingGroups = (manager: EntityManager, courseId: CourseId): Promise<FillingGroup[]> =>
  manager.query<FillingGroup[]>(
    `SELECT g."groupId" AS "id", g."setId", g."isLocked", g."capacity", g."rules",
            ARRAY(SELECT m."enrolmentId" FROM "membership" m WHERE m."groupId" = g."groupId" AND m."until" IS NULL) AS "memberIds"
       FROM "set_group" g
      WHERE g."courseId" = $1 AND g."latecomers" = 'smallest' AND g."setArchivedAt" IS NULL
        AND EXISTS (SELECT 1 FROM "membership" m WHERE m."setId" = g."setId" AND m."until" IS NULL)
      ORDER BY g."setPosition", g."number"`,
    [courseId],
  );

/** One set while latecomers come to it, one after the other. */
class Filling {
  private readonly byId: ReadonlyMap<GroupId, FillingGroup>;
  private readonly membersOf: Map<GroupId, Attributes[]>;
  private readonly sizes: Map<GroupId, number>;
  private readonly everyone: Attributes[];

  constructor(
    private readonly groups: readonly FillingGroup[],
    classmates: ReadonlyMap<EnrolmentId, Attributes>,
  ) {
    this.byId = keyedBy(groups, (group) => group.id);
    this.sizes = new Map(groups.map((group) => [group.id, group.memberIds.length]));
    const known = (id: EnrolmentId): Attributes[] => {
      const attributes = classmates.get(id);
      return attributes ? [attributes] : [];
    };
    this.membersOf = new Map(groups.map((group) => [group.id, group.memberIds.flatMap(known)]));
    this.everyone = [...classmates.values()];
  }

  /** null: they have a seat here, or there is no room. */
  seat({ attributes, groups: own }: Latecomer): GroupId | null {
    if (own.some((groupId) => this.byId.has(groupId))) return null;
    const filled = this.groups.map((group) => ({ ...group, members: this.sizes.get(group.id) ?? 0 }));
    const to = emptiest(filled, (groupId) =>
      spreadIncrease(
        this.groups[0]?.rules ?? [],
        [...this.everyone, attributes],
        this.membersOf.get(groupId) ?? [],
        attributes,
      ),
    );
    if (to === null) return null;
    this.sizes.set(to, (this.sizes.get(to) ?? 0) + 1);
    this.membersOf.get(to)?.push(attributes);
    return to;
  }
}

import type { EntityManager } from 'typeorm';
import type { GroupId, CourseId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import type { BundleClass } from '@jigsaw/core/files';
import type { KnownSet, KnownSets, LackingGroups } from '@jigsaw/core/roster';
import { setKey } from '@jigsaw/core/roster';
import { fold } from '@jigsaw/core/text';
import type { GroupRow, SetMaking } from '../sets/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';

interface KnownGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly sourceId: string | null;
}
const asKnown = ({ id, name, sourceId }: GroupRow): KnownGroup => ({ id: id, name, sourceId });

interface StoredSet {
  readonly id: GroupSetId;
  readonly name: string;
  readonly isExclusive: boolean;
  readonly isSynchronised: boolean;
  readonly groups: readonly KnownGroup[];
}

/** The sets of a course with their groups, as class files name them. A section is known by the registrar's id, so that either side may
 * rename it; by its name where it has none yet. */
export async function readSets(
  manager: EntityManager,
  courseId: CourseId,
  classes: readonly BundleClass[] = [],
): Promise<KnownSets> {
  const sets = (await setsOfCourse(manager, courseId)).filter(
    (set) => set.putAwayAt === null || set.isSynchronised,
  );
  const groups = await groupsOfSets(
    manager,
    sets.map((set) => set.id),
  );
  const groupsOf = groupedBy(groups, (group) => group.setId);
  // Of two sets or groups of one name, the first is meant: the last one put into a map stays.
  const stored = sets
    .toReversed()
    .map((set): StoredSet => ({ ...set, groups: (groupsOf.get(set.id) ?? []).toReversed().map(asKnown) }));
  const sections = classes.filter((each) => each.set === null);
  return new Map(
    stored.flatMap((set) => {
      const known = knownSet(set, set.isSynchronised ? sections : []);
      return [
        [setKey(set.name), known] as const,
        ...(set.isSynchronised ? [[setKey(null), known] as const] : []),
      ];
    }),
  );
}

function knownSet({ isExclusive, groups }: StoredSet, listed: readonly BundleClass[]): KnownSet {
  const bySource = new Map(
    groups.flatMap((group) => (group.sourceId === null ? [] : [[group.sourceId, group] as const])),
  );
  const byName = new Map(groups.map((group) => [fold(group.name), group]));
  const groupOf = new Map([...byName].map(([name, group]) => [name, group.id]));
  for (const { title, sourceId } of listed) {
    const namesake = byName.get(fold(title));
    const group = bySource.get(sourceId) ?? (namesake?.sourceId === null ? namesake : undefined);
    if (group) groupOf.set(fold(title), group.id);
    else groupOf.delete(fold(title)); // another section of the registrar's has this name here
  }
  return { isExclusive, groupOf, nameOf: new Map(groups.map((group) => [group.id, group.name])) };
}

interface Making {
  readonly manager: EntityManager;
  readonly making: SetMaking;
  readonly courseId: CourseId;
  /** What a set of sections is called, if there is none yet. */
  readonly sectionsName: string;
  readonly now: Date;
  /** Hears of a set that was there before and has new groups now. */
  readonly onNewGroups: (setId: GroupSetId) => Promise<void>;
}

/** Makes the groups that a class file names and the course lacks, with their sets; remembers by which id the registrar knows a section.
 * @returns the sets with all of them. */
export async function makeGroups(
  { manager, making, courseId, sectionsName, now, onNewGroups }: Making,
  lacking: readonly LackingGroups[],
  classes: readonly BundleClass[],
  known: KnownSets,
): Promise<KnownSets> {
  const sourceOf = new Map(
    classes.flatMap((each) => (each.set === null ? [[fold(each.title), each.sourceId] as const] : [])),
  );
  const matched = [...(known.get(setKey(null))?.groupOf ?? [])].flatMap(([name, id]) =>
    sourceOf.has(name) ? [{ id, sourceId: sourceOf.get(name) }] : [],
  );
  await making.identify(manager, matched);
  const sets = new Map(known);
  for (const { set, isNew, isExclusive, groups } of lacking) {
    const name = set ?? sectionsName;
    const setId = isNew
      ? (
          await making.add({ manager, now }, courseId, {
            name,
            isExclusive,
            isSynchronised: set === null,
            pattern: set === null ? 'Section {n}' : 'Group {n}',
          })
        ).id
      : await findSet(manager, courseId, set);
    const made = await making.addGroups(
      { manager },
      setId,
      groups.map((each) => ({
        name: each,
        sourceId: set === null ? (sourceOf.get(fold(each)) ?? null) : null,
      })),
    );
    if (!isNew) await onNewGroups(setId);
    const before = known.get(setKey(set));
    sets.set(setKey(set), {
      isExclusive: before?.isExclusive ?? isExclusive,
      groupOf: new Map([
        ...(before?.groupOf ?? []),
        ...made.map((each) => [fold(each.name), each.id] as const),
      ]),
      nameOf: new Map([...(before?.nameOf ?? []), ...made.map((each) => [each.id, each.name] as const)]),
    });
  }
  return sets;
}

async function findSet(manager: EntityManager, courseId: CourseId, set: string | null): Promise<GroupSetId> {
  const sets = (await setsOfCourse(manager, courseId)).filter(
    (each) => each.putAwayAt === null || each.isSynchronised,
  );
  return sure(sets.find((each) => (set === null ? each.isSynchronised : setKey(each.name) === setKey(set))))
    .id;
}

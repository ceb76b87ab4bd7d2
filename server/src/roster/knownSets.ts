import type { EntityManager } from 'typeorm';
import type { CourseId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import type { BundleClass } from '@jigsaw/core/files';
import type { KnownSet, KnownSets, LackingGroups } from '@jigsaw/core/roster';
import { setKey } from '@jigsaw/core/roster';
import { fileNames, setFileNames } from '@jigsaw/core/sets';
import { fold } from '@jigsaw/core/text';
import type { GroupRow, GroupSetRow, SetMaking } from '../sets/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';

type StoredSet = Pick<GroupSetRow, 'id' | 'name' | 'isExclusive' | 'isSynchronised' | 'archivedAt'>;
type StoredGroup = Pick<GroupRow, 'id' | 'setId' | 'number' | 'name' | 'sourceId'>;

/** Sets by every key under which a class file may mean them. Of two of one name, the first is meant; the name that our own files give each
 * of them tells them apart. */
function setsByKey(sets: readonly StoredSet[]): ReadonlyMap<string, StoredSet> {
  const shown = sets.filter((set) => set.archivedAt === null);
  const names = setFileNames(shown);
  const sections = sets.filter((set) => set.isSynchronised);
  // The last one put into a map stays.
  return new Map([
    ...[...sections, ...shown.toReversed()].map((set) => [setKey(set.name), set] as const),
    ...shown.map((set) => [setKey(sure(names.get(set.id))), set] as const),
    ...sections.map((set) => [setKey(null), set] as const),
  ]);
}

/** The sets of a course with their groups, as class files name them. */
export async function readSets(
  manager: EntityManager,
  courseId: CourseId,
  classes: readonly BundleClass[] = [],
): Promise<KnownSets> {
  const sets = await setsOfCourse(manager, courseId);
  const groups = await groupsOfSets(
    manager,
    sets.map((set) => set.id),
  );
  return knownSets(sets, groups, classes);
}

/** A section is known by the registrar's id, so that either side may rename it; by its name where it has none yet.
 * @param sets in the course's order, `groups` in that of their numbers. */
export function knownSets(
  sets: readonly StoredSet[],
  groups: readonly StoredGroup[],
  classes: readonly BundleClass[] = [],
): KnownSets {
  const groupsOf = groupedBy(groups, (group) => group.setId);
  const sections = classes.filter((each) => each.set === null);
  const known = new Map(
    sets.map((set) => [
      set.id,
      knownSet(set, groupsOf.get(set.id) ?? [], set.isSynchronised ? sections : []),
    ]),
  );
  return new Map([...setsByKey(sets)].map(([key, set]) => [key, sure(known.get(set.id))]));
}

function knownSet(
  { name, isExclusive }: Pick<StoredSet, 'name' | 'isExclusive'>,
  groups: readonly StoredGroup[],
  listed: readonly BundleClass[],
): KnownSet {
  const bySource = new Map(
    groups.flatMap((group) => (group.sourceId === null ? [] : [[group.sourceId, group] as const])),
  );
  const names = fileNames(groups);
  const byName = new Map([
    ...groups.toReversed().map((group) => [fold(group.name), group] as const),
    ...groups.map((group) => [fold(sure(names.get(group.id))), group] as const),
  ]);
  const groupOf = new Map([...byName].map(([name, group]) => [name, group.id]));
  for (const { title, sourceId } of listed) {
    const namesake = byName.get(fold(title));
    const group = bySource.get(sourceId) ?? (namesake?.sourceId === null ? namesake : undefined);
    if (group) groupOf.set(fold(title), group.id);
    else groupOf.delete(fold(title)); // another section of the registrar's has this name here
  }
  return { name, isExclusive, groupOf, nameOf: new Map(groups.map((group) => [group.id, group.name])) };
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
      name: before?.name ?? name,
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

const findSet = async (manager: EntityManager, courseId: CourseId, set: string | null): Promise<GroupSetId> =>
  sure(setsByKey(await setsOfCourse(manager, courseId)).get(setKey(set))).id;

import type { EntityManager } from 'typeorm';
import type { GroupId } from '@jigsaw/core/ids';
import type { BundleClass } from '@jigsaw/core/files';
import type { KnownSet, KnownSets, LackingGroups } from '@jigsaw/core/roster';
import { setKey } from '@jigsaw/core/roster';
import { fold } from '@jigsaw/core/text';
import { newId } from '../platform/ids.js';

interface KnownGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly sourceId: string | null;
}
interface StoredSet {
  readonly id: string;
  readonly name: string;
  readonly isExclusive: boolean;
  readonly isSynchronised: boolean;
  readonly groups: readonly KnownGroup[] | null;
}

/** The sets of a course with their groups, as class files name them. A section is known by the registrar's id, so that either side may
 * rename it; by its name where it has none yet. */
export async function readSets(
  manager: EntityManager,
  courseId: string,
  classes: readonly BundleClass[] = [],
): Promise<KnownSets> {
  const stored = await manager.query<StoredSet[]>(
    `SELECT s."id", s."name", s."isExclusive", s."isSynchronised",
            (SELECT jsonb_agg(jsonb_build_object('id', g."id", 'name', g."name", 'sourceId', g."sourceId") ORDER BY g."number" DESC)
               FROM "course_group" g WHERE g."setId" = s."id") AS "groups"
       FROM "group_set" s WHERE s."courseId" = $1 AND (s."putAwayAt" IS NULL OR s."isSynchronised") ORDER BY s."position" DESC`,
    [courseId],
  );
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
    groups?.flatMap((group) => (group.sourceId === null ? [] : [[group.sourceId, group] as const])),
  );
  const byName = new Map(groups?.map((group) => [fold(group.name), group]));
  const groupOf = new Map([...byName].map(([name, group]) => [name, group.id]));
  for (const { title, sourceId } of listed) {
    const namesake = byName.get(fold(title));
    const group = bySource.get(sourceId) ?? (namesake?.sourceId === null ? namesake : undefined);
    if (group) groupOf.set(fold(title), group.id);
    else groupOf.delete(fold(title)); // another section of the registrar's has this name here
  }
  return { isExclusive, groupOf, nameOf: new Map(groups?.map((group) => [group.id, group.name])) };
}

interface Making {
  readonly manager: EntityManager;
  readonly courseId: string;
  /** What a set of sections is called, if there is none yet. */
  readonly sectionsName: string;
  readonly now: Date;
  /** Hears of a set that was there before and has new groups now. */
  readonly onNewGroups: (setId: string) => Promise<void>;
}

/** Makes the groups that a class file names and the course lacks, with their sets; remembers by which id the registrar knows a section.
 * @returns the sets with all of them. */
export async function makeGroups(
  { manager, courseId, sectionsName, now, onNewGroups }: Making,
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
  await manager.query(
    `UPDATE "course_group" g SET "sourceId" = x."sourceId" FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "sourceId" text)
      WHERE g."id" = x."id" AND g."sourceId" IS DISTINCT FROM x."sourceId"`,
    [JSON.stringify(matched)],
  );
  const sets = new Map(known);
  for (const { set, isNew, isExclusive, groups } of lacking) {
    const name = set ?? sectionsName;
    const setId = isNew
      ? await makeSet(manager, courseId, { name, isExclusive, isSynchronised: set === null }, now)
      : await findSet(manager, courseId, set);
    const made = groups.map((each) => ({
      id: newId<'group'>(),
      name: each,
      sourceId: set === null ? (sourceOf.get(fold(each)) ?? null) : null,
    }));
    await manager.query(
      `INSERT INTO "course_group" ("id", "setId", "number", "name", "version", "sourceId")
       SELECT x."id", $2, (SELECT coalesce(max("number"), 0) FROM "course_group" WHERE "setId" = $2) + x."at", x."name", 1, x."sourceId"
         FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "at" int, "name" text, "sourceId" text)`,
      [JSON.stringify(made.map((each, index) => ({ ...each, at: index + 1 }))), setId],
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

async function findSet(manager: EntityManager, courseId: string, set: string | null): Promise<string> {
  const sets = await manager.query<{ id: string; name: string; isSynchronised: boolean }[]>(
    `SELECT "id", "name", "isSynchronised" FROM "group_set" WHERE "courseId" = $1 AND ("putAwayAt" IS NULL OR "isSynchronised") ORDER BY "position"`,
    [courseId],
  );
  return sets.find((each) => (set === null ? each.isSynchronised : setKey(each.name) === setKey(set)))!.id;
}

interface NewSet {
  readonly name: string;
  readonly isExclusive: boolean;
  readonly isSynchronised: boolean;
}

async function makeSet(
  manager: EntityManager,
  courseId: string,
  { name, isExclusive, isSynchronised }: NewSet,
  now: Date,
): Promise<string> {
  const id = newId();
  await manager.query(
    `INSERT INTO "group_set" ("id", "courseId", "name", "position", "pattern", "isExclusive", "isSynchronised", "createdAt")
     VALUES ($1, $2, $3, (SELECT count(*) FROM "group_set" WHERE "courseId" = $2), $4, $5, $6, $7)`,
    [id, courseId, name, isSynchronised ? 'Section {n}' : 'Group {n}', isExclusive, isSynchronised, now],
  );
  return id;
}

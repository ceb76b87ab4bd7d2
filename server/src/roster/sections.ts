import type { EntityManager } from 'typeorm';
import type { GroupId } from '@jigsaw/core/ids';
import type { BundleSection, PreviewRow, Sections } from '@jigsaw/core/roster';
import { fold } from '@jigsaw/core/text';
import { newId } from '../platform/ids.js';

interface SectionGroup {
  readonly id: GroupId;
  readonly name: string;
  readonly sourceId: string | null;
}

/** The groups of the set that follows sections. A section is known by the registrar's id, so that either side may rename it; by its name
 * where it has none yet. */
export async function readSections(manager: EntityManager, courseId: string, listed: readonly BundleSection[] = []): Promise<Sections> {
  const groups = await manager.query<SectionGroup[]>(
    `SELECT g."id", g."name", g."sourceId" FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE s."courseId" = $1 AND s."isSynchronised"`,
    [courseId],
  );
  const bySource = new Map(groups.flatMap((group) => (group.sourceId === null ? [] : [[group.sourceId, group] as const])));
  const byName = new Map(groups.map((group) => [fold(group.name), group]));
  const groupOf = new Map([...byName].map(([name, group]) => [name, group.id]));
  for (const { title, sourceId } of listed) {
    const namesake = byName.get(fold(title));
    const group = bySource.get(sourceId) ?? (namesake?.sourceId === null ? namesake : undefined);
    if (group) groupOf.set(fold(title), group.id);
    else groupOf.delete(fold(title)); // another section of the registrar's has this name here
  }
  return { groupOf, nameOf: new Map(groups.map((group) => [group.id, group.name])) };
}

/** Names of the sections in these rows that have no group yet. */
export const unknownSections = (rows: readonly PreviewRow[], { groupOf }: Sections): string[] => [
  ...new Map(
    rows.flatMap((row) => {
      const section = row.kind === 'new' || row.kind === 'changed' ? row.person.section : null;
      return section === null || groupOf.has(fold(section)) ? [] : [[fold(section), section] as const];
    }),
  ).values(),
];

/** Makes the groups that these sections lack, and their set where there is none; remembers by which id the registrar knows each. */
export async function makeSections(
  manager: EntityManager,
  { courseId, setName, now }: { readonly courseId: string; readonly setName: string; readonly now: Date },
  wanted: readonly string[],
  listed: readonly BundleSection[],
  known: Sections,
): Promise<Sections> {
  const sourceOf = new Map(listed.map((section) => [fold(section.title), section.sourceId]));
  const matched = [...known.groupOf].flatMap(([name, id]) => (sourceOf.has(name) ? [{ id, sourceId: sourceOf.get(name) }] : []));
  await manager.query(
    `UPDATE "course_group" g SET "sourceId" = x."sourceId" FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "sourceId" text)
      WHERE g."id" = x."id" AND g."sourceId" IS DISTINCT FROM x."sourceId"`,
    [JSON.stringify(matched)],
  );
  if (wanted.length === 0) return known;
  const setId = (await findSet(manager, courseId)) ?? (await makeSet(manager, courseId, setName, now));
  const made = wanted.map((name) => ({ id: newId<'group'>(), name, sourceId: sourceOf.get(fold(name)) ?? null }));
  await manager.query(
    `INSERT INTO "course_group" ("id", "setId", "number", "name", "version", "sourceId")
     SELECT x."id", $2, (SELECT coalesce(max("number"), 0) FROM "course_group" WHERE "setId" = $2) + x."at", x."name", 1, x."sourceId"
       FROM jsonb_to_recordset($1::jsonb) AS x("id" uuid, "at" int, "name" text, "sourceId" text)`,
    [JSON.stringify(made.map((each, index) => ({ ...each, at: index + 1 }))), setId],
  );
  return {
    groupOf: new Map([...known.groupOf, ...made.map((each) => [fold(each.name), each.id] as const)]),
    nameOf: new Map([...known.nameOf, ...made.map((each) => [each.id, each.name] as const)]),
  };
}

async function findSet(manager: EntityManager, courseId: string): Promise<string | undefined> {
  const [row] = await manager.query<{ id: string }[]>(`SELECT "id" FROM "group_set" WHERE "courseId" = $1 AND "isSynchronised"`, [courseId]);
  return row?.id;
}

async function makeSet(manager: EntityManager, courseId: string, name: string, now: Date): Promise<string> {
  const id = newId();
  await manager.query(
    `INSERT INTO "group_set" ("id", "courseId", "name", "position", "pattern", "isExclusive", "isSynchronised", "createdAt")
     VALUES ($1, $2, $3, (SELECT count(*) FROM "group_set" WHERE "courseId" = $2), 'Section {n}', true, true, $4)`,
    [id, courseId, name, now],
  );
  return id;
}

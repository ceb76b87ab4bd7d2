import type { EntityManager } from 'typeorm';
import type { z } from 'zod';
import type { RosterAttribute } from '@jigsaw/contract/course';
import type { AttributeKind } from '@jigsaw/core/course';
import { guessKind } from '@jigsaw/core/course';
import type { CourseId } from '@jigsaw/core/ids';
import { CourseRow } from './course.rows.js';

/** What someone said an attribute is, by its name; also of attributes that no one has a value of yet. */
export type ChosenKinds = Readonly<Record<string, AttributeKind>>;

/** Every attribute of a course: first those that someone has, in the order in which they came. */
export function attributesOf(
  entries: readonly { readonly attributes: Readonly<Record<string, string>> }[],
  chosen: ChosenKinds,
): z.infer<typeof RosterAttribute>[] {
  const values = new Map<string, string[]>();
  for (const entry of entries)
    for (const [name, value] of Object.entries(entry.attributes)) {
      const own = values.get(name);
      if (own) own.push(value);
      else values.set(name, [value]);
    }
  const kinds = new Map(Object.entries(chosen));
  return [...new Set([...values.keys(), ...kinds.keys()])].map((name) => ({
    name,
    kind: kinds.get(name) ?? guessKind(values.get(name) ?? []),
    isChosen: kinds.has(name),
  }));
}

export async function chosenKinds(manager: EntityManager, courseId: CourseId): Promise<ChosenKinds> {
  const course = await manager.findOneOrFail(CourseRow, {
    where: { id: courseId },
    select: { id: true, attributeKinds: true },
  });
  return course.attributeKinds;
}

/** null: no one said, so that it is guessed again. */
export async function chooseKind(
  manager: EntityManager,
  courseId: CourseId,
  name: string,
  kind: AttributeKind | null,
): Promise<void> {
  const kinds = new Map(Object.entries(await chosenKinds(manager, courseId)));
  if (kind === null) kinds.delete(name);
  else kinds.set(name, kind);
  await manager.update(CourseRow, courseId, { attributeKinds: Object.fromEntries(kinds) });
}

/** An attribute's kind goes with its name. */
export async function renameKind(
  manager: EntityManager,
  courseId: CourseId,
  { from, to }: { readonly from: string; readonly to: string },
): Promise<void> {
  const kinds = new Map(Object.entries(await chosenKinds(manager, courseId)));
  const kind = kinds.get(from);
  if (kind === undefined) return;
  kinds.delete(from);
  kinds.set(to, kind);
  await manager.update(CourseRow, courseId, { attributeKinds: Object.fromEntries(kinds) });
}

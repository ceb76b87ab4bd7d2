import type { EntityManager } from 'typeorm';
import type { EventRow } from './event.rows.js';

/** What happened to one thing, the latest first.
 * @param types how the types begin: `mark.`
 * @param facts only events that hold these; an event that tells no unit is of the group.
 * @param most so many at most. */
export const eventsAbout = (
  manager: EntityManager,
  subjectId: string,
  types: string,
  { unit }: { readonly unit: string },
  most: number,
): Promise<Pick<EventRow, 'type' | 'at' | 'facts' | 'actorId'>[]> =>
  manager.query(
    `SELECT "type", "at", "facts", "actorId" FROM "event"
      WHERE "subjectId" = $1 AND starts_with("type", $2) AND COALESCE("facts"->>'unit', 'group') = $3
      ORDER BY "at" DESC, "id" DESC LIMIT $4`,
    [subjectId, types, unit, most],
  );

/** Whether anything happened to one of these. */
export async function hasHappened(manager: EntityManager, subjectIds: readonly string[]): Promise<boolean> {
  const [row] = await manager.query<{ has: boolean }[]>(
    `SELECT EXISTS (SELECT 1 FROM "event" WHERE "subjectId" = ANY($1)) AS "has"`,
    [subjectIds],
  );
  return row?.has ?? false;
}

import type { EntityManager } from 'typeorm';
import type { CourseId, PersonId } from '@jigsaw/core/ids';
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

/** Events that are about one of these, or name this in what they hold, or that this person did. */
export interface EventsAbout {
  readonly subjectIds: readonly string[];
  readonly mentions: string;
  readonly actorId: PersonId | null;
}
export interface EventsWanted {
  /** null: of any type. */
  readonly types: readonly string[] | null;
  /** All of these. */
  readonly about: readonly EventsAbout[];
  /** Earlier than this event; null: the latest. */
  readonly before: string | null;
  readonly most: number;
}
export type CourseEvent = Pick<EventRow, 'id' | 'type' | 'at' | 'facts' | 'actorId' | 'subjectId'>;

/** What happened in a course, the latest first. One statement. */
export function eventsOfCourse(
  manager: EntityManager,
  courseId: CourseId,
  { types, about, before, most }: EventsWanted,
): Promise<CourseEvent[]> {
  const parameters: unknown[] = [courseId, types, before, most];
  const conditions = about.map(({ subjectIds, mentions, actorId }) => {
    const first = parameters.push(subjectIds, mentions, actorId) - 2;
    return `AND ("subjectId" = ANY($${first}::uuid[]) OR position($${first + 1} IN "facts"::text) > 0 OR "actorId" = $${first + 2})`;
  });
  return manager.query(
    `SELECT "id", "type", "at", "facts", "actorId", "subjectId" FROM "event"
      WHERE "courseId" = $1 AND ($2::text[] IS NULL OR "type" = ANY($2))
        AND ($3::uuid IS NULL OR ("at", "id") < (SELECT b."at", b."id" FROM "event" b WHERE b."id" = $3 AND b."courseId" = $1))
        ${conditions.join(' ')}
      ORDER BY "at" DESC, "id" DESC LIMIT $4`,
    parameters,
  );
}

import type { EntityManager } from 'typeorm';
import type { Author } from '@jigsaw/contract/course';
import type { Role } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';

/** Anyone who wrote or added something, whatever became of their enrolment since. */
export async function authorsById(
  manager: EntityManager,
  enrolmentIds: Iterable<string>,
  you: string,
): Promise<(id: string) => Author> {
  const rows = await manager.query<{ id: EnrolmentId; name: string; reading: string | null; role: string }[]>(
    `SELECT "enrolmentId" AS "id", "name", "reading", "role" FROM "author" WHERE "enrolmentId" = ANY($1)`,
    [[...new Set(enrolmentIds)]],
  );
  const byId = new Map<string, Author>(
    rows.map(({ id, name, reading, role }) => [
      id,
      { enrolmentId: id, name, reading, isYou: id === you, isStaff: role !== 'student' },
    ]),
  );
  return (id) => {
    const author = byId.get(id);
    assert(author, 'everyone who worked in a copy is enrolled');
    return author;
  };
}

export interface PersonNow {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly reading: string | null;
  readonly role: Role;
  readonly attributes: Readonly<Record<string, string>>;
}

/** Everyone who is in a course now, staff too, by name.
 * @param only this one. */
export const peopleOf = (
  manager: EntityManager,
  courseId: CourseId,
  only: EnrolmentId | null = null,
): Promise<PersonNow[]> =>
  manager.query(
    `SELECT "id" AS "enrolmentId", "name", "reading", "role", "attributes" FROM "enrolment"
      WHERE "courseId" = $1 AND "role" <> 'practice' AND "leftAt" IS NULL AND ($2::uuid IS NULL OR "id" = $2) ORDER BY lower("name"), "id"`,
    [courseId, only],
  );

/** Says the names of a course's students to staff: where two are called the same, with the number or address that tells them apart. One query. */
export async function toldApart(
  manager: EntityManager,
  courseId: CourseId,
): Promise<(enrolmentId: string, name: string) => string> {
  const rows = await manager.query<{ enrolmentId: EnrolmentId; by: string }[]>(
    `SELECT "enrolmentId", coalesce("number", "email") AS "by"
       FROM (SELECT *, count(*) OVER (PARTITION BY lower("name")) AS "alike" FROM "present_student" WHERE "courseId" = $1) p
      WHERE "alike" > 1`,
    [courseId],
  );
  const by = new Map<string, string>(rows.map((row) => [row.enrolmentId, row.by]));
  return (enrolmentId, name) => (by.has(enrolmentId) ? `${name} (${by.get(enrolmentId)})` : name);
}

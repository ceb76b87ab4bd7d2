import type { EntityManager } from 'typeorm';
import type { Author } from '@jigsaw/contract/course';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';

/** Groups as they are shown beside work: by number and name, in the order of their sets. */
export async function groupTags(
  manager: EntityManager,
  groupIds: readonly (string | null)[],
): Promise<Map<string, GroupTag>> {
  const rows = await manager.query<
    { id: GroupId; setId: GroupSetId; setName: string; number: number; name: string }[]
  >(
    `SELECT g."id", g."setId", s."name" AS "setName", g."number", g."name"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = ANY($1) ORDER BY s."position", g."number"`,
    [groupIds.filter((id) => id !== null)],
  );
  return new Map(rows.map((row) => [row.id as string, row]));
}

/** Whoever wrote or added something, whatever became of their enrolment since. */
export async function authorsById(
  manager: EntityManager,
  enrolmentIds: Iterable<string>,
  you: string,
): Promise<(id: string) => Author> {
  const rows = await manager.query<{ id: EnrolmentId; name: string; reading: string | null; role: string }[]>(
    `SELECT e."id", p."name", p."reading", e."role" FROM "enrolment" e JOIN "person" p ON p."id" = e."personId" WHERE e."id" = ANY($1)`,
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
    assert(author, 'whoever worked in a copy is enrolled');
    return author;
  };
}

import type { EntityManager } from 'typeorm';

/** Students of a course who lack a seat in a set that is for everybody; sets in which they still choose do not count yet.
 * @param setIds sets in which everybody is to have a seat. */
export async function countStudentsToPlace(
  manager: EntityManager,
  courseId: string,
  setIds: readonly string[],
): Promise<number> {
  const [row] = await manager.query<{ students: number }[]>(
    `SELECT count(*)::int AS "students" FROM "present_student" p
      WHERE p."courseId" = $1 AND EXISTS (
        SELECT 1 FROM unnest($2::uuid[]) AS s("id") WHERE NOT EXISTS (
          SELECT 1 FROM "membership" m WHERE m."setId" = s."id" AND m."enrolmentId" = p."enrolmentId" AND m."until" IS NULL))`,
    [courseId, setIds],
  );
  return row!.students;
}

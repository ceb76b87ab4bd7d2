import type { EntityManager } from 'typeorm';
import type { PersonId } from '@jigsaw/core/ids';

/** What accounts are called, by id. */
export async function accountNames(
  manager: EntityManager,
  personIds: readonly PersonId[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await manager.query<{ id: string; name: string }[]>(
    `SELECT "id", "name" FROM "person" WHERE "id" = ANY($1)`,
    [[...new Set(personIds)]],
  );
  return new Map(rows.map((row) => [row.id, row.name]));
}

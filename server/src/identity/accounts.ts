import type { EntityManager } from 'typeorm';

/** What accounts are called, by id. */
export async function accountNames(
  manager: EntityManager,
  personIds: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await manager.query<{ id: string; name: string }[]>(
    `SELECT "id", "name" FROM "person" WHERE "id" = ANY($1)`,
    [[...new Set(personIds)]],
  );
  return new Map(rows.map((row) => [row.id, row.name]));
}

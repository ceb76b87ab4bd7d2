import pg from 'pg';

/** How many rows each table holds now. */
export async function rowCounts(): Promise<Record<string, number>> {
  const client = new pg.Client({ connectionString: process.env['JIGSAW_E2E_DATABASE'] });
  await client.connect();
  try {
    const { rows: tables } = await client.query<{ name: string }>(
      `SELECT "tablename" AS "name" FROM "pg_tables" WHERE "schemaname" = 'public' ORDER BY 1`,
    );
    const counts: Record<string, number> = {};
    for (const { name } of tables) {
      const { rows } = await client.query<{ n: number }>(`SELECT count(*)::int AS "n" FROM "${name}"`);
      counts[name] = rows[0]?.n ?? 0;
    }
    return counts;
  } finally {
    await client.end();
  }
}

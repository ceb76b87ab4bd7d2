import { SteadyClient } from './steadyClient.js';

/** Processes that start at once on one database do this one after the other. The lock ends with its connection.
 * @param what names the turn; another name is another turn. */
export async function oneAtATime<Result>(
  databaseUrl: string,
  what: string,
  work: () => Promise<Result>,
): Promise<Result> {
  const client = new SteadyClient({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('SELECT pg_advisory_lock(727001, hashtext($1))', [what]);
    return await work();
  } finally {
    await client.end();
  }
}

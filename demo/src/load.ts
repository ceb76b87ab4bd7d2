import type { AddressInfo } from 'node:net';
import { createApp, PeopleService } from '@jigsaw/server';
import type { Config } from '@jigsaw/server';
import pg from 'pg';
import { demoPassword, staff } from './people.js';
import { StoryClock } from './storyClock.js';

export class DemoRefused extends Error {}

/** Loads a sample course into an empty database. A load that was broken off is begun anew; anybody else's data is left alone.
 * @throws DemoRefused if the database holds something that is not the demo's. */
export async function loadDemo(
  config: Config,
  tell: (base: string, clock: StoryClock) => Promise<void>,
): Promise<'loaded' | 'there'> {
  const marks = await readMarks(config.databaseUrl);
  if (marks.includes('demo.loaded')) return 'there';
  if (marks.includes('demo.begun')) await clear(config.databaseUrl);
  else if (await holdsPeople(config.databaseUrl)) {
    throw new DemoRefused(
      'This database holds a Jigsaw Room of someone’s. The demo needs an empty one: use another DATABASE_URL, or ./jigsaw start for the one that is there.',
    );
  }
  await mark(config.databaseUrl, 'demo.begun');

  const clock = new StoryClock(new Date());
  const app = await createApp({ ...config, webFolder: null, logLevel: 'error' }, clock);
  try {
    await app.listen(0, '127.0.0.1');
    const { port } = app.getHttpServer().address() as AddressInfo;
    const { instructor } = staff;
    await app
      .get(PeopleService)
      .createInstructor(
        { email: instructor.email, name: instructor.name, familyName: instructor.family, reading: null },
        demoPassword,
      );
    await tell(`http://127.0.0.1:${port}`, clock);
  } finally {
    await app.close();
  }
  await mark(config.databaseUrl, 'demo.loaded');
  return 'loaded';
}

async function withClient<Result>(
  databaseUrl: string,
  use: (client: pg.Client) => Promise<Result>,
): Promise<Result> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    return await use(client);
  } finally {
    await client.end();
  }
}

const readMarks = (databaseUrl: string) =>
  withClient(databaseUrl, async (client) =>
    (await client.query<{ type: string }>(`SELECT "type" FROM "event" WHERE "type" LIKE 'demo.%'`)).rows.map(
      (row) => row.type,
    ),
  );

const holdsPeople = (databaseUrl: string) =>
  withClient(
    databaseUrl,
    async (client) => (await client.query('SELECT 1 FROM "person" LIMIT 1')).rowCount !== 0,
  );

const mark = (databaseUrl: string, type: string) =>
  withClient(databaseUrl, async (client) => {
    await client.query(
      `INSERT INTO "event" ("id", "type", "facts", "at") VALUES (gen_random_uuid(), $1, '{}', now())`,
      [type],
    );
  });

const clear = (databaseUrl: string) =>
  withClient(databaseUrl, async (client) => {
    const { rows } = await client.query<{ name: string }>(
      `SELECT quote_ident("tablename") AS "name" FROM "pg_tables" WHERE "schemaname" = 'public' AND "tablename" <> 'migrations'`,
    );
    await client.query(`TRUNCATE ${rows.map((row) => row.name).join(', ')}`);
  });

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { setTimeout as wait } from 'node:timers/promises';
import type pg from 'pg';
import { DataSource } from 'typeorm';
import { oneAtATime } from '../platform/oneAtATime.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

/** As a database does it that is restarted, or an administrator. */
const breakAllLines = () =>
  server.rows(
    `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`,
  );
const answers = () => server.browser().get('/api/session/front-door').expect(200);

describe('a line to the database that breaks while no one uses it', () => {
  it('ends no process, also in the moment in which a pool hands it over', async () => {
    const { master } = server.app.get(DataSource).driver as unknown as { readonly master: pg.Pool };
    const line = await master.connect();
    const over = new Promise((resolve) => line.once('end', resolve));
    await breakAllLines();
    await over;
    line.release(true);
    await answers();
  });

  it('ends no process that waits for its turn, nor what is done meanwhile', async () => {
    const done = await oneAtATime(server.databaseUrl, 'test', async () => {
      await breakAllLines();
      await wait(200);
      return 'done';
    });
    expect(done).toBe('done');
    await answers();
  });
});

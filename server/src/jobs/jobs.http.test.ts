import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { sure } from '@jigsaw/core/lists';
import { aCourse, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { AnotherProcess } from '../test/anotherProcess.js';
import { anotherProcess } from '../test/anotherProcess.js';
import { follow } from '../test/following.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let processes: AnotherProcess[];
beforeAll(async () => {
  server = await startTestServer();
  server.clock.set(new Date()); // as the other processes have it
  given = await aCourse(server);
  processes = await Promise.all([anotherProcess(server), anotherProcess(server)]);
});
afterAll(async () => {
  await Promise.all(processes.map((each) => each.kill()));
  await server.stop();
});

/** Never what is tested: a machine that is busy with other things is late. */
const until = async (what: string, isSo: () => Promise<boolean>) => {
  for (let waited = 0; !(await isSo()); waited += 50) {
    if (waited > 150_000) throw new Error(`${what}: not so`);
    await wait(50);
  }
};
const soon = () => {
  server.clock.set(new Date());
  return new Date(Date.now() + 1500).toISOString();
};
/** As the minute does it, without waiting for one. */
const bring = (count: number) =>
  server.rows(
    `SELECT graphile_worker.add_job('moments', max_attempts := 1) FROM generate_series(1, ${count})`,
  );
const told = async (activityId: string) =>
  (
    await server.rows(
      `SELECT 1 FROM "event" e JOIN "release" r ON r."id" = e."subjectId"
        WHERE r."activityId" = '${activityId}' AND e."type" = 'activity.went-live'`,
    )
  ).length;
const jobsLeft = async (isUnderWay: boolean) =>
  (await server.rows(`SELECT 1 FROM graphile_worker.jobs WHERE (locked_at IS NOT NULL) = ${isUnderWay}`)).length; // prettier-ignore
/** How many transactions wait for a lock. */
const waiting = async () =>
  (
    await server.rows(
      `SELECT 1 FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'`,
    )
  ).length;

describe('jobs of several processes on one database', () => {
  it('tell of a scheduled release at its minute, once, also to a page that is open at another', async () => {
    const { id } = await released(given, { title: 'At its minute' }, { goesLiveAt: soon() });
    const page = await follow(sure(given.students.get('noor')).browser, given.course.id);
    await wait(1600);
    server.clock.set(new Date());
    await bring(8);
    expect(await page.until('activity.went-live')).toEqual(['activity.went-live']);
    await until('all jobs done', async () => (await jobsLeft(true)) + (await jobsLeft(false)) === 0);
    expect(await told(id)).toBe(1);
    page.stop();
  });

  it('lose nothing when the process that is at it is killed', async () => {
    const { id } = await released(given, { title: 'Over a death' }, { goesLiveAt: soon() });
    await wait(1600);
    const holder = new pg.Client({ connectionString: server.databaseUrl });
    await holder.connect();
    await holder.query('BEGIN');
    await holder.query(`SELECT 1 FROM "release" WHERE "activityId" = $1 FOR UPDATE`, [id]);
    await bring(2);
    await until('both at it', async () => (await jobsLeft(true)) === 2);
    await until('both wait', async () => (await waiting()) >= 2);
    await sure(processes[0]).kill();
    await holder.query('COMMIT');
    await holder.end();
    await bring(1);
    await until('told', async () => (await told(id)) > 0);
    await until('the rest done', async () => (await jobsLeft(false)) === 0);
    expect(await told(id)).toBe(1);
  });

  it('are done at full minutes by themselves', async () => {
    const { id } = await released(given, { title: 'By the minute' }, { goesLiveAt: soon() });
    await until('told', async () => (await told(id)) === 1);
  });

  it('go on when the database was gone', async () => {
    await server.rows(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`); // prettier-ignore
    await wait(200);
    const { id } = await released(given, { title: 'After a break' }, { goesLiveAt: soon() });
    await wait(1600);
    await until('told', async () => {
      await bring(1);
      await wait(500);
      return (await told(id)) > 0;
    });
    expect(await told(id)).toBe(1);
    // By one at a time of the process that is left, however often it began again.
    const [holder, lock] = [new pg.Client({ connectionString: server.databaseUrl }), 'LOCK TABLE "release"'];
    await holder.connect();
    await holder.query(`BEGIN; ${lock}`);
    await bring(4);
    await until('one at it', async () => (await waiting()) > 0);
    await wait(1000);
    expect(await waiting()).toBe(1);
    await holder.query('COMMIT');
    await holder.end();
  });
});

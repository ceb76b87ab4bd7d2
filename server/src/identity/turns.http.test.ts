import { afterAll, beforeAll, expect, it } from '@jest/globals';
import pg from 'pg';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());

it('lets no one take the turns of others: of one person three requests are worked on, a hundred wait, more are refused', async () => {
  const noor = sure(given.students.get('noor')).browser;
  const jorge = sure(given.students.get('jorge')).browser;
  const holding = new pg.Client({ connectionString: server.databaseUrl });
  await holding.connect();
  await holding.query('BEGIN; LOCK TABLE "activity", "release"');
  let refused = 0;
  const asked = Array.from({ length: 130 }, async () => {
    const answer = await noor.get(`/api/courses/${given.course.id}/rooms`);
    if (answer.status === 429) refused += 1;
    return answer;
  });
  for (const until = Date.now() + 60_000; refused < 27 && Date.now() < until;)
    await new Promise((resolve) => setTimeout(resolve, 20));
  expect(refused).toBe(27);
  // All connections would be taken if all of hers were worked on.
  await jorge.get('/api/session').expect(200);
  await jorge.get('/api/courses').expect(200);
  await holding.query('COMMIT');
  await holding.end();
  const answers = await Promise.all(asked);
  expect(answers.filter(({ status }) => status === 200)).toHaveLength(103);
  const { body } = sure(answers.find(({ status }) => status === 429)) as { body: { detail: string } };
  expect(body.detail).toBe('Very much is asked for at once from your account. Wait a moment and try again.');
  await noor.get(`/api/courses/${given.course.id}/rooms`).expect(200);
});

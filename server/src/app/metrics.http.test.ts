import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { measureProcess, serveMetrics } from './metrics.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 2, groups: 1 });
});
afterAll(() => server.stop());

it('tells how long what took, of what kind and how many, and nothing of whom', async () => {
  measureProcess(server.app);
  await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200);
  await given.instructor.get(`/api/courses/${given.course.id}/nothing-of-this-kind`).expect(404);
  const metrics = await serveMetrics(0);
  const { port } = metrics.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/metrics`);
  expect(answer.status).toBe(200);
  const text = await answer.text();
  expect(text).toMatch(
    /jigsaw_request_seconds_count\{method="GET",route="\/api\/courses\/:courseId\/roster",status="200"\} \d+/,
  );
  expect(text).toMatch(/route="none",status="404"|status="404"/);
  for (const name of [
    'jigsaw_streams 0',
    'jigsaw_database_connections ',
    'jigsaw_database_waiting 0',
    'nodejs_eventloop_lag_p99_seconds',
  ])
    // prettier-ignore
    expect(text).toContain(name);
  expect(text).not.toContain(given.course.id);
  expect(text).not.toMatch(/quillmere/);
  expect((await fetch(`http://127.0.0.1:${port}/other`)).status).toBe(404);
  metrics.close();
});

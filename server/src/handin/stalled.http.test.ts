import type { ClientRequest } from 'node:http';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let copyId: string;
beforeAll(async () => {
  server = await startTestServer({ bodyWithinMs: 2_000 });
  given = await aCourse(server, { students: 5, groups: 2 });
  await released(given, { title: 'Report' });
  copyId = await copyOf(student('noor'), given.course.id, 'Report');
});
afterAll(() => server.stop());

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const chunksKept = () => server.rows(`SELECT 1 FROM "blob"`);

interface Sent {
  /** The status of the answer; null: the line was cut without one. */
  readonly answer: Promise<number | null>;
  readonly request: ClientRequest;
}

/** A request of the browser's that announces more bytes than it sends, and then says nothing. */
function stalled(method: 'post' | 'put', address: string, contentType: string, begins: string): Sent {
  const sent = student('noor')
    [method](address)
    .set({ 'Content-Type': contentType, 'Content-Length': '5000' });
  const request = (sent as unknown as { request(): ClientRequest }).request();
  const answer = new Promise<number | null>((resolve) => {
    request.on('response', (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    });
    request.on('error', () => resolve(null));
  });
  request.write(begins);
  return { answer, request };
}
const stalledFile = (name: string) =>
  stalled('post', `/api/copies/${copyId}/files?name=${name}`, 'application/octet-stream', 'some');

it('says when a request does not arrive whole in time, and takes the next one', async () => {
  const { answer, request } = stalled('put', `/api/copies/${copyId}/part`, 'application/json', '{"text":');
  expect(await answer).toBe(408);
  request.destroy();
  await student('noor')
    .put(`/api/copies/${copyId}/part`)
    .send({ text: aText('Written whole.'), version: 0 })
    .expect(200);
});

it('cuts a line on which nothing moves, and keeps nothing of what it brought', async () => {
  const http = server.app.getHttpServer();
  expect(http.timeout).toBe(150_000);
  http.setTimeout(500); // for lines that come from now on
  try {
    expect(await stalledFile('half.txt').answer).toBeNull();
  } finally {
    http.setTimeout(150_000);
  }
  await settled(async () => (await chunksKept()).length === 0);
});

it('lets one person have 20 files on their way, and others work meanwhile', async () => {
  const going = Array.from({ length: 20 }, (_, at) => stalledFile(`f${at}.txt`));
  await settled(async () => (await chunksKept()).length === 20);
  const refused = await student('noor')
    .post(`/api/copies/${copyId}/files?name=one-more.txt`)
    .set('Content-Type', 'application/octet-stream')
    .send('one more');
  expect(refused.status).toBe(429);
  expect(refused.body).toMatchObject({ detail: expect.stringContaining('on their way already') });
  await student('jorge')
    .post(`/api/copies/${copyId}/files?name=other.txt`)
    .set('Content-Type', 'application/octet-stream')
    .send('of a teammate')
    .expect(200);
  for (const { request } of going) request.destroy();
  await Promise.all(going.map(({ answer }) => answer));
  await settled(async () => (await chunksKept()).length === 1);
  await student('noor')
    .post(`/api/copies/${copyId}/files?name=one-more.txt`)
    .set('Content-Type', 'application/octet-stream')
    .send('one more')
    .expect(200);
});

/** Waits for what comes about by itself; its patience only ends a test that has failed. */
async function settled(isSo: () => Promise<boolean>): Promise<void> {
  for (const until = Date.now() + 60_000; Date.now() < until;) {
    if (await isSo()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('it did not come about within a minute');
}

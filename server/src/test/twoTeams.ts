import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aText } from './aCourse.js';
import type { CourseForTests } from './aCourse.js';
import type { Browser, TestServer } from './testServer.js';
import { startTestServer } from './testServer.js';

/** A server for a file of tests, and for each of them a course of its own that begins on one and the same morning: Crock with Noor and Jorge, Carboy with Amina
 * and Kofi, and Nino in no group. What it gives is of the test that runs.
 * @param school no other file's, in a letter or two. */
export function twoTeams(school: string) {
  let server: TestServer;
  let given: CourseForTests;
  let count = 0;
  beforeAll(async () => {
    server = await startTestServer();
  });
  afterAll(() => server.stop());
  beforeEach(async () => {
    server.clock.set('2026-11-10T10:00:00Z');
    count += 1;
    const of = `${school}${count}.example`;
    given = await aCourse(server, { students: 5, groups: 2, email: `ilse@${of}`, school: of });
  });
  return {
    get server() {
      return server;
    },
    get given() {
      return given;
    },
    /** The how manyth test it is, for names that no other course has. */
    get count() {
      return count;
    },
    student: (name: string): Browser => sure(given.students.get(name)).browser,
    /** Someone writes in a talk; a minute passes.
     * @returns the post's id. */
    say: async (by: Browser, copyId: string, words: string, parentId: string | null = null) => {
      const id = randomUUID();
      await by.post(`/api/copies/${copyId}/posts`).send({ id, parentId, text: aText(words) }).expect(200); // prettier-ignore
      server.clock.pass({ minutes: 1 });
      return id;
    },
  };
}

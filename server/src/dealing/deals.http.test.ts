import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember } from '../test/aCourse.js';
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

const path = () => `/api/courses/${given.course.id}/deals`;
const nothing = { students: [], groups: [], rules: [], seed: 1 };

/** That a deal comes out, on a thread of its own, is shown against the built server in the browser tests; here is no build. */
describe('a deal worked out by the server', () => {
  it('is for staff who place students', async () => {
    await sure(given.students.get('noor')).browser.post(path()).send(nothing).expect(404);
    const observer = await aMember(server, given, 'olga', 'observer');
    await observer.post(path()).send(nothing).expect(403);
    await server.browser().post(path()).send(nothing).expect(401);
  });

  it('is refused in words where there is too much, or what is no rule', async () => {
    const group = { id: sure(given.board.groups[0]).id, name: 'G', capacity: null, isLocked: false };
    const many = await given.instructor
      .post(path())
      .send({ ...nothing, groups: Array.from({ length: 5_001 }, () => group) });
    expect([many.status, many.body.detail]).toEqual([422, '5,000 groups are the most.']);
    const strange = await given.instructor.post(path()).send({ ...nothing, rules: [{ kind: 'by-looks' }] });
    expect(strange.status).toBe(422);
  });
});

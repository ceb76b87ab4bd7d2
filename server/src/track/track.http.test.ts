import { afterAll, beforeAll, beforeEach, expect, it } from '@jest/globals';
import type { Figures } from '@jigsaw/contract/track';
import { aCourse, anAssignment, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  given = await aCourse(server, { email: `ilse${count}@quillmere.example` });
});

const figures = async () =>
  (await given.instructor.get(`/api/courses/${given.course.id}/figures`).expect(200)).body as Figures;

it('counts each activity in the state that it is in at that moment', async () => {
  await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anAssignment()).expect(200);
  const schedule = { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-13T17:00:00.000Z' };
  await released(given, { title: 'Closing', schedule });
  await released(given, { title: 'Later' }, { goesLiveAt: '2026-11-12T10:00:00.000Z' });
  const withdrawn = await released(given, { title: 'Withdrawn' });
  await given.instructor.post(`/api/activities/${withdrawn.id}/withdraw`).expect(200);
  expect(await figures()).toMatchObject({ live: 1, scheduled: 1, closed: 0, drafts: 1 });
  server.clock.set('2026-11-14T10:00:00Z');
  expect(await figures()).toMatchObject({ live: 1, scheduled: 0, closed: 1, drafts: 1 });
});

it('tells those who can still choose a group from those who are to be placed', async () => {
  expect(await figures()).toMatchObject({ unplaced: 1, choosing: 0 });
  await given.instructor
    .post(`/api/courses/${given.course.id}/sets`)
    .send({
      name: 'Pairs',
      shape: { by: 'count', groups: 3 },
      capacity: 2,
      pattern: 'Pair {n}',
      names: [],
      signUp: { opens: null, closes: '2026-11-12T10:00:00.000Z', showsNames: true },
    })
    .expect(200);
  // Four have a place in the first set, and can choose in the second; the fifth is to be placed.
  expect(await figures()).toMatchObject({ unplaced: 1, choosing: 4 });
  server.clock.set('2026-11-12T10:00:00Z');
  expect(await figures()).toMatchObject({ unplaced: 5, choosing: 0 });
});

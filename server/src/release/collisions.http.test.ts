import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { CollisionList } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import { aCourse, aMember, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
const ids = new Map<string, string>();

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  const on = (due: string) => ({ opens: null, due, closes: null });
  const work = async (title: string, due: string, how: object = {}, more: object = {}) =>
    ids.set(title, (await released(given, { title, schedule: on(due), ...more }, how)).id);
  await work('Log', '2026-11-12T09:00:00.000Z');
  await work('Sheet', '2026-11-12T23:30:00.000Z', { to: theClass, mode: 'common' }, { kind: 'discussion', points: null }); // prettier-ignore
  await work('Memo', '2026-11-13T00:30:00.000Z'); // after midnight in Lisbon
  await released(given, toRead('notice', { title: 'Read this' }));
});
afterAll(() => server.stop());

const crock = () => sure(given.board.groups[0]).id;
const read = async (by = given.instructor) =>
  (await by.get(`/api/courses/${given.course.id}/collisions`).expect(200)).body as CollisionList;
const told = async () => {
  const titleOf = new Map([...ids].map(([title, id]) => [id, title]));
  return (await read()).collisions.map(({ day, activityIds, names }) => [day, activityIds.map((id) => titleOf.get(id)).sort(), names]); // prettier-ignore
};
const change = (path: string, body: object) =>
  given.instructor.put(`/api/activities/${path}`).send(body).expect(200);

describe('days on which several things fall due for the same students', () => {
  it('are told with what and for whom: those in a group, where it goes to groups', async () => {
    expect(await told()).toEqual([['2026-11-12', ['Log', 'Sheet'], ['Amina', 'Jorge', 'Kofi', 'Noor']]]);
  });

  it('follow the time that a group and a student were granted', async () => {
    const later = { due: '2026-11-13T17:00:00.000Z', reason: 'Ill' };
    await change(`${ids.get('Log')}/extensions/${crock()}`, later);
    await change(
      `${ids.get('Sheet')}/student-extensions/${sure(given.students.get('amina')).enrolmentId}`,
      later,
    );
    expect(await told()).toEqual([
      ['2026-11-12', ['Log', 'Sheet'], ['Kofi']],
      ['2026-11-13', ['Log', 'Memo'], ['Jorge', 'Noor']],
      ['2026-11-13', ['Memo', 'Sheet'], ['Amina']],
    ]);
  });

  it('do not count what was withdrawn', async () => {
    await given.instructor.post(`/api/activities/${ids.get('Memo')}/withdraw`).expect(200);
    expect(await told()).toEqual([['2026-11-12', ['Log', 'Sheet'], ['Kofi']]]);
  });

  it('are for those who release, alone', async () => {
    const path = `/api/courses/${given.course.id}/collisions`;
    const tomas = await aMember(server, given, 'tomas', 'assistant');
    for (const by of [sure(given.students.get('noor')).browser, tomas]) {
      const answer = await by.get(path);
      expect([403, 404]).toContain(answer.status);
      expect(JSON.stringify(answer.body)).not.toContain('2026-11');
    }
  });
});

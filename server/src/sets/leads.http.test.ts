import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { FoldedGradebook } from '@jigsaw/contract/gradebook';
import { unfoldGradebook } from '@jigsaw/contract/gradebook';
import type { DeskList, DeskView } from '@jigsaw/contract/marks';
import type { ActivityList, ActivityView } from '@jigsaw/contract/release';
import type { RoomLines } from '@jigsaw/contract/rooms';
import type { Figures } from '@jigsaw/contract/track';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aMember, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let tomas: Browser;
let activity: ActivityView;
let [crockCopy, carboyCopy] = ['', ''];

/** Noor and Jorge are in Crock, Amina and Kofi in Carboy. Both handed in; Tomas leads Crock. */
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
  tomas = await aMember(server, given, 'tomas', 'assistant');
  activity = await released(given);
  const [noor, amina] = [sure(given.students.get('noor')).browser, sure(given.students.get('amina')).browser];
  [crockCopy, carboyCopy] = [await copyOf(noor, given.course.id), await copyOf(amina, given.course.id)];
  for (const [browser, copyId] of [
    [noor, crockCopy],
    [amina, carboyCopy],
  ] as const) {
    await addFile(browser, copyId, 'notes.txt', Buffer.from('pH'));
    await browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
  }
  for (const [at, reason] of ['Their crock cracked', 'A secret of Carboy'].entries()) {
    const due = '2026-11-14T17:00:00.000Z';
    await given.instructor
      .put(`/api/activities/${activity.id}/extensions/${sure(given.board.groups[at]).id}`)
      .send({ due, reason })
      .expect(200);
  }
  await lead(sure(given.board.groups[0]).id, ['Tomas']).then((answer) => expect(answer.status).toBe(200));
});
afterAll(() => server.stop());

const board = async (browser: Browser = given.instructor) =>
  (await browser.get(`/api/sets/${given.set.id}/board`).expect(200)).body as BoardView;
const lead = async (groupId: string, names: readonly string[], browser: Browser = given.instructor) => {
  const { staff } = await board();
  const enrolmentIds = staff.filter((each) => names.includes(each.name)).map((each) => each.enrolmentId);
  return browser.put(`/api/sets/${given.set.id}/leads`).send({ leads: [{ groupId, enrolmentIds }] });
};
const see = (assistantsSee: 'all' | 'theirs') =>
  given.instructor.put(`/api/courses/${given.course.id}/assistants`).send({ assistantsSee }).expect(200);
const get = async <Answer>(path: string) => (await tomas.get(`/api${path}`).expect(200)).body as Answer;
const inCourse = (path: string) => `/courses/${given.course.id}/${path}`;

describe('staff who look after groups', () => {
  it('are named by the instructor, from the staff of the course', async () => {
    expect((await board()).groups.map((group) => group.leads.map((each) => each.name))).toEqual([
      ['Tomas'],
      [],
    ]);
    const student = sure(given.students.get('noor')).enrolmentId;
    const groupId = sure(given.board.groups[1]).id;
    await given.instructor
      .put(`/api/sets/${given.set.id}/leads`)
      .send({ leads: [{ groupId, enrolmentIds: [student] }] })
      .expect(404);
    await tomas
      .put(`/api/sets/${given.set.id}/leads`)
      .send({ leads: [{ groupId, enrolmentIds: [] }] })
      .expect(403);
    await sure(given.students.get('noor'))
      .browser.put(`/api/sets/${given.set.id}/leads`)
      .send({ leads: [{ groupId, enrolmentIds: [] }] })
      .expect(404);
    await tomas.put(`/api/courses/${given.course.id}/assistants`).send({ assistantsSee: 'all' }).expect(403);
  });

  it('see every group unless the course says otherwise', async () => {
    await see('all');
    await tomas.get(`/api/copies/${carboyCopy}`).expect(200);
    expect((await get<RoomLines>(inCourse('room-lines'))).lines).toHaveLength(2);
  });

  it('see nothing of the others where it does: no room, copy, mark, count, reason or file', async () => {
    await see('theirs');
    await tomas.get(`/api/copies/${crockCopy}`).expect(200);
    const unknown = await tomas.get('/api/copies/01920000-0000-7000-8000-000000000000').expect(404);
    for (const path of [
      `/api/copies/${carboyCopy}`,
      `/api/copies/${carboyCopy}/work`,
      `/api/copies/${carboyCopy}/mark/group`,
    ]) {
      expect((await tomas.get(path).expect(404)).body).toEqual(unknown.body);
    }
    expect((await get<RoomLines>(inCourse('room-lines'))).lines.map((line) => line.group.name)).toEqual([
      'Crock',
    ]);
    const desk = await get<DeskList>(inCourse('desk'));
    expect(desk.activities.map((each) => [each.toMark, each.unitCount])).toEqual([[1, 1]]);
    expect((await get<DeskView>(`/releases/${sure(desk.activities[0]).releaseId}/desk`)).rows).toHaveLength(
      1,
    );
    expect(await get<Figures>(inCourse('figures'))).toMatchObject({ toMark: 1, rooms: 1 });
    const gradebook = unfoldGradebook(await get<FoldedGradebook>(inCourse('gradebook')));
    expect(
      Object.fromEntries(
        gradebook.students.map((student) => [student.name, student.cells[0]?.map(({ state }) => state)]),
      ),
    ).toMatchObject({
      Noor: ['to-mark'],
      Amina: [],
    });
    expect(
      sure((await get<ActivityList>(inCourse('activities'))).activities[0]).extensions.map(
        (each) => each.name,
      ),
    ).toEqual(['Crock']);
    const handIns = Object.fromEntries(
      (await board(tomas)).students.map((student) => [student.name, student.seats[0]?.handIns ?? 0]),
    );
    expect(handIns).toMatchObject({ Noor: 1, Amina: 0 });
  });

  it('place students in their groups only', async () => {
    await see('theirs');
    const [crock, carboy] = given.board.groups.map((group) => group.id);
    const nino = sure(given.students.get('nino')).enrolmentId;
    const place = (from: string | null, to: string | null) =>
      tomas.post(`/api/sets/${given.set.id}/place`).send({ moves: [{ student: nino, from, to }] });
    await place(null, sure(carboy)).expect(403);
    await place(null, sure(crock)).expect(200);
    await place(sure(crock), null).expect(200);
    await see('all');
    await place(null, sure(carboy)).expect(200);
    await place(sure(carboy), null).expect(200);
  });

  it('see a group from the moment they look after it until they no longer do', async () => {
    await see('theirs');
    expect((await lead(sure(given.board.groups[1]).id, ['Tomas'])).status).toBe(200);
    await tomas.get(`/api/copies/${carboyCopy}`).expect(200);
    expect((await lead(sure(given.board.groups[1]).id, [])).status).toBe(200);
    await tomas.get(`/api/copies/${carboyCopy}`).expect(404);
    await given.instructor.get(`/api/copies/${carboyCopy}`).expect(200);
  });
});

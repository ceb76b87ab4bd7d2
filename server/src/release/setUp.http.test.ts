import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { GroupSetList } from '@jigsaw/contract/sets';
import type { MadeGroupSet } from '@jigsaw/contract/setUp';
import type { ActivityList } from '@jigsaw/contract/release';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let made = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  given = await aCourse(server, {
    email: `equipped${(made += 1)}@quillmere.example`,
    students: 5,
    groups: 2,
  });
});

const talk = (title: string, isReleased = true) => ({
  draft: anAssignment({ kind: 'discussion', title, points: null, settings: {} }),
  isReleased,
});
const report = { draft: anAssignment({ title: 'Report' }), isReleased: false };
const aSet = (activities: unknown[], more: object = {}) =>
  given.instructor.post(`/api/courses/${given.course.id}/sets`).send({
    name: 'Panels',
    shape: { by: 'count', groups: 3 },
    capacity: null,
    pattern: 'Panel {n}',
    names: [],
    activities,
    ...more,
  });
const counts = async () => ({
  sets: (
    (await given.instructor.get(`/api/courses/${given.course.id}/sets`).expect(200)).body as GroupSetList
  ).sets.length,
  activities: (
    (await given.instructor.get(`/api/courses/${given.course.id}/activities`).expect(200))
      .body as ActivityList
  ).activities.length,
});
const roomsOf = async (name: string) =>
  (
    (await sure(given.students.get(name)).browser.get(`/api/courses/${given.course.id}/rooms`).expect(200))
      .body as RoomList
  ).rooms.map((room) => [room.group.name, room.items.map((item) => item.title)]);

describe('a set made with what its groups get', () => {
  it('gives each group a private copy of what is released, and keeps drafts to staff', async () => {
    const set = (await aSet([talk('Planning'), report]).expect(200)).body as MadeGroupSet;
    expect(set.activities.map(({ title, isReleased, copies }) => [title, isReleased, copies])).toEqual([
      ['Planning', true, 3],
      ['Report', false, 0],
    ]);
    const board = (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as {
      groups: { id: string }[];
    };
    const place = {
      moves: [
        { student: sure(given.students.get('nino')).enrolmentId, from: null, to: sure(board.groups[1]).id },
      ],
    };
    await given.instructor.post(`/api/sets/${set.id}/place`).send(place).expect(200);
    expect(await roomsOf('nino')).toEqual([['Panel 2', ['Planning']]]);
    expect(await roomsOf('noor')).toEqual([['Crock', []]]);
  });

  it('does so for expert tables and copies, whose students are there at once', async () => {
    const experts = {
      name: 'Tables',
      topics: ['Salt', 'Heat'],
      most: null,
      seed: 1,
      activities: [talk('At the table')],
    };
    const tables = (
      await given.instructor.post(`/api/sets/${given.set.id}/experts`).send(experts).expect(200)
    ).body as MadeGroupSet;
    expect(sure(tables.activities[0]).copies).toBe(2);
    expect((await roomsOf('noor')).find(([name]) => name !== 'Crock')?.[1]).toEqual(['At the table']);
    const again = { name: 'Again', withMembers: true, activities: [talk('Once more')] };
    const copy = (await given.instructor.post(`/api/sets/${given.set.id}/copies`).send(again).expect(200))
      .body as MadeGroupSet;
    expect(sure(copy.activities[0]).copies).toBe(2);
    expect((await roomsOf('jorge')).filter(([, titles]) => sure(titles).includes('Once more'))).toEqual([
      ['Crock', ['Once more']],
    ]);
  });

  it('is made whole or not at all', async () => {
    const before = await counts();
    const answer = await aSet([
      talk('Planning'),
      { ...talk('No such'), draft: anAssignment({ kind: 'seance' }) },
    ]);
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain('no such kind');
    expect(await counts()).toEqual(before);
  });

  it('gives groups that come to be later their copies too', async () => {
    const set = (await aSet([talk('Planning')], { shape: { by: 'hand-in' }, capacity: 3 }).expect(200))
      .body as MadeGroupSet;
    expect(sure(set.activities[0]).copies).toBe(0);
    const group = { id: null, name: 'First', capacity: null, isLocked: false, version: 0 };
    await given.instructor
      .put(`/api/sets/${set.id}/groups`)
      .send({ groups: [group], removed: [] })
      .expect(200);
    const board = (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as {
      groups: { id: string }[];
    };
    const place = {
      moves: [
        { student: sure(given.students.get('nino')).enrolmentId, from: null, to: sure(board.groups[0]).id },
      ],
    };
    await given.instructor.post(`/api/sets/${set.id}/place`).send(place).expect(200);
    expect(await roomsOf('nino')).toEqual([['First', ['Planning']]]);
  });

  it('is the instructor’s to make', async () => {
    const tomas = await aMember(server, given, `tomas${made}`, 'assistant');
    const body = {
      name: 'Mine',
      shape: { by: 'count', groups: 2 },
      capacity: null,
      pattern: '',
      names: [],
      activities: [talk('Planning')],
    };
    await tomas.post(`/api/courses/${given.course.id}/sets`).send(body).expect(403);
    await sure(given.students.get('noor'))
      .browser.post(`/api/courses/${given.course.id}/sets`)
      .send(body)
      .expect(404);
  });
});

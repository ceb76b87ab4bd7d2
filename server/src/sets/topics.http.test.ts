import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let set: GroupSetView;
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  given = await aCourse(server, { students: 5, email: `ilse${count}@quillmere.example` });
  const request = { name: 'Experts', topics: ['Salt', 'Gas'], most: 1, seed: 7 };
  set = (await given.instructor.post(`/api/sets/${given.set.id}/experts`).send(request).expect(200))
    .body as GroupSetView;
});

const board = async () =>
  (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
const put = (topics: object[], version: number) =>
  given.instructor.put(`/api/sets/${set.id}/topics`).send({ topics, version });
const salt = { topic: 1, name: 'Salt', about: '', tables: 2 };
const gas = { topic: 2, name: 'Gas', about: '', tables: 2 };

describe('topics of expert tables', () => {
  it('are told with the Board, each table with its own', async () => {
    const { topics, homeSet, groups } = await board();
    expect(topics).toEqual([
      { name: 'Salt', about: '' },
      { name: 'Gas', about: '' },
    ]);
    expect(homeSet).toEqual({ id: given.set.id, name: given.set.name });
    expect(groups.map(({ name, topic }) => [name, topic])).toEqual([
      ['Salt 1', 1],
      ['Salt 2', 1],
      ['Gas 1', 2],
      ['Gas 2', 2],
    ]);
  });

  it('are renamed, described, put in another order and added, and their tables follow', async () => {
    const { groups } = await put(
      [
        { ...gas, about: 'Oxygen and burping' },
        { ...salt, name: 'Brine', tables: 3 },
        { topic: null, name: 'Heat', about: '', tables: 1 },
      ],
      set.version,
    )
      .expect(200)
      .then((answer) => answer.body as Pick<BoardView, 'groups'>);
    expect(groups.map(({ name, topic }) => [name, topic])).toEqual([
      ['Brine 1', 2],
      ['Brine 2', 2],
      ['Gas 1', 1],
      ['Gas 2', 1],
      ['Brine 3', 2],
      ['Heat', 3],
    ]);
    const { topics, students } = await board();
    expect(topics[0]).toEqual({ name: 'Gas', about: 'Oxygen and burping' });
    expect(students.filter((student) => student.seats.length > 0)).toHaveLength(4); // no one lost a seat
  });

  it('leave a table the name that someone gave it, and give no number out again', async () => {
    const [first] = (await board()).groups;
    const { id, capacity, version } = sure(first);
    await given.instructor
      .patch(`/api/groups/${id}`)
      .send({ name: 'Salt lovers', capacity, version })
      .expect(200);
    await put([{ ...salt, name: 'Brine', tables: 3 }, gas], set.version).expect(200);
    expect((await board()).groups.map(({ name, number }) => [name, number])).toEqual([
      ['Salt lovers', 1],
      ['Brine 2', 2],
      ['Gas 1', 3],
      ['Gas 2', 4],
      ['Brine 3', 5],
    ]);
    const more = { topic: null, name: 'Heat', about: '', tables: 1 };
    await put([{ ...salt, name: 'Brine', tables: 2 }, gas, more], set.version + 1).expect(200);
    expect((await board()).groups.map((group) => group.number)).toEqual([1, 2, 3, 4, 6]);
  });

  it('go with their tables where no one ever sat, and else stay as a whole', async () => {
    const more = { topic: null, name: 'Heat', about: '', tables: 2 };
    await put([salt, gas, more], set.version).expect(200);
    const { version } = (await board()).set;
    await put([salt, gas], version).expect(200);
    expect((await board()).topics).toHaveLength(2);
    const refused = await put([salt], version + 1).expect(409);
    expect((refused.body as { detail: string }).detail).toContain('1 student is in Gas 1');
    expect((await board()).topics).toHaveLength(2);
  });

  it('are not written over unseen, nor twice, nor by others, nor where there are none', async () => {
    await put([salt, gas], set.version + 1).expect(409);
    await put([salt, { ...gas, name: 'salt' }], set.version).expect(422);
    await put([salt, { ...gas, topic: 1 }], set.version).expect(422);
    await put([salt, { ...gas, topic: 9 }], set.version).expect(422);
    await put([], set.version).expect(422);
    await put([{ ...salt, tables: 0 }], set.version).expect(422);
    const request = { topics: [salt, gas], version: set.version };
    await sure(given.students.get('noor'))
      .browser.put(`/api/sets/${set.id}/topics`)
      .send(request)
      .expect(404);
    await given.instructor.put(`/api/sets/${given.set.id}/topics`).send(request).expect(409);
  });

  it('are copied with the set', async () => {
    const draft = { name: 'Round two', withMembers: true };
    const copy = (await given.instructor.post(`/api/sets/${set.id}/copies`).send(draft).expect(200))
      .body as GroupSetView;
    const copied = (await given.instructor.get(`/api/sets/${copy.id}/board`).expect(200)).body as BoardView;
    const original = await board();
    expect(copied.topics).toEqual(original.topics);
    expect(copied.homes).toEqual(original.homes);
    expect(copied.groups.map((group) => group.topic)).toEqual(original.groups.map((group) => group.topic));
  });
});

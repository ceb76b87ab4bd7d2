import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { rowOf, setActs } from '../test/setActs.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { wholeSet } from '@jigsaw/core/release';

let server: TestServer;
let given: CourseForTests;
let made = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  given = await aCourse(server, { email: `ways${(made += 1)}@quillmere.example`, students: 5, groups: 2 });
});

const { idOf, board, place, seatsOf, change } = setActs(() => given);

describe('a set in which one may be in several groups', () => {
  const aSet = async () =>
    (
      await given.instructor
        .post(`/api/courses/${given.course.id}/sets`)
        .send({
          name: 'Circles',
          isExclusive: false,
          shape: { by: 'count', groups: 3 },
          capacity: null,
          pattern: 'Circle {A}',
          names: [],
        })
        .expect(200)
    ).body as GroupSetView;

  it('seats someone in each of them once, moves between them, and takes each place back alone', async () => {
    const { id } = await aSet();
    const [a, b, c] = (await board(id)).groups.map((group) => group.id);
    const student = idOf('noor');
    await place(
      [a, b].map((to) => ({ student, from: null, to })),
      id,
    ).expect(200);
    await place([{ student, from: null, to: a }], id).expect(409);
    expect(await seatsOf('noor', id)).toEqual(['Circle A', 'Circle B']);
    await place([{ student, from: b, to: c }], id).expect(200);
    await place([{ student, from: a, to: null }], id).expect(200);
    expect(await seatsOf('noor', id)).toEqual(['Circle C']);
  });

  it('becomes exclusive once no one is in several, and then the database holds it', async () => {
    const { id } = await aSet();
    const [a, b] = (await board(id)).groups.map((group) => group.id);
    const student = idOf('noor');
    await place(
      [a, b].map((to) => ({ student, from: null, to })),
      id,
    ).expect(200);
    const refused = await change({ isExclusive: true }, id);
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
      409,
      expect.stringContaining('Noor is in several'),
    ]);
    await place([{ student, from: b, to: null }], id).expect(200);
    expect((await change({ isExclusive: true }, id)).status).toBe(200);
    await place([{ student, from: null, to: b }], id).expect(409);
    const twice = `INSERT INTO "membership" ("id", "setId", "groupId", "enrolmentId", "isExclusive", "from", "placedBy")
       SELECT gen_random_uuid(), "setId", $1, "enrolmentId", "isExclusive", "from", "placedBy" FROM "membership" WHERE "groupId" = $2 AND "until" IS NULL`;
    await expect(server.app.get(DataSource).query(twice, [b, a])).rejects.toThrow('membership_exclusive');
  });

  it('is not one in which students choose', async () => {
    const { id } = await aSet();
    const signUp = { opens: null, closes: null, showsNames: true };
    expect((await change({ signUp }, id)).status).toBe(422);
    expect((await change({ signUp, isExclusive: true }, id)).status).toBe(200);
  });

  it('opens the rooms of all their groups to a student, and each its own work', async () => {
    const { id } = await aSet();
    const [a, b] = (await board(id)).groups.map((group) => group.id);
    await place(
      [a, b].map((to) => ({ student: idOf('noor'), from: null, to })),
      id,
    ).expect(200);
    await place([{ student: idOf('jorge'), from: null, to: b }], id).expect(200);
    await released(given, {}, { to: wholeSet(id) });
    const rooms = async (name: string) => {
      const { body } = (await sure(given.students.get(name))
        .browser.get(`/api/courses/${given.course.id}/rooms`)
        .expect(200)) as { body: RoomList };
      return body.rooms.flatMap((room) =>
        room.group.setName === 'Circles' ? [`${room.group.name}: ${room.items.length}`] : [],
      );
    };
    expect([await rooms('noor'), await rooms('jorge')]).toEqual([
      ['Circle A: 1', 'Circle B: 1'],
      ['Circle B: 1'],
    ]);
  });
});

describe('the groups of a set at once', () => {
  const put = (body: object) => given.instructor.put(`/api/sets/${given.set.id}/groups`).send(body);

  it('are named, given places, locked and added to in one step, and new ones have what was released to all', async () => {
    await released(given);
    const [crock, carboy] = (await board()).groups;
    const groups = [
      { ...rowOf(sure(crock)), name: 'Kvevri', capacity: 6 },
      { ...rowOf(sure(carboy)), isLocked: true },
      { id: null, name: 'Tun', capacity: null, isLocked: false, version: 1 },
    ];
    await put({ groups, removed: [], capacity: 5 }).expect(200);
    expect((await board()).set.capacity).toBe(5);
    await put({ groups: [], removed: [] }).expect(200);
    expect((await board()).set.capacity).toBe(5); // what is not said stays
    const after = (await board()).groups;
    expect(
      after.map(({ number, name, capacity, isLocked, version }) => [
        number,
        name,
        capacity,
        isLocked,
        version,
      ]),
    ).toEqual([
      [1, 'Kvevri', 6, false, 2],
      [2, 'Carboy', null, true, 2],
      [3, 'Tun', null, false, 1],
    ]);
    await place([{ student: idOf('nino'), from: null, to: sure(after[2]).id }]).expect(200);
    const { body } = (await sure(given.students.get('nino'))
      .browser.get(`/api/courses/${given.course.id}/rooms`)
      .expect(200)) as { body: RoomList };
    expect(body.rooms.map((room) => [room.group.name, room.items.length])).toEqual([['Tun', 1]]);
  });

  it('are not changed at all if one was changed meanwhile, has members, or someone worked there', async () => {
    const { groups } = await board();
    const [crock, carboy] = groups;
    const renamed = { ...rowOf(sure(crock)), name: 'Kvevri' };
    expect(
      (await put({ groups: [renamed, { ...rowOf(sure(carboy)), version: 0 }], removed: [] }).expect(409))
        .body,
    ).toMatchObject({
      detail: expect.stringContaining('Carboy'),
    });
    expect((await put({ groups: [renamed], removed: [sure(carboy).id] }).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('2 students are in Carboy'),
    });
    const { students } = await board();
    const out = students
      .filter((student) => student.seats[0]?.groupId === sure(carboy).id)
      .map((student) => ({ student: student.enrolmentId, from: sure(carboy).id, to: null }));
    await place(out).expect(200);
    expect((await put({ groups: [renamed], removed: [sure(carboy).id] }).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('cannot be removed'),
    });
    expect((await board()).groups).toEqual(groups);
  });

  it('are taken away where no one ever was', async () => {
    const [crock, carboy] = (await board()).groups;
    const added = { id: null, name: 'Tun', capacity: null, isLocked: false, version: 1 };
    await put({ groups: [rowOf(sure(crock)), rowOf(sure(carboy)), added], removed: [] }).expect(200);
    await released(given);
    const tun = sure((await board()).groups[2]);
    await put({ groups: [rowOf(sure(crock)), rowOf(sure(carboy))], removed: [tun.id] }).expect(200);
    expect((await board()).groups.map((group) => group.name)).toEqual(['Crock', 'Carboy']);
  });

  it('are the instructor’s alone, and of this set alone', async () => {
    const groups = (await board()).groups.map(rowOf);
    await sure(given.students.get('noor'))
      .browser.put(`/api/sets/${given.set.id}/groups`)
      .send({ groups, removed: [] })
      .expect(404);
    const other = await aCourse(server, {
      email: `stranger${made}@quillmere.example`,
      students: 2,
      groups: 1,
    });
    await other.instructor.put(`/api/sets/${given.set.id}/groups`).send({ groups, removed: [] }).expect(404);
    await put({ groups: [{ ...sure(groups[0]), id: sure(other.board.groups[0]).id }], removed: [] }).expect(
      404,
    );
    await put({ groups: [], removed: [sure(other.board.groups[0]).id] }).expect(404);
  });
});

describe('members who name their own group', () => {
  const rename = (name: string, groupId: string, body: object) =>
    sure(given.students.get(name)).browser.patch(`/api/groups/${groupId}/naming`).send(body);

  it('name it and give it a motto where the set lets them, until it is fixed', async () => {
    const [crock, carboy] = (await board()).groups;
    const body = { name: 'Salt cellar', motto: 'Slow is fast', version: sure(crock).version };
    await rename('noor', sure(crock).id, body).expect(404); // not in this set
    expect((await change({ membersName: true })).status).toBe(200);
    await rename('noor', sure(carboy).id, body).expect(404); // another group's
    await rename('nino', sure(crock).id, body).expect(404); // in no group
    expect((await rename('noor', sure(crock).id, body).expect(200)).body).toEqual({
      id: sure(crock).id,
      name: 'Salt cellar',
      motto: 'Slow is fast',
      version: 2,
    });
    expect((await rename('jorge', sure(crock).id, { ...body, name: 'Mine' }).expect(409)).body).toMatchObject(
      {
        current: { name: 'Salt cellar' },
      },
    );
    expect((await board()).groups[0]).toMatchObject({ name: 'Salt cellar', motto: 'Slow is fast' });
    await given.instructor.post(`/api/sets/${given.set.id}/freeze`).send({ isFrozen: true }).expect(200);
    await rename('noor', sure(crock).id, { ...body, version: 2 }).expect(409);
    const { body: rooms } = (await sure(given.students.get('noor'))
      .browser.get(`/api/courses/${given.course.id}/rooms`)
      .expect(200)) as { body: RoomList };
    expect(rooms.rooms[0]).toMatchObject({ motto: 'Slow is fast', namingVersion: null });
  });
});

describe('the rules of a set', () => {
  const put = (rules: unknown[], version: number) =>
    given.instructor.put(`/api/sets/${given.set.id}/rules`).send({ rules, version });

  it('are kept with it in their order, copied with it, and not written over unseen', async () => {
    const rules = [
      { kind: 'spread', attribute: 'Lab', as: 'category' },
      { kind: 'apart', students: [idOf('noor'), idOf('jorge')] },
      { kind: 'fresh', setIds: [given.set.id] },
    ];
    const { version } = (await board()).set;
    await put(rules, version).expect(200);
    expect((await board()).rules).toEqual(rules);
    expect((await put([], version).expect(409)).body).toMatchObject({ current: { version: version + 1 } });
    const copy = (
      await given.instructor
        .post(`/api/sets/${given.set.id}/copies`)
        .send({ name: 'Again', withMembers: false })
        .expect(200)
    ).body as GroupSetView;
    expect((await board(copy.id)).rules).toEqual(rules);
  });

  it('name people and sets of their own course, and are the instructor’s', async () => {
    const { version } = (await board()).set;
    const other = await aCourse(server, { email: `rules${made}@quillmere.example`, students: 2, groups: 1 });
    const stranger = {
      kind: 'apart',
      students: [idOf('noor'), sure(other.students.get('noor')).enrolmentId],
    };
    await put([stranger], version).expect(404);
    await put([{ kind: 'fresh', setIds: [other.set.id] }], version).expect(404);
    await put([{ kind: 'apart', students: [idOf('noor')] }], version).expect(422);
    await sure(given.students.get('noor'))
      .browser.put(`/api/sets/${given.set.id}/rules`)
      .send({ rules: [], version })
      .expect(404);
    await other.instructor.put(`/api/sets/${given.set.id}/rules`).send({ rules: [], version }).expect(404);
  });
});

describe('expert tables', () => {
  it('take people of each group, are told from which, and are the instructor’s to make', async () => {
    const request = { name: 'Experts', topics: ['Salt', 'Packaging'], most: null, seed: 7 };
    const set = (await given.instructor.post(`/api/sets/${given.set.id}/experts`).send(request).expect(200))
      .body as GroupSetView;
    const view = await board(set.id);
    expect(view.groups.map((group) => group.name)).toEqual(['Salt', 'Packaging']);
    for (const group of view.groups) {
      const members = view.students.filter((student) => student.seats[0]?.groupId === group.id);
      const homes = members.map(
        (student) => sure(view.homes.find((home) => home.enrolmentId === student.enrolmentId)).name,
      );
      expect(homes.sort()).toEqual(['Carboy', 'Crock']);
    }
    expect(view.set.unplaced).toBe(1); // who is in no group has no topic
    await sure(given.students.get('noor'))
      .browser.post(`/api/sets/${given.set.id}/experts`)
      .send(request)
      .expect(404);
    await given.instructor
      .post(`/api/sets/${given.set.id}/experts`)
      .send({ ...request, topics: [] })
      .expect(422);
  });
});

describe('the settings of a set', () => {
  it('are not written over unseen', async () => {
    const { set } = await board();
    const {
      name,
      capacity,
      isExclusive,
      hasLeaders,
      membersName,
      description,
      isDescriptionShown,
      latecomers,
      signUp,
    } = set;
    const settings = {
      name,
      capacity,
      isExclusive,
      hasLeaders,
      membersName,
      description,
      isDescriptionShown,
      latecomers,
      signUp,
    };
    const put = (more: object) =>
      given.instructor.patch(`/api/sets/${given.set.id}`).send({ ...settings, ...more });
    await put({ name: 'Benches at last', version: set.version }).expect(200);
    const refused = await put({ name: 'Lost update', version: set.version }).expect(409);
    expect(refused.body).toMatchObject({ current: { name: 'Benches at last', version: set.version + 1 } });
    expect((await board()).set.name).toBe('Benches at last');
  });
});

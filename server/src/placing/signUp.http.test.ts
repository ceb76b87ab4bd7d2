import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { BoardView, SignUpList, SignUpView } from '@jigsaw/contract/placing';
import type { GroupSetList, GroupSetView } from '@jigsaw/contract/sets';
import type { RosterChanged, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { settingsOf } from '@jigsaw/contract/sets';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { wholeSet } from '@jigsaw/core/release';

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
  given = await aCourse(server, { students: 5, email: `ilse${count}@quillmere.example` });
});

const offered = { opens: null, closes: null, showsNames: true };
const aSet = async (more: object = {}): Promise<{ set: GroupSetView; groups: BoardView['groups'] }> => {
  const draft = {
    name: 'Tasting panels',
    shape: { by: 'count', groups: 2 },
    capacity: 2,
    pattern: '',
    names: ['Sour', 'Malt'],
    signUp: offered,
    ...more,
  };
  const set = (await given.instructor.post(`/api/courses/${given.course.id}/sets`).send(draft).expect(200))
    .body as GroupSetView;
  return {
    set,
    groups: ((await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView).groups,
  };
};
const student = (name: string): Browser => sure(given.students.get(name)).browser;
const take = (name: string, setId: string, groupId: string | null) =>
  student(name).post(`/api/sets/${setId}/sign-up`).send({ groupId });
const view = async (name: string, setId: string) =>
  (await student(name).get(`/api/sets/${setId}/sign-up`).expect(200)).body as SignUpView;
const sizes = async (setId: string) => (await view('noor', setId)).groups.map((group) => group.members);
const change = (set: GroupSetView, more: object) =>
  given.instructor.patch(`/api/sets/${set.id}`).send({ ...settingsOf(set), ...more });

describe('signing up', () => {
  it('is told to staff as a choice of one’s own', async () => {
    const { set, groups } = await aSet();
    const latest = async () =>
      ((await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView).latest;
    expect(await latest()).toBeNull();
    await take('noor', set.id, sure(groups[0]).id).expect(200);
    expect(await latest()).toMatchObject({
      isOwnChoice: true,
      count: 1,
      moves: [{ to: [{ name: 'Sour' }] }],
    });
    server.clock.pass({ minutes: 1 });
    const { enrolmentId } = sure(given.students.get('noor'));
    await given.instructor
      .post(`/api/sets/${set.id}/place`)
      .send({ moves: [{ student: enrolmentId, from: sure(groups[0]).id, to: null }] })
      .expect(200);
    expect(await latest()).toMatchObject({ isOwnChoice: false, isYours: true, removed: 1 });
  });

  it('takes a place, moves to another and gives it back', async () => {
    const { set, groups } = await aSet();
    const [sour, malt] = groups;
    expect((await take('noor', set.id, sure(sour).id).expect(200)).body).toMatchObject({
      yours: sure(sour).id,
      chosen: 1,
      students: 5,
    });
    await take('noor', set.id, sure(sour).id).expect(200); // pressed twice
    expect(await sizes(set.id)).toEqual([1, 0]);
    await take('noor', set.id, sure(malt).id).expect(200);
    expect(await sizes(set.id)).toEqual([0, 1]);
    await take('noor', set.id, null).expect(200);
    expect(await sizes(set.id)).toEqual([0, 0]);
    const list = (await student('noor').get(`/api/courses/${given.course.id}/sign-ups`).expect(200))
      .body as SignUpList;
    expect(list.signUps).toMatchObject([{ setId: set.id, state: 'open', yours: null }]);
  });

  it('says what is left when a group is full', async () => {
    const { set, groups } = await aSet();
    await take('noor', set.id, sure(groups[0]).id).expect(200);
    await take('jorge', set.id, sure(groups[0]).id).expect(200);
    const refused = await take('amina', set.id, sure(groups[0]).id).expect(409);
    expect(refused.body).toMatchObject({
      detail: 'Sour is full now. 2 places are left in other groups.',
      current: { yours: null },
    });
  });

  it('is open from its opening until it closes, and not while the set is frozen', async () => {
    const { set, groups } = await aSet({
      signUp: { ...offered, opens: '2026-11-11T08:00:00.000Z', closes: '2026-11-12T08:00:00.000Z' },
    });
    const { detail } = (await take('noor', set.id, sure(groups[0]).id).expect(409)).body;
    expect(detail).toContain('can be chosen later');
    server.clock.set('2026-11-11T08:00:00Z');
    await take('noor', set.id, sure(groups[0]).id).expect(200);
    await given.instructor.post(`/api/sets/${set.id}/freeze`).send({ isFrozen: true }).expect(200);
    expect((await take('noor', set.id, sure(groups[1]).id).expect(409)).body.detail).toContain(
      'has fixed the groups',
    );
    await given.instructor.post(`/api/sets/${set.id}/freeze`).send({ isFrozen: false }).expect(200);
    await take('noor', set.id, sure(groups[1]).id).expect(200);
    server.clock.set('2026-11-12T08:00:00Z');
    expect((await take('noor', set.id, null).expect(409)).body.detail).toContain('time for choosing is over');
  });

  it('lets no one join or leave a locked group, nor leave one that has handed in', async () => {
    const { set, groups } = await aSet();
    const [sour, malt] = groups;
    await given.instructor
      .patch(`/api/groups/${sure(malt).id}`)
      .send({ name: 'Malt', capacity: null, isLocked: true, version: 1 })
      .expect(200);
    expect((await take('noor', set.id, sure(malt).id).expect(409)).body.detail).toContain('locked');
    await take('noor', set.id, sure(sour).id).expect(200);
    await released({ ...given, set }, {}, { to: wholeSet(set.id) });
    const copyId = await copyOf(student('noor'), given.course.id);
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Sour.'), version: 0 })
      .expect(200);
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    expect((await take('noor', set.id, null).expect(409)).body.detail).toContain('handed in already');
    expect((await view('noor', set.id)).bound).toContain('you stay in it');
  });

  it('shows names to all or to members only', async () => {
    const { set, groups } = await aSet({ signUp: { ...offered, showsNames: false } });
    await take('noor', set.id, sure(groups[0]).id).expect(200);
    const jorge = await view('jorge', set.id);
    expect(jorge.groups.map((group) => [group.members, group.names])).toEqual([
      [1, null],
      [0, null],
    ]);
    expect(JSON.stringify(jorge)).not.toMatch(/noor/i);
    expect(sure((await view('noor', set.id)).groups[0]).names).toMatchObject([{ isYou: true }]);
  });

  it('does not exist for a set that does not offer it, for staff, for strangers and for whoever left', async () => {
    const { set } = await aSet();
    const other = await aCourse(server, { students: 2, email: `mal${count}@quillmere.example` });
    await student('noor').get(`/api/sets/${given.set.id}/sign-up`).expect(404);
    await take('noor', given.set.id, null).expect(404);
    for (const browser of [given.instructor, other.instructor]) {
      await browser.get(`/api/sets/${set.id}/sign-up`).expect(404);
      await browser.post(`/api/sets/${set.id}/sign-up`).send({ groupId: null }).expect(404);
    }
    const { enrolmentId } = sure(given.students.get('kofi'));
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'drop', enrolmentIds: [enrolmentId] })
      .expect(200);
    await student('kofi').get(`/api/sets/${set.id}/sign-up`).expect(404);
    await student('noor')
      .patch(`/api/sets/${set.id}`)
      .send({ ...settingsOf(set), name: 'Mine' })
      .expect(404);
    await student('noor').post(`/api/sets/${set.id}/freeze`).send({ isFrozen: true }).expect(404);
    await take('noor', set.id, sure(given.board.groups[0]).id).expect(404); // a group of another set
  });
});

describe('a set', () => {
  it('is called and described anew, and a stale change shows what is there', async () => {
    const { set } = await aSet();
    const next = (await change(set, { name: 'Panels', description: 'One taste each.' }).expect(200))
      .body as GroupSetView;
    expect(next).toMatchObject({ name: 'Panels', description: 'One taste each.', version: 2 });
    expect((await change(set, { name: 'Other' }).expect(409)).body).toMatchObject({
      current: { name: 'Panels' },
    });
    expect((await view('noor', set.id)).set.description).toBe('One taste each.');
    await change(next, { isDescriptionShown: false }).expect(200);
    expect((await view('noor', set.id)).set.description).toBe('');
    const signUp = { ...offered, opens: '2026-11-12T08:00:00.000Z', closes: '2026-11-11T08:00:00.000Z' };
    const { issues } = (await change(next, { signUp }).expect(422)).body;
    expect(issues[0].message).toBe('It has to close after it opens.');
  });
});

describe('a set that is put away', () => {
  it('is out of the way of all that places people, and comes back as it was', async () => {
    const { set, groups } = await aSet();
    await take('noor', set.id, sure(groups[0]).id).expect(200);
    const before = (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
    const setsNow = async () =>
      (await given.instructor.get(`/api/courses/${given.course.id}/sets`).expect(200)).body as GroupSetList;
    const archive = (isArchived: boolean) =>
      given.instructor.post(`/api/sets/${set.id}/archive`).send({ isArchived });
    await archive(true).expect(200);
    expect([(await setsNow()).sets.map((each) => each.name), (await setsNow()).archived]).toEqual([
      ['Bench teams'],
      [{ id: set.id, name: 'Tasting panels' }],
    ]);
    await student('noor').get(`/api/sets/${set.id}/sign-up`).expect(404);
    expect(
      ((await student('noor').get(`/api/courses/${given.course.id}/sign-ups`).expect(200)).body as SignUpList)
        .signUps,
    ).toEqual([]);
    const roster = (await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200))
      .body as RosterView;
    expect(roster.sets.map((each) => each.name)).toEqual(['Bench teams']);
    await archive(false).expect(200);
    expect((await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body).toEqual(before);
    await student('noor').post(`/api/sets/${set.id}/archive`).send({ isArchived: true }).expect(404);
  });

  it('leaves the order of the others, which is changed as a whole or not at all', async () => {
    const { set } = await aSet();
    const order = (setIds: string[]) =>
      given.instructor.put(`/api/courses/${given.course.id}/sets/order`).send({ setIds });
    expect(
      ((await order([set.id, given.set.id]).expect(200)).body as GroupSetList).sets.map((each) => each.name),
    ).toEqual(['Tasting panels', 'Bench teams']);
    await order([set.id]).expect(409);
    await order([set.id, set.id]).expect(409);
    await student('noor')
      .put(`/api/courses/${given.course.id}/sets/order`)
      .send({ setIds: [given.set.id, set.id] })
      .expect(404);
  });
});

describe('latecomers', () => {
  const board = async (setId: string) =>
    (await given.instructor.get(`/api/sets/${setId}/board`).expect(200)).body as BoardView;
  const add = async (name: string) =>
    (
      await given.instructor
        .post(`/api/courses/${given.course.id}/roster/changes`)
        .send({
          act: 'add',
          entry: {
            email: `${name}${count}@late.example`,
            name,
            familyName: null,
            reading: null,
            number: null,
            role: 'student',
            attributes: {},
          },
        })
        .expect(200)
    ).body as RosterChanged;
  const here = async () =>
    ((await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200)).body as RosterView)
      .entries;
  const benches = async () =>
    sure(
      ((await given.instructor.get(`/api/courses/${given.course.id}/sets`).expect(200)).body as GroupSetList)
        .sets[0],
    );

  it('stay unplaced, or sit in the smallest group that has room, and undoing it frees the place', async () => {
    expect((await add('Una')).seated).toBe(0);
    await change(await benches(), { latecomers: 'smallest', capacity: 3 }).expect(200);
    const { changeId, seated } = await add('Ann');
    expect(seated).toBe(1);
    await add('Ben');
    expect((await add('Cyd')).seated).toBe(0); // both groups have 3 of 3
    const seats = (await board(given.set.id)).students.filter((each) =>
      ['Ann', 'Ben', 'Cyd', 'Una'].includes(each.name),
    );
    expect(Object.fromEntries(seats.map((each) => [each.name, each.seats[0]?.groupId ?? null]))).toEqual({
      Ann: sure(given.board.groups[0]).id,
      Ben: sure(given.board.groups[1]).id,
      Cyd: null,
      Una: null,
    });
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes/${changeId}/undo`)
      .expect(200);
    expect((await here()).some((entry) => entry.name === 'Ann')).toBe(false);
    expect((await add('Dee')).seated).toBe(1);
  });

  it('who come back sit again, but in no locked group and not before anybody sits at all', async () => {
    const { set } = await aSet({ signUp: null });
    await change(set, { latecomers: 'smallest' }).expect(200);
    expect((await add('Eli')).seated).toBe(0);
    await change(await benches(), { latecomers: 'smallest', capacity: null }).expect(200);
    for (const group of given.board.groups)
      await given.instructor
        .patch(`/api/groups/${group.id}`)
        .send({ name: group.name, capacity: null, isLocked: group.number === 1, version: 1 })
        .expect(200);
    const noor = sure(given.students.get('noor')).enrolmentId;
    const act = (body: object) =>
      given.instructor.post(`/api/courses/${given.course.id}/roster/changes`).send(body).expect(200);
    await act({ act: 'drop', enrolmentIds: [noor] });
    expect(((await act({ act: 'restore', enrolmentIds: [noor] })).body as RosterChanged).seated).toBe(1);
    expect(
      sure((await here()).find((entry) => entry.enrolmentId === noor)).groups.map((group) => group.name),
    ).toEqual(['Carboy']);
  });
});

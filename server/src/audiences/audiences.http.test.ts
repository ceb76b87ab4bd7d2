import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { AudienceList, AudienceMembers, AudienceView } from '@jigsaw/contract/audiences';
import type { MarkView } from '@jigsaw/contract/marks';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import type { RoomList } from '@jigsaw/contract/rooms';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { Term, Terms } from '@jigsaw/core/audiences';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aSecondSet, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

const reachOf = ({ release }: ActivityView) => ({ to: release?.to, outsiders: release?.outsiders });

let server: TestServer;
let given: CourseForTests; // Crock: noor, jorge; Carboy: amina, kofi; nino in none
let panels: GroupSetView;
let panelGroups: BoardView['groups'];
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  count += 1;
  given = await aCourse(server, { email: `ilse${count}@quillmere.example` });
  ({ set: panels, groups: panelGroups } = await aSecondSet(given));
});
afterAll(() => server.stop());

const at = (path: string) => `/api/courses/${given.course.id}/${path}`;
const student = (name: string) => sure(given.students.get(name)).browser;
const person = (name: string): Term => ({
  kind: 'person',
  enrolmentId: sure(given.students.get(name)).enrolmentId,
});
const group = (name: string): Term => {
  const own = given.board.groups.find((each) => each.name === name);
  return own
    ? { kind: 'group', setId: given.set.id, groupId: own.id }
    : { kind: 'group', setId: panels.id, groupId: sure(panelGroups.find((each) => each.name === name)).id };
};
const naming = ({ id }: AudienceView): Term => ({ kind: 'audience', audienceId: id });
const create = async (name: string, include: readonly Term[], exclude: readonly Term[] = []) =>
  (await given.instructor.post(at('audiences')).send({ name, include, exclude }).expect(200))
    .body as AudienceView;
const edit = (audience: AudienceView, more: Partial<Terms & { name: string; version: number }>) => {
  const { id, name, include, exclude, version } = audience;
  return given.instructor.put(`/api/audiences/${id}`).send({ name, include, exclude, version, ...more });
};
const whoIsIn = async (
  include: readonly Term[],
  exclude: readonly Term[] = [],
  audienceId: string | null = null,
) =>
  (await given.instructor.post(at('audiences/members')).send({ include, exclude, audienceId }).expect(200))
    .body as AudienceMembers;
const names = (people: AudienceMembers['people']) => people.map(({ name, by }) => `${name}: ${by.kind}`);
const list = async () =>
  ((await given.instructor.get(at('audiences')).expect(200)).body as AudienceList).audiences;
const place = (name: string, from: string | null, to: string | null, setId = given.set.id) => {
  const idOf = (of: string | null) => {
    const term = of === null ? null : group(of);
    return term?.kind === 'group' ? term.groupId : null;
  };
  const { enrolmentId } = sure(given.students.get(name));
  return given.instructor
    .post(`/api/sets/${setId}/place`)
    .send({ moves: [{ student: enrolmentId, from: idOf(from), to: idOf(to) }] })
    .expect(200);
};
/** Where a student has something of this title: names of groups, or “all”. */
async function seenBy(name: string, title: string): Promise<string[]> {
  const { rooms, common } = (await student(name).get(at('rooms')).expect(200)).body as RoomList;
  return [
    ...rooms.flatMap((room) => room.items.flatMap((item) => (item.title === title ? [room.group.name] : []))),
    ...common.flatMap((item) => (item.title === title ? ['all'] : [])),
  ];
}

describe('a saved audience', () => {
  it('says who is in it and by which line, across sets, and who is removed', async () => {
    const two = [group('Crock'), { kind: 'set', setId: panels.id } as const];
    const found = await whoIsIn(two, [person('jorge')]);
    expect(names(found.people)).toEqual(['Nino: set', 'Noor: group']);
    expect(names(found.removed)).toEqual(['Jorge: person']);
    expect(found.groups.map((each) => each.name)).toEqual(
      expect.arrayContaining(['Crock', 'Panel 1', 'Panel 2']),
    );
    expect(found.people.map((each) => each.by)).toEqual([two[1], two[0]]);
    const staff = await whoIsIn([{ kind: 'role', role: 'instructor' }]);
    expect(staff.people.map((each) => each.role)).toEqual(['instructor']);
  });

  it('finds people by what the roster says of them', async () => {
    const { enrolmentId } = sure(given.students.get('kofi'));
    const to = { attributes: { 'Free half-days': 'Mon, Tue pm' } };
    await given.instructor
      .post(at('roster/changes'))
      .send({ act: 'edit', edits: [{ enrolmentId, from: {}, to }] })
      .expect(200);
    const mondays: Term = { kind: 'attribute', name: 'Free half-days', test: 'has', value: 'Mon am' };
    expect(names((await whoIsIn([mondays])).people)).toEqual(['Kofi: attribute']);

    // An attribute that is renamed is the same attribute: for saved lines, for rules of deals, and back.
    await create('Mondays', [mondays]);
    const rules = [{ kind: 'common-time', attribute: 'Free half-days', wanted: 1 }];
    const boardNow = async () => (await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200)).body as BoardView; // prettier-ignore
    const { version } = (await boardNow()).set;
    await given.instructor.put(`/api/sets/${given.set.id}/rules`).send({ rules, version }).expect(200);
    const { changeId } = (
      await given.instructor
        .post(at('roster/changes'))
        .send({ act: 'rename-attribute', from: 'Free half-days', to: 'Free' })
        .expect(200)
    ).body as { changeId: string };
    expect((await list()).map((each) => [each.people, each.include])).toEqual([
      [1, [{ ...mondays, name: 'Free' }]],
    ]);
    expect((await boardNow()).rules).toEqual([{ ...rules[0], attribute: 'Free' }]);
    await given.instructor.post(at(`roster/changes/${changeId}/undo`)).expect(200);
    expect((await list()).map((each) => [each.people, each.include])).toEqual([[1, [mondays]]]);
    expect((await boardNow()).rules).toEqual(rules);
  });

  it('names others, follows them, and can be empty; a circle is refused with its way', async () => {
    const low = await create('Dairy', [group('Crock'), group('Crock')]);
    expect(low.include).toEqual([group('Crock')]); // once says it
    const middle = await create('Benches', [naming(low)]);
    const top = await create('Everything', [naming(middle)], [person('noor')]);
    expect((await list()).map((each) => [each.name, each.people, each.usedIn])).toEqual([
      ['Benches', 2, ['Everything']],
      ['Dairy', 2, ['Benches']],
      ['Everything', 1, []],
    ]);
    const refused = (await edit(low, { include: [naming(top)] }).expect(409)).body as { detail: string };
    expect(refused.detail).toContain('Dairy → Everything → Benches → Dairy');
    expect((await whoIsIn([naming(top)], [], low.id)).circle).toEqual([
      'Dairy',
      'Everything',
      'Benches',
      'Dairy',
    ]);
    await edit(low, { include: [] }).expect(200);
    expect((await list()).map((each) => each.people)).toEqual([0, 0, 0]);
  });

  it('is not written over unseen, has a name of its own, and is deleted only where nothing uses it', async () => {
    const dairy = await create('Dairy', [group('Crock')]);
    const other = await create('Evening', [naming(dairy)]);
    await edit(dairy, { name: 'evening' }).expect(409);
    await edit(dairy, { name: 'Milk' }).expect(200);
    const stale = (await edit(dairy, { name: 'Cheese' }).expect(409)).body as { current: AudienceView };
    expect(stale.current.name).toBe('Milk');
    const used = (await given.instructor.delete(`/api/audiences/${dairy.id}`).expect(409)).body as {
      detail: string;
    };
    expect(used.detail).toContain('“Milk” is used by Evening.');
    await given.instructor.delete(`/api/audiences/${other.id}`).expect(200);
    expect((await list()).map((each) => each.name)).toEqual(['Milk']);
    await given.instructor.post(`/api/audiences/${other.id}/restore`).expect(200);
    expect((await list()).map((each) => each.name)).toEqual(['Evening', 'Milk']);
  });

  it('takes in nothing of another course, and is not there for students', async () => {
    count += 1;
    const own = given;
    const dairy = await create('Dairy', [group('Crock')]);
    const foreign = await aCourse(server, { email: `ilse${count}@quillmere.example` });
    const stranger = sure(foreign.students.get('noor')).enrolmentId;
    const refused: Term[] = [
      { kind: 'person', enrolmentId: stranger },
      { kind: 'set', setId: foreign.set.id },
      { kind: 'group', setId: own.set.id, groupId: sure(foreign.board.groups[0]).id },
    ];
    for (const term of refused)
      await own.instructor
        .post(at('audiences'))
        .send({ name: 'Odd', include: [term], exclude: [] })
        .expect(404);
    await foreign.instructor
      .post(`/api/courses/${foreign.course.id}/audiences`)
      .send({ name: 'Odd', include: [naming(dairy)], exclude: [] })
      .expect(404);
    const gone = await given.instructor.get(`/api/courses/${crypto.randomUUID()}/audiences`).expect(404);
    const hidden = await student('noor').get(at('audiences')).expect(404);
    expect(hidden.body).toEqual(gone.body);
    await student('noor').put(`/api/audiences/${dairy.id}`).send({ name: 'x', include: [], exclude: [], version: 1 }).expect(404); // prettier-ignore
    await student('noor').delete(`/api/audiences/${dairy.id}`).expect(404);
  });

  it('that names one entry of a person names the other when both are made one, and back', async () => {
    const dairy = await create('Dairy', [person('jorge')]);
    const [keep, other] = ['nino', 'jorge'].map((name) => sure(given.students.get(name)).enrolmentId);
    await given.instructor.post(at('roster/changes')).send({ act: 'join', keep, other }).expect(200);
    const named = async () => sure((await list()).find((each) => each.id === dairy.id)).include;
    expect(await named()).toEqual([person('nino')]);
  });
});

describe('what is released to a saved audience', () => {
  const to = (audience: AudienceView) => ({
    include: [{ kind: 'audience' as const, audienceId: audience.id }],
    exclude: [],
  });

  it('follows moves, and those who are removed see nothing of their group’s copy', async () => {
    const dairy = await create(
      'Dairy',
      [group('Crock'), { kind: 'set', setId: panels.id }],
      [person('jorge')],
    );
    const activity = await released(given, { title: 'Curd' }, { to: to(dairy) });
    expect(activity.release).toMatchObject({ audienceNames: ['Dairy'], setNames: [], students: 2 });
    expect(await seenBy('noor', 'Curd')).toEqual(expect.arrayContaining(['Crock']));
    expect(await seenBy('jorge', 'Curd')).toEqual([]);
    expect(await seenBy('amina', 'Curd')).toEqual([]);
    const copyId = await copyOf(student('noor'), given.course.id, 'Curd');
    await student('jorge').get(`/api/copies/${copyId}`).expect(404);
    await place('amina', 'Carboy', 'Crock');
    expect(await seenBy('amina', 'Curd')).toEqual(['Crock']);
    await place('amina', 'Crock', 'Carboy');
    expect(await seenBy('amina', 'Curd')).toEqual([]);
    const crocks = (await student('noor').get(at('rooms')).expect(200)).body as RoomList;
    const own = sure(crocks.rooms.find((room) => room.group.name === 'Crock')?.items.find((each) => each.title === 'Curd')); // prettier-ignore
    const sheet = (await given.instructor.get(`/api/copies/${own.copyId}/marks/group`).expect(200))
      .body as MarkView;
    expect(sheet.members.map((each) => each.member.name)).toEqual(['Noor']);
  });

  it('reaches the groups that it comes to name, also through another, and no longer those that it names no more', async () => {
    const low = await create('Low', [group('Crock')]);
    const top = await create('Top', [naming(low)]);
    await released(given, { title: 'Whey' }, { to: to(top) });
    expect([await seenBy('noor', 'Whey'), await seenBy('amina', 'Whey')]).toEqual([['Crock'], []]);
    await edit(low, { include: [group('Carboy')] }).expect(200);
    expect([await seenBy('noor', 'Whey'), await seenBy('amina', 'Whey')]).toEqual([[], ['Carboy']]);
    const used = (await given.instructor.delete(`/api/audiences/${top.id}`).expect(409)).body as {
      detail: string;
    };
    expect(used.detail).toContain('Whey');
    await edit(low, { version: 2, include: [{ kind: 'set', setId: panels.id }] }).expect(200);
    const kept = panelGroups.map(({ id, name, capacity, isLocked, version }) => ({ id, name, capacity, isLocked, version })); // prettier-ignore
    const added = { id: null, name: 'Panel 3', capacity: null, isLocked: false, version: 0 };
    await given.instructor.put(`/api/sets/${panels.id}/groups`).send({ groups: [...kept, added], removed: [] }).expect(200); // prettier-ignore
    const activity = (await given.instructor.get(at('activities')).expect(200)).body as {
      activities: ActivityView[];
    };
    expect(sure(activity.activities[0]).release).toMatchObject({ groups: 3 });
    panelGroups = ((await given.instructor.get(`/api/sets/${panels.id}/board`).expect(200)).body as BoardView).groups; // prettier-ignore
    await place('nino', 'Panel 1', 'Panel 3', panels.id);
    expect(await seenBy('nino', 'Whey')).toEqual(['Panel 3']);
  });

  it('is foreseen with those alone who get it: neither counted in a group nor said to get two when they are removed', async () => {
    const one = await create('One', [group('Crock'), group('Panel 1')], [person('noor')]);
    await place('jorge', null, 'Panel 1', panels.id);
    await place('noor', 'Panel 2', 'Panel 1', panels.id);
    const draft = await released(given, { title: 'Foreseen' });
    const reach = (
      await given.instructor
        .post(`/api/activities/${draft.id}/reach`)
        .send({ to: to(one), mode: 'own', outsiders: 'hidden' })
        .expect(200)
    ).body as ReachView;
    const size = (name: string) => reach.groups.find((each) => each.name === name)?.members;
    expect([size('Crock'), size('Panel 1')]).toEqual([1, 2]); // jorge; jorge and nino
    expect(reach.several.map((each) => each.name)).toEqual(['Jorge']);
  });

  it('cannot be deleted while something is being released to it, whoever is first', async () => {
    for (let at = 0; at < 4; at += 1) {
      const one = await create(`One ${at}`, [group('Crock')]);
      const activity = await released(given, { title: `Race ${at}` });
      const [deleted, changed] = await Promise.all([
        given.instructor.delete(`/api/audiences/${one.id}`),
        given.instructor
          .put(`/api/activities/${activity.id}/reach`)
          .send({ to: to(one), outsiders: 'hidden', was: reachOf(activity) }),
      ]);
      expect([
        [200, 404],
        [409, 200],
      ]).toContainEqual([deleted.status, changed.status]);
    }
  });

  it('in one copy is for its people alone, and says of others why not', async () => {
    const evening = await create('Evening', [person('nino'), group('Carboy')], [person('kofi')]);
    const activity = await released(
      given,
      { kind: 'discussion', title: 'Late talk' },
      { to: to(evening), mode: 'common' },
    );
    const seen = { noor: [], jorge: [], amina: ['all'], kofi: [], nino: ['all'] };
    for (const [name, where] of Object.entries(seen))
      expect([name, await seenBy(name, 'Late talk')]).toEqual([name, where]);
    const reach = (
      await given.instructor
        .post(`/api/activities/${activity.id}/reach`)
        .send({ to: to(evening), mode: 'common', outsiders: 'hidden' })
        .expect(200)
    ).body as ReachView;
    expect(reach.students).toBe(2);
    expect(reach.outside.map((each) => each.name)).toEqual(['Jorge', 'Kofi', 'Noor']);
    const each = (
      await given.instructor
        .post(`/api/activities/${activity.id}/reach`)
        .send({ to: to(evening), mode: 'own', outsiders: 'hidden' })
        .expect(200)
    ).body as ReachView;
    const why = (name: string) => each.outside.find((one) => one.name === name)?.why;
    expect(why('Nino')).toContain('Is in none of the groups that get a copy.');
    expect(why('Kofi')).toContain('Is in none of the groups it was released to.');
  });

  it('of another course, or deleted, is refused; to staff alone it reaches no student', async () => {
    const dairy = await create('Dairy', [group('Crock')]);
    await given.instructor.delete(`/api/audiences/${dairy.id}`).expect(200);
    const draft = await released(given, { kind: 'discussion', title: 'Staff talk' }, { to: { include: [{ kind: 'staff' }], exclude: [] }, mode: 'common' }); // prettier-ignore
    expect(sure(draft.release).students).toBe(0);
    for (const name of ['noor', 'nino']) expect(await seenBy(name, 'Staff talk')).toEqual([]);
    await given.instructor
      .put(`/api/activities/${draft.id}/reach`)
      .send({ to: to(dairy), outsiders: 'hidden', was: reachOf(draft) })
      .expect(404);
  });
});

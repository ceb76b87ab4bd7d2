import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DeskView, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import type { RoomList } from '@jigsaw/contract/rooms';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { someGroups, wholeSet } from '@jigsaw/core/release';
import type { Audience } from '@jigsaw/core/release';
import { aCourse, addFile, aSecondSet, aSheet, copyOf, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

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

const student = (name: string) => sure(given.students.get(name)).browser;
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const crock = () => sure(given.board.groups[0]).id;
const everyone = ['noor', 'jorge', 'amina', 'kofi', 'nino'];

/** Where a student has something of this title: names of groups, or “all” for a copy for all. */
async function seenBy(name: string, title: string): Promise<string[]> {
  const { rooms, common } = (await student(name).get(`/api/courses/${given.course.id}/rooms`).expect(200))
    .body as RoomList;
  return [
    ...rooms.flatMap((room) => room.items.flatMap((item) => (item.title === title ? [room.group.name] : []))),
    ...common.flatMap((item) => (item.title === title ? ['all'] : [])),
  ];
}
const whoSees = async (title: string) => {
  const seen: Record<string, string[]> = {};
  for (const name of everyone) seen[name] = await seenBy(name, title);
  return seen;
};
const both = (more: Partial<Audience> = {}): Audience => ({
  include: [...wholeSet(given.set.id).include, ...wholeSet(panels.id).include],
  exclude: [],
  ...more,
});
const reach = async (activity: ActivityView, to: Audience) =>
  (
    await given.instructor
      .post(`/api/activities/${activity.id}/reach`)
      .send({ to, mode: sure(activity.release).mode, outsiders: 'hidden' })
      .expect(200)
  ).body as ReachView;

describe('a release to several sets', () => {
  it('gives a copy to each group of all of them, and counts each student once', async () => {
    const activity = await released(given, { title: 'Two sets' }, { to: both() });
    expect(activity.release).toMatchObject({ setNames: ['Bench teams', 'Panels'], groups: 4, students: 5 });
    expect(await whoSees('Two sets')).toEqual({
      noor: ['Crock', 'Panel 2'],
      jorge: ['Crock'],
      amina: ['Carboy'],
      kofi: ['Carboy'],
      nino: ['Panel 1'],
    });
  });

  it('tells before the press who gets more than one copy, and afterwards both of their marks wherever marks are shown', async () => {
    const activity = await released(given, { title: 'Twice' }, { to: both() });
    expect((await reach(activity, both())).several).toEqual([
      { name: 'Noor', reading: null, groups: ['Crock', 'Panel 2'] },
    ]);
    expect((await reach(activity, both({ exclude: [idOf('noor')] }))).several).toEqual([]);
    expect((await reach(activity, wholeSet(panels.id))).several).toEqual([]);
    const { rows } = (
      await given.instructor.get(`/api/releases/${sure(activity.release).id}/desk`).expect(200)
    ).body as DeskView;
    const give = async (group: string, typedMark: string) => {
      const { copyId } = sure(rows.find((row) => row.group?.name === group));
      const sheet = `/api/copies/${copyId}/marks/group`;
      await given.instructor
        .put(sheet)
        .send({ ...aSheet, typedMark, version: 0 })
        .expect(200);
      return () => given.instructor.post(`${sheet}/release`).send({ version: 1 }).expect(200);
    };
    const noors = async () => {
      const { students, activities } = await gradebookOf(given);
      const at = activities.findIndex((each) => each.title === 'Twice');
      return sure(students.find((each) => each.name === 'Noor')).cells[at]?.map((cell) =>
        [cell.group, cell.state, cell.mark].join(' '),
      );
    };
    const csv = async () =>
      (await given.instructor.get(`/api/courses/${given.course.id}/gradebook.csv`).expect(200)).text
        .split('\r\n')
        .find((line) => line.includes('noor@'));
    expect(await noors()).toEqual(['Crock open ', 'Panel 2 open ']);
    const releaseCrock = await give('Crock', '31.5');
    expect(await noors()).toEqual(['Crock drafted 31.5', 'Panel 2 open ']);
    await releaseCrock();
    expect(await csv()).toBe(',Noor,noor@quillmere.example,31.5');
    await (
      await give('Panel 2', '20')
    )();
    expect(await noors()).toEqual(['Crock released 31.5', 'Panel 2 released 20']);
    expect(await csv()).toBe(',Noor,noor@quillmere.example,31.5 (Crock); 20 (Panel 2)');
    const { marks } = (await student('noor').get(`/api/courses/${given.course.id}/my-marks`).expect(200))
      .body as MyMarks;
    expect(marks.map(({ mark, group }) => [group?.name, mark]).sort()).toEqual([
      ['Crock', '31.5'],
      ['Panel 2', '20'],
    ]);
    // A group of one name in the other set is told apart by its set.
    const { groups } = (await given.instructor.get(`/api/sets/${panels.id}/board`).expect(200))
      .body as BoardView;
    const named = groups.map(({ id, name, capacity, isLocked, version }) => ({
      id,
      name: name === 'Panel 2' ? 'Crock' : name,
      capacity,
      isLocked,
      version,
    }));
    await given.instructor
      .put(`/api/sets/${panels.id}/groups`)
      .send({ groups: named, removed: [] })
      .expect(200);
    expect(await noors()).toEqual(['Crock, Bench teams released 31.5', 'Crock, Panels released 20']);
  });

  it('is changed from what the person saw: two who change it at once do not undo each other', async () => {
    const two = await released(given, { title: 'By two' }, { to: someGroups(given.set.id, [crock()]) });
    const crocks = { to: someGroups(given.set.id, [crock()]), outsiders: 'hidden' };
    const change = (to: object, was: object) =>
      given.instructor.put(`/api/activities/${two.id}/reach`).send({ ...to, was });
    const everyones = { to: wholeSet(given.set.id), outsiders: 'hidden' };
    const listed = { ...crocks, outsiders: 'listed' };
    const answers = await Promise.all([change(everyones, crocks), change(listed, crocks)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    const refused = sure(answers.find(({ status }) => status === 409)).body;
    const done = sure(answers.find(({ status }) => status === 200)).body as ActivityView;
    expect(refused.detail).toContain('Someone else changed who gets “By two” meanwhile.');
    expect((refused.current as ActivityView).release).toEqual(done.release);
    const now = { to: sure(done.release).to, outsiders: sure(done.release).outsiders };
    await change(now, crocks).expect(200); // pressed twice: it is so already
    await change(crocks, now).expect(200);
  });

  it('takes in new groups of each, and other sets later; groups that are left out keep their work, unseen', async () => {
    const activity = await released(given, { title: 'Growing' }, { to: someGroups(given.set.id, [crock()]) });
    const inCrock = await copyOf(student('jorge'), given.course.id, 'Growing');
    await addFile(student('jorge'), inCrock, 'mine.txt', Buffer.from('x'));
    let was = sure(activity.release).to;
    const change = async (to: Audience) => {
      const hidden = { outsiders: 'hidden' };
      await given.instructor
        .put(`/api/activities/${activity.id}/reach`)
        .send({ to, ...hidden, was: { to: was, ...hidden } })
        .expect(200);
      was = to;
    };
    await change(wholeSet(panels.id));
    expect(await whoSees('Growing')).toMatchObject({ jorge: [], noor: ['Panel 2'], nino: ['Panel 1'] });
    const added = { id: null, name: 'Panel 3', capacity: null, isLocked: false, version: 0 };
    const kept = panelGroups.map(({ id, name, capacity, isLocked, version }) => ({
      id,
      name,
      capacity,
      isLocked,
      version,
    }));
    await given.instructor
      .put(`/api/sets/${panels.id}/groups`)
      .send({ groups: [...kept, added], removed: [] })
      .expect(200);
    const after = (await given.instructor.get(`/api/activities/${activity.id}`).expect(200))
      .body as ActivityView;
    expect(after.release).toMatchObject({ groups: 3, setNames: ['Panels'] });
    await change(both());
    expect(await seenBy('jorge', 'Growing')).toEqual(['Crock']);
  });
});

describe('people by name', () => {
  it('get the one copy for all, beside groups; whoever is left out does not', async () => {
    const to: Audience = {
      include: [
        ...someGroups(given.set.id, [crock()]).include,
        { kind: 'person', enrolmentId: idOf('nino') },
      ],
      exclude: [idOf('jorge')],
    };
    const activity = await released(given, { kind: 'discussion', title: 'By name' }, { to, mode: 'common' });
    expect(await whoSees('By name')).toEqual({
      noor: ['all'],
      jorge: [],
      amina: [],
      kofi: [],
      nino: ['all'],
    });
    const seen = await reach(activity, to);
    expect(seen).toMatchObject({
      students: 2,
      named: [{ name: 'Nino' }],
      leftOut: [{ name: 'Jorge' }],
    });
    expect(seen.outside.find((person) => person.name === 'Jorge')?.why).toContain(
      'Was left out of the audience by name.',
    );
  });

  it('who are left out of their group’s copy see nothing of it, and are neither credited nor marked', async () => {
    await released(given, { title: 'Without Jorge' }, { to: both({ exclude: [idOf('jorge')] }) });
    expect(await whoSees('Without Jorge')).toMatchObject({ noor: ['Crock', 'Panel 2'], jorge: [] });
    const copyId = await copyOf(student('noor'), given.course.id, 'Without Jorge');
    await student('jorge').get(`/api/copies/${copyId}`).expect(404);
    await addFile(student('noor'), copyId, 'work.txt', Buffer.from('x'));
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const sheet = (await given.instructor.get(`/api/copies/${copyId}/marks/group`).expect(200))
      .body as MarkView;
    expect(sheet.members.map((each) => each.member.name)).toEqual(['Noor']);
    await given.instructor
      .put(`/api/copies/${copyId}/marks/group`)
      .send({ ...aSheet, typedMark: '30', version: 0 })
      .expect(200);
    await given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version: 1 }).expect(200);
    const marksOf = async (name: string) =>
      (
        (await student(name).get(`/api/courses/${given.course.id}/my-marks`).expect(200)).body as MyMarks
      ).marks.filter((mark) => mark.copyId === copyId);
    expect([(await marksOf('noor')).length, (await marksOf('jorge')).length]).toEqual([1, 0]);
    const book = await gradebookOf(given);
    const at = book.activities.findIndex((each) => each.title === 'Without Jorge');
    const cell = (name: string) => sure(book.students.find((each) => each.name === name)).cells[at];
    expect([cell('Noor')?.map(({ state }) => state), cell('Jorge')]).toEqual([['released', 'open'], []]);
  });
});

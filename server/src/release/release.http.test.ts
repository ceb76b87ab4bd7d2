import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { WorkView } from '@jigsaw/contract/handin';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead, RoomList } from '@jigsaw/contract/rooms';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, anAssignment, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { someGroups, theClass, wholeSet } from '@jigsaw/core/release';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  activity = await released(given);
  copyId = await copyOf(student('noor'), given.course.id);
  await addFile(student('noor'), copyId, 'notes.txt', Buffer.from('pH 4.4'));
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});
afterAll(() => server.stop());
beforeEach(() => server.clock.set('2026-11-10T10:00:00Z'));

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const toAll = () => ({
  to: wholeSet(given.set.id),
  mode: 'own',
  outsiders: 'hidden',
  goesLiveAt: null,
});
const toCrock = () => someGroups(given.set.id, [sure(given.board.groups[0]).id]);
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const nowhere = '01920000-0000-7000-8000-00000000abcd';
const roomsOf = async (name: string) =>
  (await student(name).get(`/api/courses/${given.course.id}/rooms`).expect(200)).body as RoomList;
const titlesOf = async (name: string) => {
  const { rooms, common, locked } = await roomsOf(name);
  return {
    inRooms: rooms.flatMap((room) => room.items.map((item) => item.title)),
    common: common.map((item) => item.title),
    locked: locked.map((item) => item.title),
  };
};

describe('releasing', () => {
  it('hides a draft and a withdrawn assignment from members, and brings the same copy back with its work', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Quiet draft' }))
        .expect(200)
    ).body as ActivityView;
    expect(
      JSON.stringify((await student('noor').get(`/api/courses/${given.course.id}/rooms`)).body),
    ).not.toContain('Quiet draft');
    expect(draft.release).toBeNull();

    await given.instructor.post(`/api/activities/${activity.id}/withdraw`).expect(200);
    await student('noor').get(`/api/copies/${copyId}`).expect(404);
    await given.instructor
      .post(`/api/activities/${activity.id}/release`)
      .send({ ...toAll(), version: activity.version })
      .expect(200);
    const work = (await student('noor').get(`/api/copies/${copyId}/work`).expect(200)).body as WorkView;
    expect(work.handIns).toHaveLength(1);
  });

  it('goes live by itself at its moment', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Later' }))
        .expect(200)
    ).body as ActivityView;
    const at = new Date(server.clock.now().getTime() + 3_600_000).toISOString();
    await given.instructor
      .post(`/api/activities/${draft.id}/release`)
      .send({ ...toAll(), goesLiveAt: at, version: draft.version })
      .expect(200);
    const rooms = async () =>
      JSON.stringify((await student('noor').get(`/api/courses/${given.course.id}/rooms`)).body);
    expect(await rooms()).not.toContain('Later');
    expect(
      JSON.stringify((await given.instructor.get(`/api/courses/${given.course.id}/rooms`)).body),
    ).not.toContain('Later'); // nor is it in the room yet for staff
    server.clock.pass({ hours: 2 });
    expect(await rooms()).toContain('Later');
  });

  it('follows a move at once', async () => {
    const [crock, carboy] = given.board.groups;
    const kofi = sure(given.students.get('kofi'));
    await kofi.browser.get(`/api/copies/${copyId}`).expect(404);
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: kofi.enrolmentId, from: sure(carboy).id, to: sure(crock).id }] })
      .expect(200);
    await kofi.browser.get(`/api/copies/${copyId}`).expect(200);
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: kofi.enrolmentId, from: sure(crock).id, to: sure(carboy).id }] })
      .expect(200);
    await kofi.browser.get(`/api/copies/${copyId}`).expect(404);
  });

  it('tells before release who sees nothing and why', async () => {
    const { body } = await given.instructor
      .post(`/api/activities/${activity.id}/reach`)
      .send({ to: wholeSet(given.set.id), mode: 'own', outsiders: 'hidden' })
      .expect(200);
    expect(body).toMatchObject({
      outside: [
        { name: 'Nino', why: ['Sees nothing of it.', 'Is in none of the groups it was released to.'] },
      ],
    });
  });

  it('refuses a release of a draft that was edited meanwhile, and a stale save', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Edited' }))
        .expect(200)
    ).body as ActivityView;
    await given.instructor
      .put(`/api/activities/${draft.id}`)
      .send({ ...anAssignment({ title: 'Edited twice' }), version: 1 })
      .expect(200);
    await given.instructor
      .post(`/api/activities/${draft.id}/release`)
      .send({ ...toAll(), version: 1 })
      .expect(409);
    const stale = await given.instructor
      .put(`/api/activities/${draft.id}`)
      .send({ ...anAssignment({ title: 'Lost?' }), version: 1 })
      .expect(409);
    expect(stale.body).toMatchObject({ current: { title: 'Edited twice', version: 2 } });
  });

  it('keeps only text that the editor can make', async () => {
    const script = {
      type: 'doc',
      content: [{ type: 'script', content: [{ type: 'text', text: 'alert(1)' }] }],
    };
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ brief: script }))
      .expect(422);
    const link = {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [
            { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
          ],
        },
      ],
    };
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ brief: link }))
      .expect(422);
    const dates = await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(
        anAssignment({
          schedule: { opens: '2026-11-12T00:00:00.000Z', due: '2026-11-11T00:00:00.000Z', closes: null },
        }),
      )
      .expect(422);
    expect(dates.body).toMatchObject({ detail: 'Opens, due and closes must come in that order.' });
  });
});

describe('ways of releasing', () => {
  it('lets groups read along in each other’s copies and write in their own only', async () => {
    await released(given, { kind: 'discussion', title: 'Bench talk', points: null }, { mode: 'read-along' });
    const own = await itemOf(student('noor'), given.course.id, 'Bench talk');
    const head = (await student('noor').get(`/api/copies/${own.copyId}`).expect(200)).body as CopyHead;
    expect(head.others.map((other) => other.group.name)).toEqual(['Carboy']);
    const carboy = (
      await student('noor')
        .get(`/api/copies/${sure(head.others[0]).copyId}`)
        .expect(200)
    ).body as CopyHead;
    expect(carboy).toMatchObject({ access: 'read-only', part: 'reader', group: { name: 'Carboy' } });
    await student('noor').get(`/api/copies/${carboy.id}/discussion`).expect(200);
    await student('nino').get(`/api/copies/${carboy.id}`).expect(404);
    expect((await titlesOf('noor')).inRooms).toContain('Bench talk');
  });

  it('gives the class one copy, also to whoever is in no group', async () => {
    await released(
      given,
      { kind: 'discussion', title: 'Ask the lab', points: null },
      { to: theClass, mode: 'common' },
    );
    const item = await itemOf(student('nino'), given.course.id, 'Ask the lab');
    expect(item.copyId).toBe((await itemOf(student('amina'), given.course.id, 'Ask the lab')).copyId);
    const head = (await student('nino').get(`/api/copies/${item.copyId}`).expect(200)).body as CopyHead;
    expect(head).toMatchObject({ group: null, part: 'member', others: [] });
    expect(head.members).toHaveLength(5);
  });

  it('reaches some groups of a set; the others learn nothing, or only that it exists', async () => {
    await released(given, { title: 'Salt trial' }, { to: toCrock() });
    await released(given, { title: 'Second salt trial' }, { to: toCrock(), outsiders: 'listed' });
    expect((await titlesOf('noor')).inRooms).toEqual(
      expect.arrayContaining(['Salt trial', 'Second salt trial']),
    );
    const amina = await titlesOf('amina');
    expect(amina.inRooms).not.toContain('Salt trial');
    expect(amina.locked).toEqual(['Second salt trial']);
    const locked = sure((await roomsOf('amina')).locked[0]);
    expect(JSON.stringify(locked)).not.toContain('Crock');
    expect(locked.why).toEqual([
      'You see that it exists, but cannot open it.',
      'You are in none of the groups it was released to.',
      'Others may know that it exists.',
    ]);
    expect((await titlesOf('nino')).locked).toEqual(['Second salt trial']);
  });

  it('reaches another group later, and closes to a group that is left out, whose work stays', async () => {
    const salt = await released(given, { title: 'Widening' }, { to: toCrock() });
    const [crocks, everyones] = [toCrock(), wholeSet(given.set.id)].map((to) => ({
      to,
      outsiders: 'hidden',
    }));
    await given.instructor
      .put(`/api/activities/${salt.id}/reach`)
      .send({ ...everyones, was: crocks })
      .expect(200);
    const carboys = await copyOf(student('amina'), given.course.id, 'Widening');
    await addFile(student('amina'), carboys, 'notes.txt', Buffer.from('mine'));
    await given.instructor
      .put(`/api/activities/${salt.id}/reach`)
      .send({ ...crocks, was: everyones })
      .expect(200);
    await student('amina').get(`/api/copies/${carboys}`).expect(404);
    const work = (await given.instructor.get(`/api/copies/${carboys}/work`).expect(200)).body as WorkView;
    expect(work.files.map((file) => file.name)).toEqual(['notes.txt']);
  });

  it('never turns private copies into shared ones', async () => {
    const talk = await released(given, { kind: 'discussion', title: 'Private talk' });
    await given.instructor.post(`/api/activities/${talk.id}/withdraw`).expect(200);
    for (const mode of ['read-along', 'common'])
      await given.instructor
        .post(`/api/activities/${talk.id}/release`)
        .send({ ...toAll(), mode, version: talk.version })
        .expect(409);
  });

  it('offers no way that a kind does not know, nor sets and groups of elsewhere', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'No way' }))
        .expect(200)
    ).body as ActivityView;
    const attempt = (more: object) =>
      given.instructor.post(`/api/activities/${draft.id}/release`).send({ ...toAll(), version: 1, ...more });
    await attempt({ mode: 'common' }).expect(422);
    await attempt({ to: theClass }).expect(422);
    await attempt({ to: { include: [{ kind: 'person', enrolmentId: idOf('nino') }], exclude: [] } }).expect(
      422,
    );
    await attempt({ to: { ...wholeSet(given.set.id), exclude: [nowhere] } }).expect(404);
    await attempt({
      to: someGroups(given.set.id, [nowhere as GroupId]),
    }).expect(404);
    await attempt({ to: someGroups(given.set.id, []) }).expect(422);
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ kind: 'seance' }))
      .expect(422);
  });

  it('keeps its kind once it is released, and makes a copy that is a draft again', async () => {
    await given.instructor
      .put(`/api/activities/${activity.id}`)
      .send({ ...anAssignment(), kind: 'wiki', version: activity.version })
      .expect(409);
    const copy = (await given.instructor.post(`/api/activities/${activity.id}/copy`).expect(200))
      .body as ActivityView;
    expect(copy).toMatchObject({ title: 'Ferment report (copy)', release: null, points: '40', version: 1 });
    expect((await titlesOf('noor')).inRooms).not.toContain('Ferment report (copy)');
    const same = (
      await given.instructor
        .post(`/api/activities/${activity.id}/copy`)
        .send({ keepsTitle: true })
        .expect(200)
    ).body as ActivityView;
    expect(same).toMatchObject({ title: 'Ferment report', release: null });
  });
});

describe('what belongs to another course', () => {
  it('is no audience, and no group that gets longer, as if it were not there', async () => {
    const other = await aCourse(server, { email: 'other@quillmere.example', students: 2, groups: 1 });
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Ours alone' }))
        .expect(200)
    ).body as ActivityView;
    const foreignSet = wholeSet(other.set.id);
    const foreignGroups = someGroups(other.set.id, [sure(other.board.groups[0]).id]);
    const foreignPerson = {
      include: [{ kind: 'person', enrolmentId: sure(other.students.get('noor')).enrolmentId }],
      exclude: [],
    };
    const mixed = someGroups(given.set.id, [sure(other.board.groups[0]).id]);
    for (const to of [
      foreignSet,
      foreignGroups,
      mixed,
      { ...wholeSet(given.set.id), exclude: [foreignPerson.include[0]?.enrolmentId] },
    ])
      await given.instructor
        .post(`/api/activities/${draft.id}/release`)
        .send({ ...toAll(), to, version: draft.version })
        .expect(404);
    const grant = { due: '2026-11-20T17:00:00.000Z', reason: 'Why not' };
    await given.instructor
      .put(`/api/activities/${draft.id}/extensions/${sure(other.board.groups[0]).id}`)
      .send(grant)
      .expect(404);
    const after = (await given.instructor.get(`/api/activities/${draft.id}`).expect(200))
      .body as ActivityView;
    expect([after.release, after.extensions]).toEqual([null, []]);
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { Outbox } from '@jigsaw/contract/mail';
import type { BoardView, SignUpView } from '@jigsaw/contract/placing';
import { settingsOf } from '@jigsaw/contract/sets';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { AwaitedPlaces } from './awaitedPlaces.js';

let server: TestServer;
let given: CourseForTests;
let set: GroupSetView;
let groups: BoardView['groups'];
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  server.clock.set('2026-11-10T10:00:00Z');
  count += 1;
  given = await aCourse(server, { students: 5, email: `ilse${count}@quillmere.example` });
  const draft = {
    name: 'Tasting panels',
    shape: { by: 'count', groups: 2 },
    capacity: 1,
    pattern: '',
    names: ['Sour', 'Malt'],
    signUp: { opens: null, closes: null, showsNames: false },
  };
  set = (await given.instructor.post(`/api/courses/${given.course.id}/sets`).send(draft).expect(200))
    .body as GroupSetView;
  groups = ((await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView).groups;
});

const browser = (name: string) => sure(given.students.get(name)).browser;
const take = (name: string, at: number | null) =>
  browser(name)
    .post(`/api/sets/${set.id}/sign-up`)
    .send({ groupId: at === null ? null : sure(groups[at]).id })
    .expect(200);
const wait = (name: string, at: number, isAwaited = true) =>
  browser(name)
    .put(`/api/sets/${set.id}/sign-up/awaited/${sure(groups[at]).id}`)
    .send({ isAwaited });
const view = async (name: string) =>
  (await browser(name).get(`/api/sets/${set.id}/sign-up`).expect(200)).body as SignUpView;
const tell = () => server.app.get(AwaitedPlaces).tell();
const mails = async () =>
  (
    (await given.instructor.get(`/api/courses/${given.course.id}/outbox`).expect(200)).body as Outbox
  ).mails.map((mail) => [mail.toAddress, mail.subject]);

describe('a free place that someone waits for', () => {
  it('is told to all who wait, once, whatever made it free', async () => {
    await take('noor', 0);
    expect(sure((await wait('jorge', 0).expect(200)).body as SignUpView).groups[0]).toMatchObject({
      isAwaited: true,
      awaiting: 1,
    });
    await wait('kofi', 0).expect(200);
    expect(sure((await view('noor')).groups[0])).toMatchObject({ isAwaited: false, awaiting: 2 });
    expect(await tell()).toBe(0);
    await take('noor', null);
    expect(await tell()).toBe(2);
    expect((await mails()).sort()).toEqual([
      ['jorge@quillmere.example', 'A place in Sour is free'],
      ['kofi@quillmere.example', 'A place in Sour is free'],
    ]);
    expect(await tell()).toBe(0);

    await take('jorge', 0);
    await wait('kofi', 0).expect(200);
    const { enrolmentId } = sure(given.students.get('jorge'));
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'drop', enrolmentIds: [enrolmentId] })
      .expect(200);
    expect(await tell()).toBe(1);

    await take('noor', 0);
    await wait('kofi', 0).expect(200);
    const { version, ...now } = (await given.instructor.get(`/api/sets/${set.id}/board`)).body
      .set as GroupSetView;
    await given.instructor
      .patch(`/api/sets/${set.id}`)
      .send({ ...settingsOf({ ...now, version }), capacity: 3 })
      .expect(200);
    expect(await tell()).toBe(1);
  });

  it('is waited for no longer by those who say so, took it, or left, nor told when no one may take it', async () => {
    await take('noor', 0);
    await wait('jorge', 0).expect(200);
    await wait('jorge', 0, false).expect(200);
    await wait('kofi', 0).expect(200);
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'drop', enrolmentIds: [sure(given.students.get('kofi')).enrolmentId] })
      .expect(200);
    expect(sure((await view('noor')).groups[0]).awaiting).toBe(0);
    await wait('jorge', 0).expect(200);
    await given.instructor.post(`/api/sets/${set.id}/freeze`).send({ isFrozen: true }).expect(200);
    await given.instructor
      .post(`/api/sets/${set.id}/place`)
      .send({
        moves: [
          { student: sure(given.students.get('noor')).enrolmentId, from: sure(groups[0]).id, to: null },
        ],
      })
      .expect(200);
    expect(await tell()).toBe(0);
    await given.instructor.post(`/api/sets/${set.id}/freeze`).send({ isFrozen: false }).expect(200);
    const lock = (isLocked: boolean, version: number) =>
      given.instructor
        .patch(`/api/groups/${sure(groups[0]).id}`)
        .send({ name: 'Sour', capacity: null, isLocked, version })
        .expect(200);
    const { version } = sure(groups[0]);
    await lock(true, version);
    expect(await tell()).toBe(0);
    await lock(false, version + 1);
    await take('jorge', 0);
    expect(await tell()).toBe(0);
  });

  it('is no one’s to wait for where a place is free, nor outside the set, nor staff’s', async () => {
    const refused = await wait('jorge', 0).expect(409);
    expect((refused.body as { current: SignUpView }).current.groups[0]).toMatchObject({ members: 0 });
    await take('noor', 0);
    await wait('noor', 0).expect(409);
    await browser('noor')
      .put(`/api/sets/${set.id}/sign-up/awaited/${sure(given.board.groups[0]).id}`)
      .send({ isAwaited: true })
      .expect(404);
    await given.instructor
      .put(`/api/sets/${set.id}/sign-up/awaited/${sure(groups[0]).id}`)
      .send({ isAwaited: true })
      .expect(404);
  });
});

describe('a group to choose', () => {
  it('says when and where it meets, and whether that is a time when one is free', async () => {
    const details = { time: 'Mon 14:00', place: 'Pilot hall', about: 'Kombucha', halfDay: 'Mon pm' };
    const edit = (at: number, more: object) => {
      const { id, name, capacity, version } = sure(groups[at]);
      return given.instructor.patch(`/api/groups/${id}`).send({ name, capacity, version, details: more });
    };
    await edit(0, details).expect(200);
    await edit(1, { ...details, halfDay: 'Tue am' }).expect(200);
    await edit(1, { ...details, halfDay: 'Monday' }).expect(422);
    expect((await view('noor')).groups.map((group) => group.fits)).toEqual([null, null]);
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({
        act: 'edit',
        edits: [
          {
            enrolmentId: sure(given.students.get('noor')).enrolmentId,
            from: {},
            to: { attributes: { Free: 'Mon, Wed am' } },
          },
        ],
      })
      .expect(200);
    const seen = (await view('noor')).groups;
    expect(seen.map((group) => group.fits)).toEqual([true, false]);
    expect(sure(seen[0]).details).toEqual(details);
    expect((await view('jorge')).groups.map((group) => group.fits)).toEqual([null, null]);
  });

  it('says what happened to places in the last hour, without names', async () => {
    await take('noor', 0);
    server.clock.pass({ minutes: 10 });
    await take('noor', 1);
    const { latest } = await view('jorge');
    expect(latest.map(({ groupId, what }) => [groupId, what])).toEqual(
      expect.arrayContaining([
        [sure(groups[1]).id, 'filled'],
        [sure(groups[0]).id, 'came-free'],
        [sure(groups[0]).id, 'taken'],
      ]),
    );
    expect(latest).toHaveLength(3);
    expect(JSON.stringify(latest)).not.toContain(sure(given.students.get('noor')).enrolmentId);
    server.clock.pass({ minutes: 60 });
    expect((await view('jorge')).latest).toEqual([]);
  });
});

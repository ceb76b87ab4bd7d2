import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { ActivityList, ActivityView, ManyAct, ManyChanged } from '@jigsaw/contract/release';
import { draftOf } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, anAssignment, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());
beforeEach(() => server.clock.set('2026-10-20T10:00:00Z'));

const due = '2026-10-22T16:00:00.000Z'; // 17:00 in Lisbon, before clocks change
const schedule = { opens: null, due, closes: null };
const noor = (): Browser => sure(given.students.get('noor')).browser;
const drafted = async (title: string) =>
  (
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ title, schedule }))
      .expect(200)
  ).body as ActivityView;
const change = (
  activities: readonly { id: string; version: number }[],
  act: ManyAct,
  who = given.instructor,
) =>
  who
    .post(`/api/courses/${given.course.id}/activities/many`)
    .send({ activities: activities.map(({ id, version }) => ({ id, version })), act });
const read = async (id: string) =>
  (await given.instructor.get(`/api/activities/${id}`).expect(200)).body as ActivityView;
const changed = async (...asked: Parameters<typeof change>) =>
  (await change(...asked).expect(200)).body as ManyChanged;

describe('several activities at once', () => {
  it('move with all their dates, keep their time of day, and come back', async () => {
    const draft = await drafted('Draft');
    const live = await released(given, { title: 'Live', schedule });
    const path = `/api/activities/${live.id}/student-extensions/${sure(given.students.get('noor')).enrolmentId}`;
    await given.instructor.put(path).send({ due: '2026-10-23T16:00:00.000Z', reason: 'Ill' }).expect(200);
    // What is being changed in it moves along.
    const begun = (
      await given.instructor
        .put(`/api/activities/${live.id}`)
        .send({ ...draftOf(live), title: 'Renamed', version: live.version })
        .expect(200)
    ).body as ActivityView;
    const { activities } = await changed([draft, begun], { kind: 'move', days: 7 });
    const later = '2026-10-29T17:00:00.000Z';
    expect(activities.map((each) => each.schedule.due)).toEqual([later, later]);
    const now = await read(live.id);
    expect([now.inWork?.schedule.due, now.inWork?.title, now.title]).toEqual([later, 'Renamed', 'Live']);
    expect(now.studentExtensions[0]?.due).toBe('2026-10-30T17:00:00.000Z');
    expect((await itemOf(noor(), given.course.id, 'Live')).due).toBe('2026-10-30T17:00:00.000Z');
    await changed(activities, { kind: 'move', days: -7 });
    expect((await read(live.id)).schedule.due).toBe(due);
    expect((await read(live.id)).studentExtensions[0]?.due).toBe('2026-10-23T16:00:00.000Z');
  });

  it('are withdrawn, and are again what they were: live since then, or scheduled', async () => {
    const live = await released(given, { title: 'Out' });
    const later = await released(given, { title: 'Later' }, { goesLiveAt: '2026-10-25T10:00:00.000Z' });
    const copyId = await copyOf(noor(), given.course.id, 'Out');
    const { activities } = await changed([live, later], { kind: 'withdraw' });
    expect(activities.map((each) => each.release?.state.state)).toEqual(['withdrawn', 'withdrawn']);
    await noor().get(`/api/copies/${copyId}`).expect(404);
    await changed(activities, { kind: 'release-again' });
    await noor().get(`/api/copies/${copyId}`).expect(200);
    expect((await read(live.id)).release?.state).toEqual(live.release?.state);
    expect((await read(later.id)).release?.state).toEqual({
      state: 'scheduled',
      at: '2026-10-25T10:00:00.000Z',
    });
    await change(activities, { kind: 'release-again' }).expect(409);
  });

  it('are copied, deleted and restored', async () => {
    const [one, two] = [await drafted('One'), await released(given, { title: 'Two' })];
    const { activities: copies } = await changed([one, two], { kind: 'copy' });
    expect(copies.map((copy) => copy.title).toSorted()).toEqual(['One (copy)', 'Two (copy)']);
    expect(copies.every((copy) => copy.release === null)).toBe(true);
    const { deleted } = await changed(copies, { kind: 'delete' });
    const titles = async () => {
      const { body } = await given.instructor.get(`/api/courses/${given.course.id}/activities`);
      return (body as ActivityList).activities.map((each) => each.title);
    };
    expect(await titles()).not.toContain('One (copy)');
    await changed(deleted, { kind: 'restore' });
    expect(await titles()).toEqual(expect.arrayContaining(['One (copy)', 'Two (copy)']));
  });

  it('all change or none: what cannot be is named', async () => {
    const draft = await drafted('Only a draft');
    const live = await released(given, { title: 'Released' });
    const refused = await change([live, draft], { kind: 'withdraw' }).expect(409);
    expect(refused.body.detail).toBe('“Only a draft” is still a draft; no one has seen it.');
    expect((await read(live.id)).release?.state.state).toBe('live');
    const kept = await change([draft, live], { kind: 'delete' }).expect(409);
    expect(kept.body.detail).toMatch(/^“Released” was released/);
    await read(draft.id);
    const stale = await change([{ ...draft, version: 9 }, live], { kind: 'move', days: 1 }).expect(409);
    expect(stale.body.detail).toMatch(/^“Only a draft” was changed meanwhile/);
    const soon = await released(given, { title: 'Soon' }, { goesLiveAt: '2026-10-25T10:00:00.000Z' });
    const early = await change([soon], { kind: 'move', days: -9 }).expect(409);
    expect(early.body.detail).toMatch(/^“Soon” would be released at once/);
    await change([], { kind: 'copy' }).expect(422);
    await change([draft], { kind: 'move', days: 0 }).expect(422);
    await change([{ id: '01920000-0000-7000-8000-00000000abcd', version: 1 }], { kind: 'copy' }).expect(404);
    await change([draft], { kind: 'copy' }, noor()).expect(404);
  });

  it('once, by two who change the same at one moment', async () => {
    const [one, two] = [await drafted('A'), await drafted('B')];
    const both = await Promise.all([
      change([one, two], { kind: 'move', days: 1 }),
      change([two, one], { kind: 'move', days: 1 }),
    ]);
    expect(both.map((answer) => answer.status).toSorted()).toEqual([200, 409]);
    expect((await read(one.id)).schedule.due).toBe('2026-10-23T16:00:00.000Z');
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { ActivityDraft, ActivityList, ActivityView } from '@jigsaw/contract/release';
import { draftOf } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { wholeSet } from '@jigsaw/core/release';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  activity = await released(given, { title: `Report ${count}` });
});

const path = () => `/api/activities/${activity.id}`;
const noor = () => sure(given.students.get('noor')).browser;
const edit = (more: Partial<ActivityDraft>, version = activity.version) =>
  given.instructor.put(path()).send({ ...draftOf(activity), ...more, version });
const press = (what: 'publish' | 'discard', version: number) =>
  given.instructor.post(`${path()}/${what}`).send({ version });
const renamed = () => `Renamed ${count}`;
const seenBy = (title = activity.title) => itemOf(noor(), given.course.id, title);

describe('what is changed in an activity that groups have', () => {
  it('is seen by staff alone until one press makes it visible', async () => {
    const due = '2026-12-24T17:00:00.000Z';
    const { body } = await edit({ title: renamed(), schedule: { opens: null, due, closes: null } }).expect(
      200,
    );
    expect(body).toMatchObject({ title: activity.title, inWork: { title: renamed(), schedule: { due } } });
    expect((await seenBy()).due).not.toBe(due);
    const published = await press('publish', body.version as number).expect(200);
    expect(published.body).toMatchObject({ title: renamed(), inWork: null, schedule: { due } });
    expect((await seenBy(renamed())).due).toBe(due);
  });

  it('is nothing once it is typed back to what they have', async () => {
    const { body } = await edit({ title: renamed() }).expect(200);
    expect((await edit({}, body.version as number).expect(200)).body.inWork).toBeNull();
  });

  it('is dropped, and only what was in view is dropped or made visible', async () => {
    const { version } = (await edit({ title: renamed() }).expect(200)).body as ActivityView;
    await edit({ title: 'Renamed by another' }, version).expect(200);
    for (const what of ['publish', 'discard'] as const) {
      const refused = await press(what, version).expect(409);
      expect(refused.body).toMatchObject({ current: { inWork: { title: 'Renamed by another' } } });
    }
    await press('discard', version + 1).expect(200);
    await press('publish', version + 2).expect(409);
    expect((await given.instructor.get(path())).body).toMatchObject({ title: activity.title, inWork: null });
  });

  it('is no observer’s to see', async () => {
    await edit({ title: 'Known to staff' }).expect(200);
    const observer = await aMember(server, given, `olga${count}`, 'observer');
    const list = await observer.get(`/api/courses/${given.course.id}/activities`).expect(200);
    expect(JSON.stringify(list.body as ActivityList)).not.toContain('Known to staff');
  });

  it('goes with it when it is withdrawn and released again', async () => {
    await edit({ title: renamed() }).expect(200);
    const withdrawn = (await given.instructor.post(`${path()}/withdraw`).expect(200)).body as ActivityView;
    await given.instructor
      .post(`${path()}/release`)
      .send({
        to: wholeSet(given.set.id),
        mode: 'own',
        outsiders: 'hidden',
        goesLiveAt: null,
        version: withdrawn.version,
      })
      .expect(200);
    expect((await seenBy(renamed())).title).toBe(renamed());
  });

  it('cannot take the points away once there is a mark', async () => {
    const copyId = await copyOf(noor(), given.course.id, activity.title);
    await edit({ points: null }).expect(200);
    await press('discard', activity.version + 1).expect(200);
    await given.instructor
      .put(`/api/copies/${copyId}/marks/group`)
      .send({ typedMark: '30', overrideReason: '', picks: {}, feedback: '', adjustments: [], version: 0 })
      .expect(200);
    const refused = await edit({ points: null }, activity.version + 2).expect(409);
    expect(refused.body.detail).toBe(
      'This already has marks, so it must have points. Recall the marks first, or make a copy.',
    );
  });

  it('takes no year that is half typed', async () => {
    const schedule = { opens: null, due: '0020-11-12T17:00:00.000Z', closes: null };
    const refused = await edit({ schedule }).expect(422);
    expect(JSON.stringify(refused.body)).toContain('Enter a four-digit year, like 2026.');
  });
});

describe('a draft', () => {
  const list = async () =>
    ((await given.instructor.get(`/api/courses/${given.course.id}/activities`)).body as ActivityList)
      .activities;

  it('changes at once, and can be deleted and restored', async () => {
    const draft = (
      await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anAssignment())
    ).body as ActivityView;
    const at = `/api/activities/${draft.id}`;
    const renamed = { ...draftOf(draft), title: 'Renamed', version: draft.version };
    expect((await given.instructor.put(at).send(renamed).expect(200)).body).toMatchObject({
      title: 'Renamed',
      inWork: null,
    });
    await noor().delete(at).expect(404);
    await given.instructor.delete(at).expect(200);
    expect((await list()).map((each) => each.id)).not.toContain(draft.id);
    await given.instructor.get(at).expect(404);
    await given.instructor.put(at).send(renamed).expect(404);
    await given.instructor.post(`${at}/copy`).expect(404);
    await noor().post(`${at}/restore`).expect(404);
    await given.instructor.post(`${at}/restore`).expect(200);
    expect((await list()).map((each) => each.id)).toContain(draft.id);
  });

  it('that groups had is withdrawn, not deleted', async () => {
    const refused = await given.instructor.delete(path()).expect(409);
    expect(refused.body.detail).toMatch(
      /^“Report \d+” was released, so it cannot be deleted. Withdraw it instead; all work is kept.$/,
    );
  });

  it('is either deleted or released when both are pressed at one moment', async () => {
    for (let round = 0; round < 8; round += 1) {
      const draft = (
        await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anAssignment())
      ).body as ActivityView;
      const at = `/api/activities/${draft.id}`;
      const request = {
        to: wholeSet(given.set.id),
        mode: 'own',
        outsiders: 'hidden',
        goesLiveAt: null,
      };
      const [deleted, pressed] = await Promise.all([
        given.instructor.delete(at),
        given.instructor.post(`${at}/release`).send({ ...request, version: draft.version }),
      ]);
      const outcome = [deleted.status, pressed.status];
      expect([
        [200, 404],
        [409, 200],
      ]).toContainEqual(outcome);
      await given.instructor.get(at).expect(pressed.status);
    }
  });
});

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { CopyView, RoomList } from '@jigsaw/contract/handin';
import type { ActivityView } from '@jigsaw/contract/release';
import { aCourse, addFile, anAssignment, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;
let fileId: string;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  activity = await released(given);
  copyId = await copyOf(student('noor'), given.course.id);
  const copy = await addFile(student('noor'), copyId, 'notes.txt', Buffer.from('pH 4.4'));
  fileId = copy.files[0]!.id;
  await student('noor')
    .put(`/api/copies/${copyId}/part`)
    .send({ text: aText('Our crock fell to 4.4.'), version: 0 })
    .expect(200);
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});
afterAll(() => server.stop());

const student = (name: string): Browser => given.students.get(name)!.browser;
const unknownId = '01920000-0000-7000-8000-00000000abcd';

/** Every address by which a copy or something in it could be asked for. */
const routes = (
  copy: string,
  file: string,
  release: string,
  activityId: string,
): readonly { method: 'get' | 'put' | 'post' | 'delete'; path: string; body?: object }[] => [
  { method: 'get', path: `/api/copies/${copy}` },
  { method: 'put', path: `/api/copies/${copy}/part`, body: { text: aText('mine'), version: 0 } },
  { method: 'post', path: `/api/copies/${copy}/hand-in`, body: { attempt: 2 } },
  { method: 'get', path: `/api/copies/${copy}/files/${file}` },
  { method: 'delete', path: `/api/copies/${copy}/files/${file}` },
  { method: 'post', path: `/api/copies/${copy}/files/${file}/put-back` },
  { method: 'get', path: `/api/copies/${copy}/mark` },
  { method: 'put', path: `/api/copies/${copy}/mark`, body: { groupMark: '40', feedback: '', adjustments: [], version: 0 } },
  { method: 'post', path: `/api/copies/${copy}/mark/release`, body: { version: 1 } },
  { method: 'post', path: `/api/copies/${copy}/mark/recall` },
  { method: 'get', path: `/api/releases/${release}/desk` },
  { method: 'get', path: `/api/activities/${activityId}` },
  { method: 'put', path: `/api/activities/${activityId}`, body: { ...anAssignment(), version: 1 } },
  { method: 'post', path: `/api/activities/${activityId}/withdraw` },
];

describe('what is not released to you does not exist for you', () => {
  it.each(['another group’s member', 'a student in no group', 'another course’s instructor', 'a dropped member'])(
    'answers %s as for ids that do not exist',
    async (who) => {
      const browser = await outsider(who);
      const real = routes(copyId, fileId, activity.release!.id, activity.id);
      const unknown = routes(unknownId, unknownId, unknownId, unknownId);
      for (const [at, { method, path, body }] of real.entries()) {
        const asked = await browser[method](path).send(body);
        const absent = await browser[method](unknown[at]!.path).send(body);
        expect({ path, status: asked.status, body: asked.body as unknown }).toEqual({ path, status: 404, body: absent.body as unknown });
      }
      const upload = await browser
        .post(`/api/copies/${copyId}/files`)
        .query({ name: 'x.txt' })
        .set('Content-Type', 'application/octet-stream')
        .send(Buffer.from('x'));
      expect(upload.status).toBe(404);
    },
  );

  async function outsider(who: string): Promise<Browser> {
    if (who === 'another group’s member') return student('amina');
    if (who === 'a student in no group') return student('nino');
    if (who === 'another course’s instructor') return server.instructor('elsewhere@quillmere.example');
    const { DataSource } = await import('typeorm');
    await server.app.get(DataSource).query(`UPDATE "enrolment" SET "leftAt" = now() WHERE "id" = $1`, [given.students.get('jorge')!.enrolmentId]);
    return student('jorge');
  }

  it('asks everybody who is signed out to sign in, whether or not the id exists', async () => {
    for (const { method, path, body } of [
      ...routes(copyId, fileId, activity.release!.id, activity.id),
      ...routes(unknownId, unknownId, unknownId, unknownId),
    ]) {
      const answer = await server.browser()[method](path).send(body);
      expect({ path, status: answer.status }).toEqual({ path, status: 401 });
    }
  });

  it('shows each student their own room and nothing of the others', async () => {
    const { rooms } = (await student('amina').get(`/api/courses/${given.course.id}/rooms`).expect(200)).body as RoomList;
    expect(rooms.map((room) => room.group.name)).toEqual(['Carboy']);
    expect(JSON.stringify(rooms)).not.toContain('Noor');
    expect((await student('nino').get(`/api/courses/${given.course.id}/rooms`).expect(200)).body).toEqual({ rooms: [] });
  });

  it('counts for a student only what is theirs', async () => {
    expect((await student('nino').get(`/api/courses/${given.course.id}/figures`).expect(200)).body).toEqual({ kind: 'student', due: 0, rooms: 0, newMarks: 0 });
    expect((await student('amina').get(`/api/courses/${given.course.id}/figures`).expect(200)).body).toEqual({
      kind: 'student',
      due: 1,
      rooms: 1,
      newMarks: 0,
    });
  });
});

describe('releasing', () => {
  it('hides a draft and a withdrawn assignment from members, and brings the same copy back with its work', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Quiet draft' }))
        .expect(200)
    ).body as ActivityView;
    expect(JSON.stringify((await student('noor').get(`/api/courses/${given.course.id}/rooms`)).body)).not.toContain('Quiet draft');
    expect(draft.release).toBeNull();

    await given.instructor.post(`/api/activities/${activity.id}/withdraw`).expect(200);
    await student('noor').get(`/api/copies/${copyId}`).expect(404);
    await given.instructor
      .post(`/api/activities/${activity.id}/release`)
      .send({ setId: given.set.id, goesLiveAt: null, version: activity.version })
      .expect(200);
    const copy = (await student('noor').get(`/api/copies/${copyId}`).expect(200)).body as CopyView;
    expect(copy.handIns).toHaveLength(1);
  });

  it('goes live by itself at its moment', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ title: 'Later' }))
        .expect(200)
    ).body as ActivityView;
    const at = new Date(server.clock.now().getTime() + 3_600_000).toISOString();
    await given.instructor.post(`/api/activities/${draft.id}/release`).send({ setId: given.set.id, goesLiveAt: at, version: draft.version }).expect(200);
    const rooms = async () => JSON.stringify((await student('noor').get(`/api/courses/${given.course.id}/rooms`)).body);
    expect(await rooms()).not.toContain('Later');
    expect(JSON.stringify((await given.instructor.get(`/api/courses/${given.course.id}/rooms`)).body)).not.toContain('Later'); // nor is it in the room yet for staff
    server.clock.pass({ hours: 2 });
    expect(await rooms()).toContain('Later');
  });

  it('follows a move at once', async () => {
    const [crock, carboy] = given.board.groups;
    const kofi = given.students.get('kofi')!;
    await kofi.browser.get(`/api/copies/${copyId}`).expect(404);
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: kofi.enrolmentId, from: carboy!.id, to: crock!.id }] })
      .expect(200);
    await kofi.browser.get(`/api/copies/${copyId}`).expect(200);
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: kofi.enrolmentId, from: crock!.id, to: carboy!.id }] })
      .expect(200);
    await kofi.browser.get(`/api/copies/${copyId}`).expect(404);
  });

  it('tells before release who sees nothing and why', async () => {
    const { body } = await given.instructor.get(`/api/activities/${activity.id}/reach/${given.set.id}`).expect(200);
    expect(body).toMatchObject({ outside: [{ name: 'Nino', why: ['Sees nothing of it.', 'Is in none of the groups it was released to.'] }] });
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
    await given.instructor.post(`/api/activities/${draft.id}/release`).send({ setId: given.set.id, goesLiveAt: null, version: 1 }).expect(409);
    const stale = await given.instructor
      .put(`/api/activities/${draft.id}`)
      .send({ ...anAssignment({ title: 'Lost?' }), version: 1 })
      .expect(409);
    expect(stale.body).toMatchObject({ current: { title: 'Edited twice', version: 2 } });
  });

  it('keeps only text that the editor can make', async () => {
    const script = { type: 'doc', content: [{ type: 'script', content: [{ type: 'text', text: 'alert(1)' }] }] };
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ brief: script as never }))
      .expect(422);
    const link = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] }] }],
    };
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ brief: link as never }))
      .expect(422);
    const dates = await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ schedule: { opens: '2026-11-12T00:00:00.000Z', due: '2026-11-11T00:00:00.000Z', closes: null } }))
      .expect(422);
    expect(dates.body).toMatchObject({ detail: 'Opens, due and closes must come in that order.' });
  });
});

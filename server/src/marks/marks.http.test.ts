import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DeskView, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aSheet, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
});
afterAll(() => server.stop());

beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  activity = await released(given, { title: `Report ${count}` });
  copyId = await copyOf(student('noor'), given.course.id, `Report ${count}`);
  await addFile(student('noor'), copyId, 'crock.txt', Buffer.from(`pH ${count}`));
  server.clock.set('2026-11-13T21:05:00Z'); // 28 h 05 late: 8 of 40 points
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const save = (sheet: object) =>
  given.instructor
    .put(`/api/copies/${copyId}/marks/group`)
    .send({ ...aSheet, typedMark: '31.5', feedback: 'Good reading.', ...sheet });
const sheetNow = async () =>
  (await given.instructor.get(`/api/copies/${copyId}/marks/group`).expect(200)).body as MarkView;
const releaseMarks = (version: number) =>
  given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version });
const recallMarks = (version: number) =>
  given.instructor.post(`/api/copies/${copyId}/marks/group/recall`).send({ version });
const myMark = async (name: string) =>
  (
    (await student(name).get(`/api/courses/${given.course.id}/my-marks`).expect(200)).body as MyMarks
  ).marks.find((mark) => mark.copyId === copyId);
const adjusted = (name: string, by: string, reason: string) => ({
  enrolmentId: idOf(name),
  adjustment: { kind: 'adjusted', by, reason },
});

describe('the Marking desk', () => {
  it('lists the groups with their state and what needs the marker', async () => {
    const { body } = (await given.instructor
      .get(`/api/releases/${sure(activity.release).id}/desk`)
      .expect(200)) as { body: DeskView };
    expect(body.rows).toMatchObject([
      {
        group: { name: 'Crock' },
        people: expect.arrayContaining(
          ['noor', 'jorge'].map((name) => sure(given.students.get(name)).enrolmentId),
        ),
        work: { lateMinutes: 1685, deduction: '8', by: 'Noor' },
        mark: { state: 'unmarked' },
        needsYou: true,
      },
      { group: { name: 'Carboy' }, work: null, needsYou: false },
    ]);
  });

  it('shows no student anything before release, and each their own mark after', async () => {
    await save({ adjustments: [adjusted('jorge', '1.5', 'Ill for a week')] }).expect(200);
    expect(await myMark('noor')).toBeUndefined();
    await releaseMarks(1).expect(200);
    const body = await sheetNow();
    expect(body).toMatchObject({
      state: 'released',
      members: [
        { member: { name: 'Jorge' }, mark: '25' },
        { member: { name: 'Noor' }, mark: '23.5' },
      ],
    });

    expect(await myMark('noor')).toMatchObject({
      groupMark: '31.5',
      mark: '23.5',
      feedback: 'Good reading.',
      steps: [
        { code: 'group-mark', mark: '31.5' },
        { code: 'late', deduction: '8' },
      ],
    });
    const jorge = await myMark('jorge');
    expect(jorge).toMatchObject({
      mark: '25',
      steps: [
        { code: 'group-mark' },
        { code: 'late' },
        { code: 'adjusted', by: '1.5', reason: 'Ill for a week' },
      ],
    });
    expect(
      JSON.stringify(
        await student('noor')
          .get(`/api/courses/${given.course.id}/my-marks`)
          .then((answer) => answer.body as unknown),
      ),
    ).not.toContain('Ill for a week');
    expect(await myMark('amina')).toBeUndefined();
  });

  it('keeps later edits to itself until they are released again, and takes marks back', async () => {
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    await save({ typedMark: '38', version: 1 }).expect(200);
    expect(await myMark('noor')).toMatchObject({ groupMark: '31.5' });
    await releaseMarks(2).expect(200);
    expect(await myMark('noor')).toMatchObject({ groupMark: '38' });
    await recallMarks(2).expect(200);
    expect(await myMark('noor')).toBeUndefined();
  });

  it('asks for a reason for each adjustment before it releases, not while it is typed', async () => {
    await save({ adjustments: [adjusted('jorge', '-3', '')] }).expect(200);
    const refused = await releaseMarks(1).expect(422);
    expect(refused.body).toMatchObject({
      issues: [{ path: idOf('jorge'), message: "Say why Jorge's mark differs." }],
    });
  });

  it('never takes a missing mark for a zero', async () => {
    await save({ typedMark: null }).expect(200);
    await releaseMarks(1).expect(422);
    const separate = (name: string, mark: string) => ({
      enrolmentId: idOf(name),
      adjustment: { kind: 'separate', mark, reason: 'Worked alone' },
    });
    await save({
      typedMark: null,
      version: 1,
      adjustments: [separate('noor', '20'), separate('jorge', '12')],
    }).expect(200);
    await releaseMarks(2).expect(200);
    expect(await myMark('jorge')).toMatchObject({ groupMark: null, mark: '12' });
  });

  it('refuses a mark above the points and one for someone who is not credited', async () => {
    await save({ typedMark: '41' }).expect(422);
    await save({ adjustments: [adjusted('amina', '1', 'why')] }).expect(404);
  });

  it('refuses a member’s own mark, and more or less than the group, above the points, by name', async () => {
    const own = (mark: string | null) => ({
      enrolmentId: idOf('noor'),
      adjustment: { kind: 'separate', mark, reason: 'Worked alone' },
    });
    for (const adjustments of [
      [own('350')],
      [adjusted('noor', '99999', 'x')],
      [adjusted('noor', '-40.01', 'x')],
    ]) {
      const refused = await save({ adjustments }).expect(422);
      expect(refused.body.detail).toMatch(/for Noor is above the 40 points/);
      expect(refused.body.issues).toEqual([{ path: idOf('noor'), message: 'At most 40 points.' }]);
    }
    await save({ adjustments: [own('40')] }).expect(200);
  });

  it('never takes an empty figure for a zero: it is asked for before anything is released', async () => {
    const empty = (kind: 'separate' | 'adjusted') => ({
      enrolmentId: idOf('noor'),
      adjustment:
        kind === 'separate' ? { kind, mark: null, reason: 'Alone' } : { kind, by: null, reason: 'Helped' },
    });
    await save({ adjustments: [empty('separate')] }).expect(200);
    expect((await releaseMarks(1).expect(422)).body.detail).toBe(
      'Give Noor a mark, or let them have the group’s.',
    );
    await save({ adjustments: [empty('adjusted')], version: 1 }).expect(200);
    expect((await releaseMarks(2).expect(422)).body.detail).toBe(
      'Say by how many points Noor’s mark differs.',
    );
    expect(await myMark('noor')).toBeUndefined();
  });

  it('shows a second marker what the first one wrote', async () => {
    await save({}).expect(200);
    const refused = await save({ typedMark: '20' }).expect(409);
    expect(refused.body).toMatchObject({ current: { groupMark: '31.5' } });
  });

  it('keeps one of several sheets that are saved at one moment, and shows it to the others', async () => {
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, at) => save({ typedMark: String(20 + at) })),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, ...Array<number>(7).fill(409)]);
    expect((await sheetNow()).version).toBe(1);
  });

  it('releases the version in view and no other', async () => {
    await save({}).expect(200);
    await save({ typedMark: '20', version: 1 }).expect(200);
    const refused = await releaseMarks(1).expect(409);
    expect(refused.body).toMatchObject({ type: '/problems/stale-write', current: { groupMark: '20' } });
    expect(await myMark('noor')).toBeUndefined();
  });

  it('takes back the version in view and no other', async () => {
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    await save({ typedMark: '20', version: 1 }).expect(200);
    const refused = await recallMarks(1).expect(409);
    expect(refused.body).toMatchObject({
      type: '/problems/stale-write',
      current: { groupMark: '20', version: 2, changedBy: expect.stringMatching(/./) },
    });
    expect(await myMark('noor')).toMatchObject({ groupMark: '31.5' });
  });

  it('says of a mark that was taken back that it is a draft again', async () => {
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    expect(await sheetNow()).toMatchObject({ state: 'released' });
    const recalled = await recallMarks(1).expect(200);
    expect(recalled.body).toMatchObject({ state: 'drafted' });
    expect(await sheetNow()).toMatchObject({ state: 'drafted', releasedAt: null });
    expect(await myMark('noor')).toBeUndefined();
  });

  it('is new to a student again once it is released anew', async () => {
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    const first = sure(await myMark('noor'));
    expect(first.isNew).toBe(true);
    expect((await myMark('noor'))?.isNew).toBe(true); // asking alone changes nothing
    const seen = (until: string) =>
      student('noor').post(`/api/courses/${given.course.id}/my-marks/seen`).send({ until });
    await seen('2026-01-01T00:00:00.000Z').expect(200); // what was shown then held no mark yet
    expect((await myMark('noor'))?.isNew).toBe(true);
    await seen(first.releasedAt).expect(200);
    expect((await myMark('noor'))?.isNew).toBe(false);
    server.clock.pass({ minutes: 1 });
    await save({ typedMark: '33', version: 1 }).expect(200);
    await releaseMarks(2).expect(200);
    expect(await myMark('noor')).toMatchObject({ mark: '25', isNew: true });
  });

  it('flags a mark that new work has overtaken', async () => {
    await save({}).expect(200);
    server.clock.pass({ minutes: 5 });
    await addFile(student('jorge'), copyId, 'more.txt', Buffer.from(`more ${count}`));
    await student('jorge').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 2 }).expect(200);
    expect((await given.instructor.get(`/api/copies/${copyId}/marks/group`).expect(200)).body).toMatchObject({
      isStale: true,
    });
    const { body } = (await given.instructor.get(`/api/releases/${sure(activity.release).id}/desk`)) as {
      body: DeskView;
    };
    expect(body.rows[0]).toMatchObject({ needsYou: true });
  });

  it('credits whoever was in the group at hand-in, wherever they sit now', async () => {
    const [crock] = given.board.groups;
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: idOf('jorge'), from: sure(crock).id, to: null }] })
      .expect(200);
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    const body = await sheetNow();
    expect(body.members.find((each) => each.member.name === 'Jorge')).toMatchObject({
      isStillInGroup: false,
      mark: '23.5',
    });
    expect(await myMark('jorge')).toMatchObject({ mark: '23.5' });
    await student('jorge').get(`/api/copies/${copyId}`).expect(404);
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: idOf('jorge'), from: null, to: sure(crock).id }] })
      .expect(200);
  });

  it('takes the mark back from whoever is no longer credited, when it is released again', async () => {
    const [crock] = given.board.groups;
    const place = (from: string | null, to: string | null) =>
      given.instructor
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: idOf('jorge'), from, to }] })
        .expect(200);
    await save({}).expect(200);
    await releaseMarks(1).expect(200);
    await place(sure(crock).id, null);
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 2 }).expect(200); // by Noor alone
    await save({ version: 1 }).expect(200);
    await releaseMarks(2).expect(200);
    expect(await myMark('jorge')).toBeUndefined();
    expect(await myMark('noor')).toMatchObject({ mark: '23.5' });
    await place(null, sure(crock).id);
  });

  it('keeps who changed a mark, when, and from what to what', async () => {
    await save({}).expect(200);
    server.clock.pass({ minutes: 2 });
    await save({ typedMark: '33', version: 1, adjustments: [adjusted('jorge', '2', 'Ran')] }).expect(200);
    // Typed on: one change.
    await save({
      typedMark: '33',
      version: 2,
      adjustments: [adjusted('jorge', '2', 'Ran the control')],
    }).expect(200);
    server.clock.pass({ minutes: 2 });
    await releaseMarks(3).expect(200);
    const body = await sheetNow();
    expect(body.history.map((each) => `${each.by}: ${each.what}`)).toEqual([
      'Dr. Ilse Marrow: Released to 2 students',
      'Dr. Ilse Marrow: Group mark 31.5 → 33; Jorge: same as the group → +2 (Ran the control)',
      'Dr. Ilse Marrow: Group mark none → 31.5; feedback',
    ]);
  });
});

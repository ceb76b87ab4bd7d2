import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DeskView, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { newId } from '../platform/ids.js';
import { aCourse, addFile, anAssignment, aSheet, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;
let count = 0;

const level = (points: string) => ({
  id: `l${points}`,
  name: `Level ${points}`,
  description: 'what this level shows',
  points,
});
const criterion = (id: string, weight: string, ...points: string[]) => ({
  id,
  name: id,
  description: '',
  weight,
  levels: points.map(level),
});
const rubric = {
  criteria: [
    criterion('method', '2', '1', '3', '4'),
    criterion('data', '1', '2', '4'),
    criterion('writing', '1', '3', '5'),
  ],
};
const picks = (method: string | null, data: string | null, writing: string | null) => ({
  method: { points: method, comment: 'Say what the control rules out.' },
  data: { points: data, comment: '' },
  writing: { points: writing, comment: '' },
});

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  activity = await released(given, { kind: 'folder', title: `Report ${count}`, rubric });
  copyId = await copyOf(student('noor'), given.course.id, `Report ${count}`);
  await addFile(student('noor'), copyId, 'report.txt', Buffer.from(`report ${count}`));
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const sheet = () => `/api/copies/${copyId}/marks/group`;
const save = (more: object) => given.instructor.put(sheet()).send({ ...aSheet, ...more });
const releaseMarks = (version: number) => given.instructor.post(`${sheet()}/release`).send({ version });
const myMark = async (name: string) =>
  (
    (await student(name).get(`/api/courses/${given.course.id}/my-marks`).expect(200)).body as MyMarks
  ).marks.find((mark) => mark.copyId === copyId);

describe('marking by rubric', () => {
  it('shows students the rubric before they hand in', async () => {
    expect(
      (
        (
          await student('amina').get(
            `/api/copies/${await copyOf(student('amina'), given.course.id, `Report ${count}`)}`,
          )
        ).body as CopyHead
      ).rubric,
    ).toEqual(rubric);
  });

  it('sums the picked levels, and gives no mark while one is missing', async () => {
    const half = await save({ picks: picks('3', null, '3.5') }).expect(200);
    expect(half.body).toMatchObject({ groupMark: null, state: 'unmarked' });
    const refused = await releaseMarks(1).expect(422);
    expect(refused.body).toMatchObject({
      detail: 'Pick a level for every criterion, or give the mark yourself and say why.',
    });
    await save({ picks: picks('3', '4', '3.5'), version: 1 }).expect(200);
    expect((await given.instructor.get(sheet()).expect(200)).body).toMatchObject({
      groupMark: '32',
      typedMark: null,
      state: 'drafted',
      members: [{ mark: '32' }, { mark: '32' }],
    });
    const desk = (await given.instructor.get(`/api/releases/${sure(activity.release).id}/desk`).expect(200))
      .body as DeskView;
    expect(sure(desk.rows[0]).mark).toEqual({ state: 'drafted', groupMark: '32' });
  });

  it('gives each student the rubric with what was picked and said, as it was at release', async () => {
    await save({ picks: picks('3', '4', '3.5'), feedback: 'Good reading.' }).expect(200);
    expect(await myMark('noor')).toBeUndefined();
    await releaseMarks(1).expect(200);
    const changed = {
      ...anAssignment({
        kind: 'folder',
        title: `Report ${count}`,
        rubric: { criteria: [sure(rubric.criteria[0])] },
      }),
      version: activity.version,
    };
    await given.instructor.put(`/api/activities/${activity.id}`).send(changed).expect(200);
    await given.instructor
      .post(`/api/activities/${activity.id}/publish`)
      .send({ version: activity.version + 1 })
      .expect(200);
    const mine = await myMark('noor');
    expect(mine).toMatchObject({
      groupMark: '32',
      mark: '32',
      rubric: { rubric, picks: { method: { points: '3', comment: 'Say what the control rules out.' } } },
    });
  });

  it('lets a marker put a mark in place of the rubric’s, with a reason that students see', async () => {
    await save({ picks: picks('3', '4', '3.5'), typedMark: '35' }).expect(200);
    const refused = await releaseMarks(1).expect(422);
    expect(refused.body).toMatchObject({ issues: [{ path: 'overrideReason' }] });
    await save({
      picks: picks('3', '4', '3.5'),
      typedMark: '35',
      overrideReason: 'The rubric misses their second trial',
      version: 1,
    }).expect(200);
    await releaseMarks(2).expect(200);
    expect(sure(await myMark('jorge')).steps).toEqual([
      { code: 'group-mark', mark: '35', max: '40' },
      { code: 'override', rubricMark: '32', mark: '35', reason: 'The rubric misses their second trial' },
    ]);
    expect(((await given.instructor.get(sheet())).body as MarkView).history.map((each) => each.what)).toEqual(
      ['Released to 2 students', 'Group mark none → 35; reason: The rubric misses their second trial'],
    );
  });

  it('refuses more points than a criterion has', async () => {
    const refused = await save({ picks: picks('4.5', '4', '3.5') }).expect(422);
    expect(refused.body).toMatchObject({ detail: '4.5 is above the 4 points of method.' });
  });

  it('refuses a rubric that could not be marked by', async () => {
    const attempt = (criteria: object[]) =>
      given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send({ ...anAssignment(), rubric: { criteria } });
    await attempt([]).expect(422);
    await attempt([criterion('one', '1', '4', '2')]).expect(422);
    await attempt([{ ...criterion('one', '1', '1', '2'), name: '' }]).expect(422);
  });
});

describe('marking talk and wikis', () => {
  it('gives each student of a discussion a mark of their own, proposes one, and knows new posts from old', async () => {
    const talk = await released(given, {
      kind: 'discussion',
      title: `Talk ${count}`,
      points: '9',
      settings: { posts: 1, postWords: 1, replies: 0, replyWords: 0 },
    });
    const copy = await copyOf(student('noor'), given.course.id, `Talk ${count}`);
    const write = (name: string) =>
      student(name)
        .post(`/api/copies/${copy}/posts`)
        .send({ id: newId(), parentId: null, text: aText('Three words here') })
        .expect(200);
    await write('noor');
    const rows = async () =>
      (
        (await given.instructor.get(`/api/releases/${sure(talk.release).id}/desk`).expect(200))
          .body as DeskView
      ).rows;
    expect((await rows()).map((row) => [row.student?.name, row.needsYou])).toEqual([
      ['Jorge', false],
      ['Noor', true],
      ['Amina', false],
      ['Kofi', false],
    ]);
    const noor = sure(given.students.get('noor')).enrolmentId;
    const sheetOf = `/api/copies/${copy}/marks/${noor}`;
    const view = (await given.instructor.get(sheetOf).expect(200)).body as MarkView;
    expect(view).toMatchObject({
      suggestion: { mark: '9', why: '1 of 1 post, with the words and on time' },
      members: [
        {
          evidence: [
            { label: 'posts', value: '1' },
            { label: 'replies', value: '0' },
            { label: 'words', value: '3' },
          ],
        },
      ],
    });
    await given.instructor
      .put(sheetOf)
      .send({ ...aSheet, typedMark: '8' })
      .expect(200);
    expect((await rows())[1]).toMatchObject({ needsYou: false, mark: { state: 'drafted', groupMark: '8' } });
    server.clock.pass({ minutes: 5 });
    await write('noor');
    expect((await rows())[1]).toMatchObject({ needsYou: true });
    expect((await given.instructor.get(sheetOf)).body).toMatchObject({ isStale: true });
  });

  it('gives a wiki’s group one mark once its time is over', async () => {
    const log = await released(given, { kind: 'wiki', title: `Log ${count}` });
    const copy = await copyOf(student('noor'), given.course.id, `Log ${count}`);
    const page = sure(
      ((await student('noor').get(`/api/copies/${copy}/wiki`)).body as { pages: { id: string }[] }).pages[0],
    ).id;
    await student('noor')
      .put(`/api/copies/${copy}/wiki/pages/${page}`)
      .send({ title: 'Log', text: aText('Day 1'), basedOn: 1 })
      .expect(200);
    const first = async () =>
      sure(
        (
          (await given.instructor.get(`/api/releases/${sure(log.release).id}/desk`).expect(200))
            .body as DeskView
        ).rows[0],
      );
    expect(await first()).toMatchObject({
      unit: 'group',
      work: { by: 'Noor', isComplete: false },
      needsYou: false,
    });
    server.clock.set('2026-11-12T17:01:00Z');
    expect(await first()).toMatchObject({ needsYou: true });
    await given.instructor
      .put(`/api/copies/${copy}/marks/group`)
      .send({ ...aSheet, typedMark: '30' })
      .expect(200);
    await given.instructor.post(`/api/copies/${copy}/marks/group/release`).send({ version: 1 }).expect(200);
    const mark = (await given.instructor.get(`/api/copies/${copy}/marks/group`).expect(200)).body as MarkView;
    expect(mark.members.map((each) => [each.member.name, each.mark])).toEqual([
      ['Jorge', '30'],
      ['Noor', '30'],
    ]);
  });

  it('has no desk for what is not marked', async () => {
    const talk = await released(given, { kind: 'discussion', title: `Free ${count}`, points: null });
    await given.instructor.get(`/api/releases/${sure(talk.release).id}/desk`).expect(404);
    const copy = await copyOf(student('noor'), given.course.id, `Free ${count}`);
    await given.instructor
      .get(`/api/copies/${copy}/marks/${sure(given.students.get('noor')).enrolmentId}`)
      .expect(404);
  });
});

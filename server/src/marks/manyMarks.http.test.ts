import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DeskView, MyMarks, ReadyMarks } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, aSheet, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { statementsDuring } from '../test/statements.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copies: { crock: string; carboy: string };
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  activity = await released(given, { title: `Report ${count}` });
  copies = {
    crock: await copyOf(student('noor'), given.course.id, activity.title),
    carboy: await copyOf(student('amina'), given.course.id, activity.title),
  };
});

const student = (name: string) => sure(given.students.get(name)).browser;
const path = (act: string) => `/api/releases/${sure(activity.release).id}/marks/${act}`;
const save = (copyId: string, more: object) =>
  given.instructor
    .put(`/api/copies/${copyId}/marks/group`)
    .send({ ...aSheet, ...more })
    .expect(200);
const ready = async () => (await given.instructor.get(path('ready')).expect(200)).body as ReadyMarks;
const press = (act: string, units: object[], by = given.instructor) => by.post(path(act)).send({ units });
const unit = (copyId: string, version = 1) => ({ copyId, unit: 'group', version });
const marksOf = async (name: string) =>
  ((await student(name).get(`/api/courses/${given.course.id}/my-marks`)).body as MyMarks).marks
    .filter((mark) => mark.title === activity.title)
    .map((mark) => mark.mark);

const countOf = async (act: () => Promise<unknown>) => (await statementsDuring(server, act)).length;

describe('the marks of several groups', () => {
  it('are released with one press, each as it was seen, and taken back with one', async () => {
    await save(copies.crock, { typedMark: '30' });
    await save(copies.carboy, { typedMark: '20' });
    const { toRelease } = await ready();
    expect(toRelease.map(({ who, mark, students, lacks }) => [who.name, mark, students, lacks])).toEqual([
      ['Crock', '30', 2, null],
      ['Carboy', '20', 2, null],
    ]);
    const units = toRelease.map(({ copyId, version }) => unit(copyId, version));
    expect((await press('release', units).expect(200)).body).toEqual({ units: 2, students: 4 });
    expect([await marksOf('noor'), await marksOf('amina')]).toEqual([['30'], ['20']]);
    expect((await ready()).toRelease).toEqual([]);
    expect((await press('recall', units).expect(200)).body).toEqual({ units: 2, students: 4 });
    expect([await marksOf('noor'), await marksOf('amina')]).toEqual([[], []]);
  });

  it('are released all or none: no one is given what was not seen, or is not complete', async () => {
    await save(copies.crock, { typedMark: '30' });
    const { enrolmentId } = sure(given.students.get('amina'));
    const adjustment = { kind: 'excused', reason: '' };
    await save(copies.carboy, { typedMark: '20', adjustments: [{ enrolmentId, adjustment }] });
    expect((await ready()).toRelease.map((each) => each.lacks)).toEqual([
      null,
      "Say why Amina's mark differs.",
    ]);
    const incomplete = await press('release', [unit(copies.crock), unit(copies.carboy)]).expect(422);
    expect(incomplete.body.detail).toBe('Carboy cannot be released yet. No marks were released.');
    await save(copies.crock, { typedMark: '31', version: 1 });
    const stale = await press('release', [unit(copies.crock)]).expect(409);
    expect(stale.body.detail).toBe(
      'Someone changed the mark of Crock while you had this open. Nothing was done. Review the list and try again.',
    );
    expect(await marksOf('noor')).toEqual([]);
  });

  it('are for those who mark', async () => {
    await save(copies.crock, { typedMark: '30' });
    const observer = await aMember(server, given, `olga${count}`, 'observer');
    await press('release', [unit(copies.crock)], observer).expect(403);
    await press('release', [unit(copies.crock)], student('noor')).expect(404);
    await student('noor').get(path('ready')).expect(404);
    const other = await released(given, { title: `Other ${count}` });
    await given.instructor
      .post(`/api/releases/${sure(other.release).id}/marks/release`)
      .send({ units: [unit(copies.crock)] })
      .expect(404);
  });

  it('cost two statements more for each group', async () => {
    await save(copies.crock, { typedMark: '30' });
    await save(copies.carboy, { typedMark: '20' });
    const one = await countOf(() => press('release', [unit(copies.crock)]).expect(200));
    await press('recall', [unit(copies.crock)]).expect(200);
    const two = await countOf(() => press('release', [unit(copies.crock), unit(copies.carboy)]).expect(200));
    expect(two - one).toBeLessThanOrEqual(2);
  });
});

describe('the suggested marks of a discussion', () => {
  it('become drafts with one press, and are no student’s before they are released', async () => {
    activity = await released(given, {
      title: `Talk ${count}`,
      kind: 'discussion',
      points: '10',
      settings: { posts: 1, postWords: 2, replies: 0, replyWords: 0 },
    });
    const copyId = await copyOf(student('noor'), given.course.id, activity.title);
    for (const name of ['noor', 'jorge'])
      await student(name)
        .post(`/api/copies/${copyId}/posts`)
        .send({ id: crypto.randomUUID(), parentId: null, text: aPost })
        .expect(200);
    const { toTake } = await ready();
    expect(toTake.map(({ who, mark }) => [who.name, mark])).toEqual([
      ['Jorge', '10'],
      ['Noor', '10'],
    ]);
    const desk = (await given.instructor.get(`/api/releases/${sure(activity.release).id}/desk`))
      .body as DeskView;
    expect(desk.rows.filter((row) => row.suggested !== null)).toHaveLength(2);
    const units = toTake.map(({ copyId: copy, unit: who, version }) => ({
      copyId: copy,
      unit: who,
      version,
    }));
    expect((await press('take-suggested', units).expect(200)).body).toEqual({ units: 2, students: 2 });
    expect((await ready()).toRelease).toHaveLength(2);
    expect(await marksOf('noor')).toEqual([]);
    await press('take-suggested', units).expect(409); // taken already
  });
});

const aPost = {
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text: 'The brine was cloudy.' }] }],
};

import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { ForeseenMarks, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { draftOf } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aSheet, copyOf, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;
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
  copyId = await copyOf(student('noor'), given.course.id, activity.title);
  await addFile(student('noor'), copyId, 'crock.txt', Buffer.from(`pH ${count}`));
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
  await save({ typedMark: '30' }, 0);
  await give(1);
});

const student = (name: string) => sure(given.students.get(name)).browser;
const marks = () => `/api/copies/${copyId}/marks/group`;
const save = (more: object, version: number) =>
  given.instructor
    .put(marks())
    .send({ ...aSheet, ...more, version })
    .expect(200);
const give = (version: number) => given.instructor.post(`${marks()}/release`).send({ version }).expect(200);
const sheet = async () => (await given.instructor.get(marks()).expect(200)).body as MarkView;
const mine = async (name: string) =>
  (
    (await student(name).get(`/api/courses/${given.course.id}/my-marks`).expect(200)).body as MyMarks
  ).marks.find((mark) => mark.copyId === copyId);
const path = () => `/api/activities/${activity.id}`;
const edit = async (more: Partial<ActivityDraft>) =>
  (
    await given.instructor
      .put(path())
      .send({ ...draftOf(activity), ...more, version: activity.version })
      .expect(200)
  ).body as ActivityView;
const publish = async (more: Partial<ActivityDraft>) => {
  const { version } = await edit(more);
  await given.instructor.post(`${path()}/publish`).send({ version }).expect(200);
};
const foreseen = async (extension: object | null = null) =>
  (
    (await given.instructor.post(`${path()}/marks-foreseen`).send({ extension }).expect(200))
      .body as ForeseenMarks
  ).changes.map(({ member, says }) => `${member.name}: ${says}`);
const book = async () => {
  const { activities, students } = await gradebookOf(given);
  const at = activities.findIndex((each) => each.title === activity.title);
  return {
    column: activities[at],
    cell: sure(students.find((each) => each.name === 'Noor')).cells[at]?.[0],
  };
};
const csv = async () => (await given.instructor.get(`/api/courses/${given.course.id}/gradebook.csv`)).text;

describe('a mark that was given', () => {
  it('stays what it was when the points change, and everyone is told that it changed', async () => {
    await publish({ points: '50' });
    expect(await mine('noor')).toMatchObject({ mark: '30', points: '40' });
    expect(await sheet()).toMatchObject({
      state: 'changed',
      points: '50',
      changes: [
        { member: { name: 'Jorge' }, says: '30 of 40 → 30 of 50' },
        { member: { name: 'Noor' }, says: '30 of 40 → 30 of 50' },
      ],
    });
    expect(await book()).toMatchObject({
      column: { points: '50' },
      cell: { state: 'released', mark: '30', points: '40', isChanged: true },
    });
    expect(await csv()).toContain('30 of 40');
    await give(1);
    expect(await mine('noor')).toMatchObject({ mark: '30', points: '50' });
    expect(await sheet()).toMatchObject({ state: 'released', changes: [] });
  });

  it('is new only to those whom releasing it again changes', async () => {
    const seen = { until: '2027-01-01T00:00:00Z' };
    for (const name of ['noor', 'jorge'])
      await student(name).post(`/api/courses/${given.course.id}/my-marks/seen`).send(seen).expect(200);
    server.clock.set('2026-11-11T10:00:00Z');
    const jorge = sure(given.students.get('jorge')).enrolmentId;
    const adjustment = { kind: 'adjusted', by: '2', reason: 'Ran the control' };
    await save({ typedMark: '30', adjustments: [{ enrolmentId: jorge, adjustment }] }, 1);
    expect((await sheet()).changes.map((each) => each.says)).toEqual(['30 of 40 → 32 of 40']);
    await give(2);
    expect([(await mine('noor'))?.isNew, (await mine('jorge'))?.isNew]).toEqual([false, true]);
    expect((await mine('noor'))?.releasedAt).toBe('2026-11-10T10:00:00.000Z');
    expect((await sheet()).history[0]).toMatchObject({ what: 'Released to 1 student' });
  });

  it('goes with its activity when that is withdrawn, for students, and is told to staff', async () => {
    await given.instructor.post(`${path()}/withdraw`).expect(200);
    expect(await mine('noor')).toBeUndefined();
    expect(await book()).toMatchObject({
      column: { isWithdrawn: true },
      cell: { state: 'released', mark: '30' },
    });
    expect(await csv()).not.toContain(activity.title);
    const refused = await given.instructor.post(`${marks()}/release`).send({ version: 1 }).expect(409);
    expect(refused.body.detail).toMatch(/is withdrawn, so students cannot see its marks/);
  });
});

describe('a marker’s own sheet', () => {
  it('touches nothing that others read, keep or release: the agreed one is what counts', async () => {
    const seen = async () => ({
      sheet: await sheet(),
      book: await book(),
      csv: await csv(),
      mine: await mine('noor'),
    });
    const before = await seen();
    const ofMarker = (id: string, enrolmentId: string | null) =>
      server.rows(
        `INSERT INTO "mark" ("id", "copyId", "enrolmentId", "markerId", "typedMark", "version", "updatedAt")
         SELECT '${id}', '${copyId}', ${enrolmentId === null ? 'NULL' : `'${enrolmentId}'`}, "personId", 7, 9, now()
           FROM "account" WHERE "addressKey" = 'ilse.marrow@quillmere.example'`,
      );
    await ofMarker(randomUUID(), null);
    await ofMarker(randomUUID(), sure(given.students.get('noor')).enrolmentId);
    expect(await seen()).toEqual(before);
    await save({ typedMark: '31' }, 1);
    await give(2);
    expect(await mine('noor')).toMatchObject({ mark: '31' });
    // One of a marker's own for each thing that is marked, as of the agreed one.
    await expect(ofMarker(randomUUID(), null)).rejects.toThrow('mark_of_group_by_marker');
  });
});

describe('before an activity is changed', () => {
  it('tells whose marks it touches, and by how much, and changes nothing', async () => {
    expect(await foreseen()).toEqual([]);
    await edit({ points: '50', title: 'Another name' });
    expect(await foreseen()).toEqual(['Jorge: 30 of 40 → 30 of 50', 'Noor: 30 of 40 → 30 of 50']);
    expect(await sheet()).toMatchObject({ state: 'released', changes: [] });
  });

  it('tells what another date for all, or for one group, does to what was handed in', async () => {
    await edit({ schedule: { opens: null, due: '2026-11-09T10:00:00.000Z', closes: null } });
    expect(await foreseen()).toEqual(['Jorge: 30 of 40 → 26 of 40', 'Noor: 30 of 40 → 26 of 40']);
    const groupId = sure(given.board.groups[0]).id;
    expect(await foreseen({ groupId, due: '2026-11-08T10:00:00.000Z' })).toEqual([
      'Jorge: 30 of 40 → 22 of 40',
      'Noor: 30 of 40 → 22 of 40',
    ]);
    expect(
      await foreseen({ groupId: sure(given.board.groups[1]).id, due: '2026-11-08T10:00:00.000Z' }),
    ).toEqual([]);
  });

  it('tells students nothing', async () => {
    await student('noor').post(`${path()}/marks-foreseen`).send({ extension: null }).expect(404);
  });
});

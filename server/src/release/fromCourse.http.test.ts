import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ActivityView, ManyChanged } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment, attachedTo, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let last: CourseForTests;
let next: string;

beforeAll(async () => {
  server = await startTestServer();
  last = await aCourse(server);
  next = ((await last.instructor.post('/api/courses').send({ code: 'FER 221', title: 'Next', term: '', timeZone: 'UTC' }).expect(200)).body as { id: string }).id; // prettier-ignore
});
afterAll(() => server.stop());

const copy = (activityIds: readonly string[], keepsDates = true, who = last.instructor, courseId = next) =>
  who.post(`/api/courses/${courseId}/activities/from-course`).send({ activityIds, keepsDates });
const list = async (courseId: string) =>
  ((await last.instructor.get(`/api/courses/${courseId}/activities`).expect(200)).body as { activities: ActivityView[] }).activities; // prettier-ignore
const line = (groupIds: readonly string[]) => ({ type: 'doc', content: [{ type: 'onlyFor', attrs: { groupIds }, content: [{ type: 'paragraph', content: [{ type: 'text', text: 'You changed the salt.' }] }] }] }); // prettier-ignore

describe('activities of another course', () => {
  it('become drafts with all that is written in them, in the order that was asked', async () => {
    const crock = sure(last.board.groups[0]).id;
    const schedule = { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null };
    const report = await released(last, { title: 'Report', schedule, brief: line([crock]) });
    const draft = (await last.instructor.post(`/api/courses/${last.course.id}/activities`).send(anAssignment({ title: 'Memo' })).expect(200)).body as ActivityView; // prettier-ignore
    const { activities, deleted } = (await copy([draft.id, report.id]).expect(200)).body as ManyChanged;
    expect(activities.map(({ title, release }) => [title, release])).toEqual([['Memo', null], ['Report', null]]); // prettier-ignore
    expect(deleted).toEqual([]);
    const copied = sure(activities[1]);
    const { id: _id, version: _version, updatedAt: _at, ...rest } = report;
    // Its groups are not in this course: the line is no one's yet.
    expect(copied).toMatchObject({ ...rest, brief: line([]), release: null, extensions: [] });
    expect((await list(next)).map(({ title }) => title).toSorted()).toEqual(['Memo', 'Report']);
    expect(await list(last.course.id)).toHaveLength(2);
    const [undated] = ((await copy([report.id], false).expect(200)).body as ManyChanged).activities;
    expect(undated?.schedule).toEqual({ opens: null, due: null, closes: null });
  });

  it('bring their files, which stay when the original goes', async () => {
    const { live: activity, fileId } = await attachedTo(last, 'log.txt', 'pH 4');
    const [copied] = ((await copy([activity.id]).expect(200)).body as ManyChanged).activities;
    expect(copied?.files.map(({ id }) => id)).toEqual([fileId]);
    await last.instructor.get(`/api/activities/${copied?.id}/files/${fileId}`).expect(200);
  });

  it('are all copied or none, and only by someone who releases in both courses', async () => {
    const mine = sure((await list(last.course.id))[0]).id;
    const other = await aCourse(server, { email: 'rui@other.example', school: 'other.example' });
    const theirs = (await released(other, { title: 'Theirs' })).id;
    const before = (await list(next)).length;
    await copy([mine, theirs]).expect(404);
    await copy([mine, '01920000-0000-7000-8000-000000000001']).expect(404);
    expect(await list(next)).toHaveLength(before);
    await copy([mine], true, other.instructor, other.course.id).expect(404);
    await copy([mine], true, sure(last.students.get('noor')).browser, last.course.id).expect(404);
    const assistant = await aMember(server, last, 'tomas', 'assistant');
    await copy([mine], true, assistant, last.course.id).expect(403);
  });
});

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ChangeCourse, CourseList, CourseSettings } from '@jigsaw/contract/course';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let tomas: Browser;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
  tomas = await aMember(server, given, 'tomas', 'assistant');
});
afterAll(() => server.stop());

const settings = async (browser: Browser = given.instructor) =>
  (await browser.get(`/api/courses/${given.course.id}/settings`).expect(200)).body as CourseSettings;
const change = (more: Partial<ChangeCourse>, version: number, browser: Browser = given.instructor) => {
  const { code, title, term, timeZone } = given.course;
  return browser
    .put(`/api/courses/${given.course.id}`)
    .send({ code, title, term, timeZone, ...more, version });
};

describe('the settings of a course', () => {
  it('say how many groups each of the staff leads', async () => {
    const before = await settings(tomas);
    expect(before).toMatchObject({ assistantsSee: 'all', groups: 2 });
    const assistant = sure(before.staff.find((each) => each.role === 'assistant'));
    expect(assistant.leads).toBe(0);
    const leads = [{ groupId: sure(given.board.groups[0]).id, enrolmentIds: [assistant.enrolmentId] }];
    await given.instructor.put(`/api/sets/${given.set.id}/leads`).send({ leads }).expect(200);
    const after = (await settings()).staff;
    expect(after.map(({ role, leads: count }) => [role, count])).toEqual([
      ['instructor', 0],
      ['assistant', 1],
    ]);
    await given.instructor.post(`/api/sets/${given.set.id}/archive`).send({ isArchived: true }).expect(200);
    expect(await settings()).toMatchObject({ groups: 0, staff: [{ leads: 0 }, { leads: 0 }] });
    await given.instructor.post(`/api/sets/${given.set.id}/archive`).send({ isArchived: false }).expect(200);
  });

  it('rename it for everyone, and are not written over unseen', async () => {
    const { version } = await settings();
    await change({ title: 'Fermentation', timeZone: 'Asia/Tokyo' }, version).expect(200);
    const noor = sure(given.students.get('noor')).browser;
    const { courses } = (await noor.get('/api/courses').expect(200)).body as CourseList;
    expect(courses[0]).toMatchObject({ title: 'Fermentation', timeZone: 'Asia/Tokyo' });
    const stale = await change({ title: 'Brewing' }, version).expect(409);
    expect((stale.body as { current: ChangeCourse }).current.title).toBe('Fermentation');
    expect((await settings()).title).toBe('Fermentation');
    await change({ title: '' }, version + 1).expect(422);
    await change({ timeZone: 'Mars/Base' }, version + 1).expect(422);
  });

  it('are the instructor’s to change, the staff’s to read, and no one else’s', async () => {
    const { version } = await settings();
    const noor = sure(given.students.get('noor')).browser;
    expect((await change({}, version, tomas)).status).toBe(403);
    await change({}, version, noor).expect(404);
    await noor.get(`/api/courses/${given.course.id}/settings`).expect(404);
  });
});

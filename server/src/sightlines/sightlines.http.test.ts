import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { AudienceView } from '@jigsaw/contract/audiences';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
  server.clock.set('2026-10-20T10:00:00Z');
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino in none
});
afterAll(() => server.stop());

const read = async (by: Browser = given.instructor) =>
  (await by.get(`/api/courses/${given.course.id}/sightlines`).expect(200)).body as SightlinesView;
const of = (name: string) => sure(given.students.get(name)).enrolmentId;
const groupId = (name: string) => sure(given.board.groups.find((group) => group.name === name)).id;

describe('the sightlines of a course', () => {
  it('hold all that decides who sees what: releases with their copies, exceptions, audiences and drafts', async () => {
    const schedule = { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-20T17:00:00.000Z' };
    const report = await released(given, { title: 'Report', schedule });
    const time = { due: '2026-11-14T17:00:00.000Z', closes: null };
    await given.instructor.put(`/api/activities/${report.id}/extensions/${groupId('Crock')}`).send({ ...time, reason: 'ill' }).expect(200); // prettier-ignore
    await given.instructor.put(`/api/activities/${report.id}/student-extensions/${of('amina')}`).send({ ...time, reason: 'ill' }).expect(200); // prettier-ignore
    const saved = (await given.instructor.post(`/api/courses/${given.course.id}/audiences`).send({ name: 'Dairy', include: [{ kind: 'group', setId: given.set.id, groupId: groupId('Carboy') }], exclude: [{ kind: 'person', enrolmentId: of('kofi') }] }).expect(200)).body as AudienceView; // prettier-ignore
    await released(given, { title: 'Memo' }, { to: { include: [{ kind: 'audience', audienceId: saved.id }], exclude: [] } }); // prettier-ignore
    await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anAssignment({ title: 'Draft' })).expect(200); // prettier-ignore
    const view = await read();
    expect(view.activities.map(({ title, release }) => [title, release?.state ?? null])).toEqual([['Report', 'live'], ['Memo', 'live'], ['Draft', null]]); // prettier-ignore
    const [first, memo] = view.activities;
    expect(first).toMatchObject({ schedule, release: { ownTime: [{ enrolmentId: of('amina'), ...time }] } });
    const copies = first?.release?.copies.map((copy) => [copy.groupId, copy.extension]);
    expect(copies).toHaveLength(2);
    expect(copies).toEqual(expect.arrayContaining([[groupId('Crock'), time], [groupId('Carboy'), null]])); // prettier-ignore
    expect(memo?.release?.audience.include).toEqual([{ kind: 'audience', audienceId: saved.id, name: 'Dairy', people: [of('amina')], groups: [{ groupId: groupId('Carboy'), setId: given.set.id }] }]); // prettier-ignore
    expect(view.sets.map(({ name, groups }) => [name, groups.map((group) => group.name)])).toEqual([[given.set.name, ['Crock', 'Carboy']]]); // prettier-ignore
    expect(view.people.filter(({ role }) => role === 'student')).toHaveLength(5);
  });

  it('keep where people sat before, with the moments, and who left the course', async () => {
    const place = (from: string | null, to: string | null) => given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves: [{ student: of('nino'), from, to }] }).expect(200); // prettier-ignore
    server.clock.set('2026-10-21T10:00:00Z');
    await place(null, groupId('Crock'));
    server.clock.set('2026-10-22T10:00:00Z');
    await place(groupId('Crock'), groupId('Carboy'));
    const { seats } = await read();
    expect(seats.filter(({ enrolmentId }) => enrolmentId === of('nino')).map((seat) => [seat.groupId, seat.from, seat.until])).toEqual([
      [groupId('Crock'), '2026-10-21T10:00:00.000Z', '2026-10-22T10:00:00.000Z'],
      [groupId('Carboy'), '2026-10-22T10:00:00.000Z', null],
    ]); // prettier-ignore
    await given.instructor.post(`/api/courses/${given.course.id}/roster/changes`).send({ act: 'drop', enrolmentIds: [of('nino')] }).expect(200); // prettier-ignore
    const gone = sure((await read()).people.find(({ enrolmentId }) => enrolmentId === of('nino')));
    expect(gone.leftAt).not.toBeNull();
  });

  it('are for those who release alone', async () => {
    const path = `/api/courses/${given.course.id}/sightlines`;
    for (const role of ['assistant', 'observer'] as const)
      await (await aMember(server, given, `a${role}`, role)).get(path).expect(403);
    await sure(given.students.get('noor')).browser.get(path).expect(404);
    const other = await aCourse(server, { email: 'rui@other.example', school: 'other.example' });
    await other.instructor.get(path).expect(404);
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { WorkView } from '@jigsaw/contract/handin';
import type { MarkView } from '@jigsaw/contract/marks';
import type { ActivityList, ActivityView } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aMember, crockIsLedBy, gradebookOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let observer: Browser;
let leadsCrock: Browser;
let leadsNone: Browser;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  observer = await aMember(server, given, 'olga', 'observer');
  leadsCrock = await aMember(server, given, 'tomas', 'assistant');
  leadsNone = await aMember(server, given, 'bea', 'assistant');
  await crockIsLedBy(given, 'Tomas');
});
afterAll(() => server.stop());
beforeEach(() => server.clock.set('2026-11-10T10:00:00Z'));

const due = '2026-11-12T17:00:00.000Z';
const closes = '2026-11-13T17:00:00.000Z';
const longer = '2026-11-16T17:00:00.000Z';
const grant = { due: longer, reason: 'She was in hospital' };
const named = (name: string) => sure(given.students.get(name));
const student = (name: string): Browser => named(name).browser;
const pathOf = (id: string, name: string) =>
  `/api/activities/${id}/student-extensions/${named(name).enrolmentId}`;
const extend = (id: string, name: string, more: Record<string, unknown> = {}) =>
  given.instructor.put(pathOf(id, name)).send({ ...grant, ...more });
const headOf = async (name: string, title: string) => {
  const { copyId } = await itemOf(student(name), given.course.id, title);
  return (await student(name).get(`/api/copies/${copyId}`).expect(200)).body as CopyHead;
};
const withDates = (title: string, more: Record<string, unknown> = {}) =>
  released(given, { title, schedule: { opens: null, due, closes }, ...more });

describe('longer for one student', () => {
  it('moves their date and closing, and tells no one in their group', async () => {
    const { id } = await withDates('Own time');
    const view = (await extend(id, 'noor').expect(200)).body as ActivityView;
    expect(view.studentExtensions).toMatchObject([{ name: 'Noor', closes: null, ...grant }]);
    expect(view.extensions).toEqual([]);
    const [noors, jorges] = [await headOf('noor', 'Own time'), await headOf('jorge', 'Own time')];
    expect(noors.extension).toEqual({ ...grant, isOwn: true });
    expect([noors.schedule.due, noors.schedule.closes]).toEqual([longer, longer]);
    expect([jorges.schedule.due, jorges.extension]).toEqual([due, null]);
    expect((await itemOf(student('noor'), given.course.id, 'Own time')).isExtended).toBe(true);
    expect((await itemOf(student('jorge'), given.course.id, 'Own time')).isExtended).toBe(false);
    for (const path of ['room', 'due', 'rooms']) {
      const { text } = await student('jorge').get(`/api/courses/${given.course.id}/${path}`);
      expect(text).not.toContain('hospital');
      expect(text).not.toContain(longer);
    }
    server.clock.set('2026-11-14T10:00:00Z');
    expect((await headOf('noor', 'Own time')).access).toBe('open');
    expect((await headOf('jorge', 'Own time')).access).toBe('read-only');

    await given.instructor.delete(pathOf(id, 'noor')).expect(200);
    expect((await headOf('noor', 'Own time')).access).toBe('read-only');
  });

  it('and their group has longer too: the later of both holds', async () => {
    const { id } = await withDates('Both');
    const crock = sure(given.board.groups[0]).id;
    await given.instructor
      .put(`/api/activities/${id}/extensions/${crock}`)
      .send({ due: '2026-11-18T17:00:00.000Z', reason: 'Their crock cracked' })
      .expect(200);
    await extend(id, 'noor').expect(200);
    expect((await headOf('noor', 'Both')).extension).toMatchObject({ isOwn: false });
    await extend(id, 'noor', { due: '2026-11-19T17:00:00.000Z' }).expect(200);
    expect((await headOf('noor', 'Both')).extension).toMatchObject({ isOwn: true });
    expect((await headOf('jorge', 'Both')).schedule.due).toBe('2026-11-18T17:00:00.000Z');
  });

  it('what the group hands in late is in time for them alone', async () => {
    const { id } = await withDates('Late together', { schedule: { opens: null, due, closes: null } });
    await extend(id, 'noor').expect(200);
    server.clock.set('2026-11-14T10:00:00Z');
    const { copyId } = await itemOf(student('jorge'), given.course.id, 'Late together');
    await addFile(student('jorge'), copyId, 'late.txt', Buffer.from('pH'));
    await student('jorge').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const lateFor = async (name: string) =>
      sure(((await student(name).get(`/api/copies/${copyId}/work`)).body as WorkView).handIns[0]).late;
    expect((await lateFor('jorge')).deduction).toBe('8');
    expect((await lateFor('noor')).deduction).toBe('0');

    const path = `/api/copies/${copyId}/marks/group`;
    const sheet = {
      typedMark: '30',
      overrideReason: '',
      picks: {},
      feedback: '',
      adjustments: [],
      version: 0,
    };
    await given.instructor.put(path).send(sheet).expect(200);
    const view = (await given.instructor.get(path).expect(200)).body as MarkView;
    expect(view.ownLate).toEqual([{ enrolmentId: named('noor').enrolmentId, minutes: 0, deduction: '0' }]);
    expect(view.members.map(({ member, mark }) => `${member.name} ${mark ?? ''}`)).toEqual([
      'Jorge 22',
      'Noor 30',
    ]);
    await given.instructor.post(`${path}/release`).send({ version: view.version }).expect(200);

    // A mark that is given stays; taking the time back is shown as what would differ.
    const foreseen = await given.instructor
      .post(`/api/activities/${id}/marks-foreseen`)
      .send({ extension: { enrolmentId: named('noor').enrolmentId, due: null } })
      .expect(200);
    expect(foreseen.body.changes).toMatchObject([
      { member: { name: 'Noor' }, says: expect.stringContaining('30 of 40 → 22 of 40') },
    ]);
    await given.instructor.delete(pathOf(id, 'noor')).expect(200);
    const after = (await given.instructor.get(path).expect(200)).body as MarkView;
    expect(after.changes).toMatchObject([{ member: { name: 'Noor' } }]);
  });

  it('counts posts in a discussion until their own date, and they miss nothing before it', async () => {
    const { id } = await released(given, {
      kind: 'discussion',
      title: 'Critique',
      points: '10',
      rubric: null,
      schedule: { opens: null, due, closes: null },
      settings: { posts: 1, replies: 0, postWords: 1 },
    });
    await extend(id, 'noor').expect(200);
    server.clock.set('2026-11-14T10:00:00Z');
    const { activities, students } = await gradebookOf(given);
    const at = activities.findIndex(({ title }) => title === 'Critique');
    const stateOf = (name: string) => students.find((row) => row.name === name)?.cells[at]?.[0]?.state;
    expect([stateOf('Noor'), stateOf('Jorge')]).toEqual(['open', 'missing']);
  });

  it('is for students of the course, with a reason, and staff who answer for them read it', async () => {
    const { id } = await withDates('Who may');
    await extend(id, 'noor', { reason: '  ' }).expect(422);
    const nobody = `/api/activities/${id}/student-extensions/01920000-0000-7000-8000-00000000abcd`;
    await given.instructor.put(nobody).send(grant).expect(404);
    await student('noor').put(pathOf(id, 'noor')).send(grant).expect(404);
    await extend(id, 'noor').expect(200);
    const listFor = async (who: Browser) => {
      const { activities } = (await who.get(`/api/courses/${given.course.id}/activities`).expect(200))
        .body as ActivityList;
      return activities.find((each) => each.id === id)?.studentExtensions.map(({ name }) => name);
    };
    expect(await listFor(given.instructor)).toEqual(['Noor']);
    expect(await listFor(observer)).toEqual([]);
    expect(await listFor(leadsCrock)).toEqual(['Noor']);
    expect(await listFor(leadsNone)).toEqual([]);
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { CheckList } from '@jigsaw/contract/checks';
import type { CheckCount } from '@jigsaw/contract/track';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { someGroups } from '@jigsaw/core/release';
import { aCourse, aMember, anAssignment, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { follow } from '../test/following.js';
import { setActs } from '../test/setActs.js';

let server: TestServer;
let given: CourseForTests;
let path = '';

beforeAll(async () => {
  server = await startTestServer();
  server.clock.set('2026-10-20T10:00:00Z');
});
afterAll(() => server.stop());
let count = 0;
beforeEach(async () => {
  count += 1;
  const school = `k${count}.example`;
  given = await aCourse(server, { students: 5, groups: 2, email: `ilse@${school}`, school }); // Crock: noor, jorge; Carboy: amina, kofi; nino in none
  path = `/api/courses/${given.course.id}/checks`;
});

const list = async (by: Browser = given.instructor) => (await by.get(path).expect(200)).body as CheckList;
const dismiss = (id: string, reason = 'Nino joins on Monday') => given.instructor.post(`${path}/dismissals`).send({ id, reason }); // prettier-ignore
const groupId = (name: string) => sure(given.board.groups.find((group) => group.name === name)).id;

describe('what is to be checked in a course', () => {
  it('is found in what was released and written, with names, and gone when it is mended', async () => {
    const crock = someGroups(given.set.id, [groupId('Crock')]);
    const due = '2026-11-12T17:00:00.000Z';
    const schedule = { opens: null, due, closes: null };
    const report = await released(given, { title: 'Report', schedule });
    const brief = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Dear {group name},' }] }] }; // prettier-ignore
    await released(given, { title: 'Letter', schedule: { ...schedule, due: '2026-11-12T17:30:00.000Z' }, brief }, { to: crock }); // prettier-ignore
    const { checks, activities, people } = await list();
    const idOf = (title: string) => sure(activities.find((each) => each.title === title)).activityId;
    const { enrolmentId } = sure(given.students.get('nino'));
    expect(checks.map(({ found }) => found)).toEqual([
      {
        code: 'unplaced',
        setId: given.set.id,
        students: { count: 1, named: [enrolmentId] },
        activityIds: [report.id],
      },
      { code: 'due-together', activityIds: [idOf('Report'), idOf('Letter')], due: [due, '2026-11-12T17:30:00.000Z'], students: { count: 2, named: expect.arrayContaining([sure(given.students.get('noor')).enrolmentId]) as unknown }, inGroups: [groupId('Crock')] }, // prettier-ignore
      { code: 'typed-placeholder', activityId: idOf('Letter'), words: ['{group name}'] },
    ]);
    expect(people.map(({ name }) => name)).toContain('Nino');
    await given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves: [{ student: enrolmentId, from: null, to: groupId('Carboy') }] }).expect(200); // prettier-ignore
    const after = (await list()).checks.map(({ found }) => found.code);
    expect(after).toEqual(['due-together', 'typed-placeholder']);
  });

  it('is counted for the track, and the count is never older than what was done or than the hour', async () => {
    const { instructor, set } = given;
    const nino = sure(given.students.get('nino')).enrolmentId;
    const counted = async () =>
      ((await instructor.get(`${path}/count`).expect(200)).body as CheckCount).toCheck;
    const place = (from: string | null, to: string | null) => instructor.post(`/api/sets/${set.id}/place`).send({ moves: [{ student: nino, from, to }] }).expect(200); // prettier-ignore
    const schedule = { opens: '2026-10-20T12:00:00.000Z', due: '2026-10-21T17:00:00.000Z', closes: null };
    const report = await released(given, { title: 'Report', schedule });
    const early = { due: '2026-10-21T09:00:00.000Z', closes: null, reason: 'Ill' };
    const opensLater = async () => {
      const version = async () =>
        ((await instructor.get(`/api/activities/${report.id}`)).body as ActivityView).version;
      const later = anAssignment({ title: 'Report', schedule: { ...schedule, opens: '2026-10-21T12:00:00.000Z' } }); // prettier-ignore
      await instructor.put(`/api/activities/${report.id}`).send({ ...later, version: await version() }).expect(200); // prettier-ignore
      await instructor.post(`/api/activities/${report.id}/publish`).send({ version: await version() }).expect(200); // prettier-ignore
    };
    const acts: (() => Promise<unknown>)[] = [
      () => released(given, { title: 'Letter', schedule }),
      () => place(null, groupId('Crock')),
      () => place(groupId('Crock'), null),
      () => instructor.put(`/api/activities/${report.id}/extensions/${groupId('Crock')}`).send(early).expect(200), // prettier-ignore
      opensLater,
      async () => dismiss(sure((await list()).checks[0]).id).expect(200),
      async () => instructor.delete(`${path}/dismissals/${sure((await list()).checks.find(({ dismissed }) => dismissed)).id}`).expect(200), // prettier-ignore
      () => Promise.resolve(server.clock.set('2026-10-21T17:00:00.001Z')),
      () => instructor.post(`/api/activities/${report.id}/withdraw`).expect(200),
    ];
    const counts = [await counted()];
    for (const act of acts) {
      await act();
      const now = await counted();
      expect(now).toBe((await list()).checks.filter(({ dismissed }) => dismissed === null).length);
      counts.push(now);
    }
    server.clock.set('2026-10-20T10:00:00Z');
    expect(counts).toEqual([1, 2, 1, 2, 2, 3, 2, 3, 2, 1]);
    const member = await aMember(server, given, 'aide', 'assistant');
    await member.get(`${path}/count`).expect(403);
  });

  it('is dismissed with a reason that other staff read, and comes up again when something of it changes', async () => {
    await released(given, { title: 'Report' });
    const [check] = (await list()).checks;
    const id = sure(check).id;
    const other = await aMember(server, given, 'rui', 'instructor');
    const page = await follow(other, given.course.id);
    const { checks } = (await dismiss(id).expect(200)).body as CheckList;
    expect(checks[0]?.dismissed).toMatchObject({ reason: 'Nino joins on Monday', by: 'Dr. Ilse Marrow' });
    expect(await page.until('check.dismissed')).toContain('check.dismissed');
    page.stop();
    expect((await list(other)).checks[0]?.dismissed?.reason).toBe('Nino joins on Monday');
    await given.instructor.delete(`${path}/dismissals/${id}`).expect(200);
    expect((await list()).checks[0]?.dismissed).toBeNull();
    await dismiss(id).expect(200);
    const never = { opens: null, due: null, closes: null };
    await released(given, { title: 'Another', schedule: never });
    const again = (await list()).checks;
    expect(again).toMatchObject([{ found: { code: 'unplaced' }, dismissed: null }]);
    expect(again[0]?.id).not.toBe(id);
  });

  it('stays dismissed for its students, also when they are in another group by then', async () => {
    const { place, change, idOf } = setActs(() => given);
    await change({ capacity: 5 });
    const both = ['noor', 'jorge'].map((name) => ({ student: idOf(name), from: groupId('Crock'), to: groupId('Carboy') })); // prettier-ignore
    for (const title of ['Report', 'Letter']) await released(given, { title });
    const together = async () => sure((await list()).checks.find(({ found }) => found.code === 'due-together')); // prettier-ignore
    const before = await together();
    await dismiss(before.id, 'They are one piece').expect(200);
    await place(both).expect(200);
    const after = await together();
    expect([before, after].map(({ found }) => 'inGroups' in found && found.inGroups.length)).toEqual([2, 1]);
    expect(after).toMatchObject({ id: before.id, dismissed: { reason: 'They are one piece' } });
  });

  it('is dismissed by one of two who do so at once; the other is told by which reason it was', async () => {
    await released(given, { title: 'Report' });
    const id = sure((await list()).checks[0]).id;
    const rui = await aMember(server, given, 'rui', 'instructor');
    const by = (browser: Browser, reason: string) => browser.post(`${path}/dismissals`).send({ id, reason });
    const answers = await Promise.all([by(given.instructor, 'Nino is ill'), by(rui, 'Nino joins on Monday')]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    const kept = sure(sure((await list()).checks[0]).dismissed);
    const refused = sure(answers.find(({ status }) => status === 409)).body as { detail: string };
    expect(refused.detail).toContain(`${kept.by} has dismissed this meanwhile: ${kept.reason}.`);
    await by(rui, kept.reason).expect(200); // pressed twice
    await given.instructor.delete(`${path}/dismissals/${id}`).expect(200);
    await by(rui, 'Another').expect(200);
  });

  it('stays dismissed when a name changes, and with it the order in which people are read', async () => {
    const jorge = sure(given.students.get('jorge')).enrolmentId;
    const moves = [{ student: jorge, from: groupId('Crock'), to: null }];
    await given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves }).expect(200);
    await released(given, { title: 'Report' });
    const before = sure((await list()).checks[0]);
    expect(before.found).toMatchObject({ code: 'unplaced', students: { count: 2 } });
    await dismiss(before.id).expect(200);
    const edits = [{ enrolmentId: jorge, from: { name: 'Jorge' }, to: { name: 'Zorge' } }];
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'edit', edits })
      .expect(200);
    const { checks, people } = await list();
    expect(people.map(({ name }) => name)).toEqual(['Nino', 'Zorge']);
    expect(checks[0]).toMatchObject({ id: before.id, dismissed: { reason: 'Nino joins on Monday' } });
  });

  it('is not dismissed without a reason, or when it is settled by now', async () => {
    await released(given, { title: 'Report' });
    const [check] = (await list()).checks;
    const empty = await dismiss(sure(check).id, '  ').expect(422);
    expect((empty.body as { detail: string }).detail).toBe('Say why it may stay as it is.');
    const gone = await dismiss('0'.repeat(32)).expect(409);
    expect((gone.body as { detail: string }).detail).toContain('settled already');
    expect(await server.rows(`SELECT 1 FROM "check_dismissal" WHERE "courseId" = '${given.course.id}'`)).toEqual([]); // prettier-ignore
    await given.instructor.delete(`${path}/dismissals/x`).expect(404);
  });

  it('is for those who release alone, and tells no one that it is there', async () => {
    await released(given, { title: 'Report' });
    for (const role of ['assistant', 'observer'] as const)
      await (await aMember(server, given, `a${role}`, role)).get(path).expect(403);
    const noor = sure(given.students.get('noor')).browser;
    await noor.get(path).expect(404);
    const [check] = (await list()).checks;
    await noor
      .post(`${path}/dismissals`)
      .send({ id: sure(check).id, reason: 'x' })
      .expect(404);
  });

  it('knows of groups in which no one can do what is asked', async () => {
    const draft = { ...anAssignment({ title: 'Talk' }), kind: 'discussion', points: null, settings: { posts: 1, replies: 2, markFor: 'student' } }; // prettier-ignore
    const { id, version } = (await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(draft).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor.post(`/api/activities/${id}/release`).send({ to: { include: [{ kind: 'set', setId: given.set.id }], exclude: [] }, mode: 'own', outsiders: 'hidden', goesLiveAt: null, version }).expect(200); // prettier-ignore
    const move = { student: sure(given.students.get('jorge')).enrolmentId, from: groupId('Crock'), to: groupId('Carboy') }; // prettier-ignore
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [move] })
      .expect(200);
    expect((await list()).checks.map(({ found }) => found)).toContainEqual({ code: 'cannot-be-done', activityId: id, why: 'Each student has to reply, and in a group of one there is no one to reply to.', groupIds: [groupId('Crock')] }); // prettier-ignore
  });
});

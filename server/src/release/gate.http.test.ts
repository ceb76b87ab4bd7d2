import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { AudienceView } from '@jigsaw/contract/audiences';
import type { ReleaseRequest } from '@jigsaw/contract/release';
import type { CourseId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import { decide, someGroups, theClass, wholeSet } from '@jigsaw/core/release';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { aCourse, aMember, aSecondSet, crockIsLedBy, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { evaluator } from './evaluate.js';
import { copyFactsOf, factsOf } from './facts.js';
import { Gate } from './gate.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  await aMember(server, given, 'tomas', 'assistant');
  await aMember(server, given, 'bea', 'assistant');
  await aMember(server, given, 'olga', 'observer');
  await crockIsLedBy(given, 'Tomas');
  const { set: panels, groups } = await aSecondSet(given);
  const { set, board, instructor, students } = given;
  const crock = sure(board.groups[0]).id;
  const { id: audienceId } = (
    await instructor
      .post(`/api/courses/${given.course.id}/audiences`)
      .send({
        name: 'Crock and a panel, without Jorge',
        include: [
          { kind: 'group', setId: set.id, groupId: crock },
          { kind: 'group', setId: panels.id, groupId: sure(groups[0]).id },
        ],
        exclude: [{ kind: 'person', enrolmentId: sure(students.get('jorge')).enrolmentId }],
      })
      .expect(200)
  ).body as AudienceView;
  const saved = { include: [{ kind: 'audience' as const, audienceId }], exclude: [] };
  const to: [string, Partial<ReleaseRequest>][] = [
    ['saved', { to: saved }],
    ['saved along', { to: saved, mode: 'read-along', outsiders: 'listed' }],
    ['saved all', { to: saved, mode: 'common' }],
    ['own', {}],
    ['along', { mode: 'read-along' }],
    ['all', { to: theClass, mode: 'common' }],
    ['listed', { to: someGroups(set.id, [crock]), outsiders: 'listed' }],
    ['hidden', { to: someGroups(panels.id, [sure(groups[0]).id]) }],
    ['later', { to: wholeSet(panels.id), goesLiveAt: '2026-11-20T10:00:00.000Z', outsiders: 'listed' }],
    ['without', { to: { ...wholeSet(set.id), exclude: [sure(students.get('noor')).enrolmentId] }, outsiders: 'listed' }], // prettier-ignore
    ['gone', { outsiders: 'listed' }],
    ['soon', { outsiders: 'listed', mode: 'read-along' }],
  ];
  for (const [title, how] of to) {
    const schedule = { opens: title === 'soon' ? '2026-11-11T10:00:00.000Z' : null, due: '2026-11-12T17:00:00.000Z', closes: title === 'own' ? '2026-11-13T17:00:00.000Z' : null }; // prettier-ignore
    const { id } = await released(given, { kind: 'discussion', title, settings: {}, schedule }, how);
    if (title === 'own')
      await instructor
        .put(`/api/activities/${id}/student-extensions/${sure(students.get('noor')).enrolmentId}`)
        .send({ due: '2026-11-29T17:00:00.000Z', reason: 'She was ill' })
        .expect(200);
    if (title === 'gone') await instructor.post(`/api/activities/${id}/withdraw`).expect(200);
  }
});
afterAll(() => server.stop());

it('lets everyone in by the whole course exactly where the decision lets them in, copy by copy', async () => {
  const gate = server.app.get(Gate, { strict: false });
  const viewers = server.app.get(Viewers, { strict: false });
  const { manager } = server.app.get(DataSource);
  const courseId = given.course.id as CourseId;
  const [releases, activities, copies, extensions, own] = [
    await manager.findBy(ReleaseRow, { courseId }),
    await manager.find(ActivityRow),
    await manager.find(CopyRow),
    await manager.find(ExtensionRow),
    await manager.find(StudentExtensionRow),
  ];
  const { audienceNow } = await evaluator(manager, courseId, releases.map((release) => release.audience)); // prettier-ignore
  const people = (await server.rows(`SELECT "id", "email" FROM "person"`)) as { id: string; email: string }[];
  const seen = { entered: 0, listed: 0, hidden: 0 };
  for (const { id } of people) {
    const person = { id, isProven: true } as unknown as SignedIn;
    const viewer = await viewers.find(person, courseId);
    for (const day of ['2026-11-10', '2026-11-12', '2026-11-25']) {
      server.clock.set(`${day}T12:00:00Z`);
      const now = server.clock.now().getTime();
      const expected = copies.map((copy) => {
        const release = sure(releases.find((each) => each.id === copy.releaseId));
        const activity = sure(activities.find((each) => each.id === release.activityId));
        const extension = extensions.find((each) => each.activityId === activity.id && each.groupId === copy.groupId) ?? null; // prettier-ignore
        const ownTime = keyedBy(own.filter((each) => each.activityId === activity.id), (each) => each.enrolmentId); // prettier-ignore
        return { copy, access: decide(viewer, factsOf(release, activity, audienceNow, ownTime), copyFactsOf(copy, extension), now).access }; // prettier-ignore
      });
      const may = ({ access }: { access: string }) => access === 'open' || access === 'read-only';
      const { entered, listed } = await gate.enterAll(person, courseId);
      expect(entered.map(({ copy, decision }) => `${copy.id} ${decision.access}`).toSorted()).toEqual(expected.filter(may).map(({ copy, access }) => `${copy.id} ${access}`).toSorted()); // prettier-ignore
      const known = new Set(
        expected.filter(({ access }) => access === 'listed').map(({ copy }) => copy.releaseId),
      );
      expect(listed.map(({ release }) => release.id).toSorted()).toEqual([...known].toSorted());
      const whole = await gate.enterReleases(sure(viewer ?? undefined));
      if (whole) {
        const open = expected.filter(may);
        expect(whole.map(({ release }) => release.id).toSorted()).toEqual([...new Set(open.map(({ copy }) => copy.releaseId))].toSorted()); // prettier-ignore
        expect(open).toHaveLength(copies.filter((copy) => whole.some(({ release }) => release.id === copy.releaseId)).length); // prettier-ignore
      }
      seen.entered += entered.length;
      seen.listed += listed.length;
      seen.hidden += copies.length - entered.length;
    }
  }
  expect(Object.values(seen).every((count) => count > 10)).toBe(true);
});

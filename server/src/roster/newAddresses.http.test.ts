import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { CourseList } from '@jigsaw/contract/course';
import type { ImportPreview, ImportResult } from '@jigsaw/contract/import';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, base64 } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());

const at = (path: string) => `/api/courses/${given.course.id}/roster${path}`;
const roster = async () => (await given.instructor.get(at('')).expect(200)).body as RosterView;
const fileOf = (...lines: string[]) => ({
  kind: 'file',
  fileName: 'class.csv',
  contentBase64: base64(['E-mail,Name,Number', ...lines].join('\n')),
});
const preview = async (source: object, newAddresses: number[] = []) =>
  (await given.instructor.post(at('/preview')).send({ source, meanings: null, newAddresses }).expect(200))
    .body as ImportPreview;
const importPeople = async (source: object, seen: ImportPreview, newAddresses: number[] = []) =>
  given.instructor.post(at('/import')).send({
    source,
    newAddresses,
    meanings: seen.columns.map((column) => column.meaning),
    leaveOutLines: [],
    fingerprint: seen.fingerprint,
  });

describe('a class whose addresses change', () => {
  it('stays the same people with their places and work; undone, they have their old addresses', async () => {
    const names = ['noor', 'jorge', 'amina', 'kofi', 'nino'];
    const numbered = fileOf(...names.map((name, n) => `${name}@quillmere.example,${name},n${n}`));
    await importPeople(numbered, await preview(numbered));
    const before = await roster();

    const source = fileOf(...names.map((name, n) => `${name}@new.example,${name},n${n}`));
    const asked = await preview(source);
    expect(asked.rows.map((row) => row.kind === 'problem' && row.mayBe)).toEqual(
      names.map((name) => ({ name, isAlike: true })),
    );
    expect(asked.missing).toEqual([]);
    const lines = [2, 3, 4, 5, 6];
    const seen = await preview(source, lines);
    expect(seen.counts).toMatchObject({ changed: 5, problem: 0, new: 0 });
    // What was not looked at with these answers is not imported with them.
    await importPeople(source, seen).then((answer) => expect(answer.status).toBe(409));
    const { body } = (await importPeople(source, seen, lines)) as { body: ImportResult };
    expect(body).toMatchObject({ changed: 5, added: 0 });
    const after = await roster();
    const places = ({ entries }: RosterView) =>
      entries.map(({ enrolmentId, groups }) => [enrolmentId, groups.map((group) => group.groupId)]);
    expect(places(after)).toEqual(places(before));
    expect(sure(after.entries.find((entry) => entry.number === 'n0')).email).toBe('noor@new.example');

    // The old account is not this course's any more; after the undo its holder is let in as before.
    const noor = sure(given.students.get('noor')).browser;
    const courseIds = async () =>
      ((await noor.get('/api/courses').expect(200)).body as CourseList).courses.map((course) => course.id);
    expect(await courseIds()).not.toContain(given.course.id);
    await given.instructor.post(at(`/changes/${body.changeId}/undo`)).expect(200);
    expect((await roster()).entries.map((entry) => entry.email)).toEqual(
      before.entries.map((entry) => entry.email),
    );
    expect(await courseIds()).toContain(given.course.id);
  });
});

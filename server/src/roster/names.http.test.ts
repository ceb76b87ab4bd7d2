import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, importPaste } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let other: CourseForTests;
const noor = 'noor@quillmere.example';

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
let count = 0;
beforeEach(async () => {
  count += 1;
  given = await aCourse(server, { email: `ilse${count}@quillmere.example` });
  other = await aCourse(server, { email: `other${count}@quillmere.example`, students: 2, groups: 1 });
});

const entryIn = async ({ instructor, course }: CourseForTests, email = noor) =>
  sure(
    ((await instructor.get(`/api/courses/${course.id}/roster`).expect(200)).body as RosterView).entries.find(
      (each) => each.email === email,
    ),
  );
const ownName = async () =>
  (await sure(given.students.get('noor')).browser.get('/api/session').expect(200)).body.person.name as string;

describe('a course’s name for a person', () => {
  it('is that course’s alone, whether it is pasted or typed; the account and other courses keep theirs', async () => {
    const before = await ownName();
    await importPaste(other.instructor, other.course.id, `Someone Else <${noor}>`);
    expect((await entryIn(other)).name).toBe('Someone Else');
    expect((await entryIn(given)).name).toBe('Noor');
    const { enrolmentId } = await entryIn(other);
    const edits = [{ enrolmentId, from: { name: 'Someone Else' }, to: { name: 'Typed By Hand' } }];
    const changed = await other.instructor
      .post(`/api/courses/${other.course.id}/roster/changes`)
      .send({ act: 'edit', edits })
      .expect(200);
    expect((await entryIn(other)).name).toBe('Typed By Hand');
    const { changeId } = changed.body as { changeId: string };
    await other.instructor
      .post(`/api/courses/${other.course.id}/roster/changes/${changeId}/undo`)
      .expect(200);
    expect((await entryIn(other)).name).toBe('Someone Else');
    expect((await entryIn(given)).name).toBe('Noor');
    expect(await ownName()).toBe(before);
  });

  it('is never made from an address where one is known', async () => {
    await importPaste(given.instructor, given.course.id, `Noor Haddad-Lindqvist <${noor}>`);
    await importPaste(given.instructor, given.course.id, noor);
    expect((await entryIn(given)).name).toBe('Noor Haddad-Lindqvist');
  });

  it('is what links are handed out under, not what another course calls them', async () => {
    const email = `secret${count}@quillmere.example`;
    await importPaste(given.instructor, given.course.id, `Known There Alone <${email}>`);
    await importPaste(other.instructor, other.course.id, email);
    const { links } = (
      await other.instructor.post(`/api/courses/${other.course.id}/roster/sign-in-links`).expect(200)
    ).body as SignInLinks;
    expect(sure(links.find((link) => link.email === email)).name).toBe(`Secret${count}`);
    expect(JSON.stringify(await entryIn(other, email))).not.toContain('Known There Alone');
  });
});

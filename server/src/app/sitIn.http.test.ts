import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { CallView } from '@jigsaw/contract/call';
import type { SessionView } from '@jigsaw/contract/identity';
import type { QuestionnaireView } from '@jigsaw/contract/questionnaire';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import type { CourseForTests } from '../test/aCourse.js';
import { aCourse, aMember, copyOf, importPaste, released, toRead } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Operation } from '../test/operations.js';
import { otherOperations, takingOperations } from '../test/operations.js';
import type { Things } from '../test/someThings.js';
import { someThings } from '../test/someThings.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let things: Things;
let operations: Operation[];

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  things = await someThings(given);
  operations = [...takingOperations(server, given, things), ...otherOperations(given, things)];
});
afterAll(() => server.stop());

const student = (name: string) => sure(given.students.get(name));
/** An address as it is asked by someone who sits in. */
const as = (name: string, path: string) => `/sit-in/${student(name).enrolmentId}${path}`;

/** All of an answer that its reader can tell from another. */
async function answerTo(by: Browser, path: string): Promise<unknown> {
  const { status, headers, body, text } = await by.get(path);
  const content: unknown = body instanceof Buffer ? body.toString('base64') : text;
  return { status, content, type: headers['content-type'] };
}

/** Every table with how many rows it has and what they hold, but for when someone's session was last used. */
async function everything(): Promise<Record<string, unknown>> {
  const tables = (await server.rows(
    `SELECT "tablename" AS "name" FROM "pg_tables" WHERE "schemaname" = 'public' AND "tablename" NOT IN ('session', 'person')`,
  )) as { name: string }[];
  const held = tables.map(async ({ name }) => {
    const [row] = await server.rows(
      `SELECT count(*)::int AS "rows", md5(string_agg(t::text, ' ' ORDER BY t::text)) AS "sum" FROM "${name}" t`,
    );
    return [name, row];
  });
  return Object.fromEntries(await Promise.all(held)) as Record<string, unknown>;
}

/** Of an account, and of a call's days before, no one else is told. */
const theirsAlone = new Set(['readCall', 'listCalendarAddresses', 'readSession', 'listCourses']);

describe('sitting in', () => {
  it('answers every question as the student is answered, and nothing is kept of it', async () => {
    await given.instructor.get(as('noor', '/api/session')).expect(200);
    const before = await everything();
    const differing: string[] = [];
    const asked = operations.filter(({ method }) => method === 'get');
    for (const name of ['noor', 'amina', 'nino'])
      for (const { id, path } of asked) {
        const theirs = await answerTo(student(name).browser, path);
        const seen = await answerTo(given.instructor, as(name, path));
        if (JSON.stringify(theirs) !== JSON.stringify(seen) && !theirsAlone.has(id))
          differing.push(`${name} ${id} ${JSON.stringify(theirs)} ${JSON.stringify(seen)}`);
      }
    expect(differing).toEqual([]);
    expect(asked.length).toBeGreaterThan(40);
    expect(await everything()).toEqual(before);
  });

  it('carries out nothing, whatever is sent and whoever sends it', async () => {
    const before = await everything();
    const done: string[] = [];
    for (const { id, method, path, body } of operations.filter((each) => each.method !== 'get'))
      for (const by of [given.instructor, student('noor').browser]) {
        const answer = await by[method](as('noor', path)).send(await body());
        if (answer.status !== 403 || answer.body.type !== '/problems/only-looking')
          done.push(`${id} ${answer.status}`);
      }
    expect(done).toEqual([]);
    const upload = as('noor', `/api/copies/${things.copyId}/files?name=a.txt&type=text/plain`);
    await given.instructor.post(upload).set('Content-Type', 'application/octet-stream').send('a').expect(403);
    await given.instructor.options(as('noor', '/api/session')).expect(403);
    expect(await everything()).toEqual(before);
  });

  it('says which student, under the name that the course has, and leaves the session as it was', async () => {
    const { body } = await given.instructor.get(as('noor', '/api/session')).expect(200);
    const { person, sitsIn, mayCreateCourses } = body as SessionView;
    const { enrolmentId } = student('noor');
    expect(sitsIn).toEqual({ courseId: given.course.id, enrolmentId, practisesIn: null });
    expect([person.email, mayCreateCourses]).toEqual(['noor@quillmere.example', false]);
    const own = (await given.instructor.get('/api/session').expect(200)).body as SessionView;
    expect([own.person.name, own.sitsIn]).toEqual(['Dr. Ilse Marrow', null]);
  });

  it('is for those who may see everything in the course, as students who are in it', async () => {
    const tomas = await aMember(server, given, 'tomas', 'assistant');
    const olga = await aMember(server, given, 'olga', 'observer');
    const rui = await server.instructor('rui@quillmere.example');
    const at = `/api/courses/${given.course.id}/rooms`;
    const status = async (by: Browser, path: string) => (await by.get(path)).status;
    expect(await status(given.instructor, as('noor', at))).toBe(200);
    for (const by of [tomas, olga]) expect(await status(by, as('noor', at))).toBe(403);
    for (const by of [student('noor').browser, student('jorge').browser, rui])
      expect(await status(by, as('noor', at))).toBe(404);
    expect(await status(server.browser(), as('noor', at))).toBe(401);
    const { body } = await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200);
    const staff = (body.entries as { role: string; enrolmentId: string }[]).filter(
      ({ role }) => role !== 'student',
    );
    for (const id of [...staff.map((each) => each.enrolmentId), randomUUID(), 'no-id', '%2e%2e'])
      expect(await status(given.instructor, `/sit-in/${id}${at}`)).toBe(404);
  });

  it('ends with the student’s place in the course, and with the reader’s', async () => {
    const change = (act: string) =>
      given.instructor
        .post(`/api/courses/${given.course.id}/roster/changes`)
        .send({ act, enrolmentIds: [student('nino').enrolmentId] })
        .expect(200);
    const at = as('nino', `/api/courses/${given.course.id}/rooms`);
    await change('drop');
    await given.instructor.get(at).expect(404);
    await change('restore');
    await given.instructor.get(at).expect(200);
  });

  it('stays in the course: of another in which the student is nothing is told, nor of their account', async () => {
    const rui = await server.instructor('rui2@quillmere.example');
    const course = { code: 'X 1', title: 'Elsewhere', term: 'Autumn', timeZone: 'Europe/Lisbon' };
    const elsewhere = (await rui.post('/api/courses').send(course).expect(200)).body as { id: string };
    await importPaste(rui, elsewhere.id, 'noor@quillmere.example');
    await importPaste(given.instructor, given.course.id, 'kofi@quillmere.example');
    const sitting = (path: string) => given.instructor.get(as('noor', path));
    await sitting(`/api/courses/${elsewhere.id}/rooms`).expect(404);
    const { courses } = (await sitting('/api/courses').expect(200)).body as { courses: { id: string }[] };
    expect(courses.map(({ id }) => id)).toEqual([given.course.id]);
    for (const own of ['/api/session/open', '/api/calendar-addresses']) await sitting(own).expect(404);
  });

  it('shows a student who has not come in yet what they will find', async () => {
    await importPaste(given.instructor, given.course.id, 'late@quillmere.example');
    const { body } = await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200);
    const late = sure(
      (body.entries as { email: string; enrolmentId: string }[]).find(({ email }) =>
        email.startsWith('late'),
      ),
    );
    const at = `/sit-in/${late.enrolmentId}/api/courses/${given.course.id}/rooms`;
    expect(((await given.instructor.get(at).expect(200)).body as RoomList).rooms).toEqual([]);
  });
});

describe('pages', () => {
  it('are framed by nothing, but for those that sit in, by the product itself', async () => {
    const webFolder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-web-'));
    writeFileSync(path.join(webFolder, 'index.html'), '<html></html>');
    const pages = await startTestServer({ webFolder });
    const framedBy = async (at: string) => /frame-ancestors ([^;]*)/.exec(String((await pages.browser().get(at)).headers['content-security-policy']))?.[1]; // prettier-ignore
    expect(await framedBy(as('noor', '/c/1/due'))).toBe("'self'");
    for (const at of ['/', '/c/1/due', '/api/session', as('noor', '/api/session'), '/sit-in'])
      expect(await framedBy(at)).toBe("'none'");
    await pages.stop();
    rmSync(webFolder, { recursive: true });
  });
});

describe('what no one of the staff knows', () => {
  it('who came to a call on the days before is not told', async () => {
    const at = `/api/copies/${things.call}/call`;
    const theirs = (await student('noor').browser.get(at).expect(200)).body as CallView;
    const seen = (await given.instructor.get(as('noor', at)).expect(200)).body as CallView;
    expect(theirs.visits).toHaveLength(1);
    expect(seen.visits).toEqual([]);
    expect({ ...seen, visits: theirs.visits }).toEqual(theirs);
  });

  it('whether they answered anonymous questions is not told, neither there nor by what is due', async () => {
    const question = randomUUID();
    const settings = { isAnonymous: true, questions: [{ id: question, kind: 'scale', text: 'How fair?' }] };
    await released(given, toRead('questionnaire', { title: 'Quiet', settings }));
    const copyId = await copyOf(student('noor').browser, given.course.id, 'Quiet');
    const answers = { [question]: 3 };
    await student('noor')
      .browser.put(`/api/copies/${copyId}/answers`)
      .send({ answers, version: 0, isAnonymous: true })
      .expect(200);
    const view = async (by: Browser, path: string) => (await by.get(path).expect(200)).body as unknown;
    const at = `/api/copies/${copyId}/answers`;
    const own = (await view(student('noor').browser, at)) as QuestionnaireView;
    const ofJorge = await view(student('jorge').browser, at);
    expect(own.hasAnswered).toBe(true);
    expect(await view(given.instructor, as('noor', at))).toEqual(ofJorge);
    const stateOf = async (name: string) => {
      const { rooms } = (await view(
        given.instructor,
        as(name, `/api/courses/${given.course.id}/rooms`),
      )) as RoomList;
      return rooms.flatMap(({ items }) => items).find((item) => item.title === 'Quiet')?.progress;
    };
    expect(await stateOf('noor')).toEqual(await stateOf('jorge'));
    expect(await stateOf('noor')).toMatchObject({ isYours: false, owes: true });
  });
});

describe('changes while someone sits in', () => {
  it('are heard as the student hears them, and the student’s own pages are not cut off for them', async () => {
    const { browser, enrolmentId } = student('jorge');
    const own = await follow(browser, given.course.id);
    const seen = await follow(given.instructor, given.course.id, `/sit-in/${enrolmentId}`);
    const post = { id: randomUUID(), parentId: null, text: things.post.text };
    await student('noor').browser.post(`/api/copies/${things.talk}/posts`).send(post).expect(200);
    await own.until('post.added');
    await seen.until('post.added');
    await given.instructor.post(`/api/courses/${given.course.id}/roster/changes`).send({ act: 'edit', edits: [{ enrolmentId, from: { attributes: { Lab: null } }, to: { attributes: { Lab: 'some' } } }] }).expect(200); // prettier-ignore
    await seen.over;
    own.stop();
  });
});

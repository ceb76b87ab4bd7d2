import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ActivityView } from '@jigsaw/contract/release';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Role } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import {
  aMember,
  aSheet,
  aCourse,
  addFile,
  anAssignment,
  base64,
  copyOf,
  released,
} from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { wholeSet } from '@jigsaw/core/release';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;
const browserOf = new Map<Role, Browser>();

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
  activity = await released(given);
  copyId = await copyOf(sure(given.students.get('noor')).browser, given.course.id);
  await addFile(sure(given.students.get('noor')).browser, copyId, 'notes.txt', Buffer.from('pH'));
  await sure(given.students.get('noor'))
    .browser.post(`/api/copies/${copyId}/hand-in`)
    .send({ attempt: 1 })
    .expect(200);
  browserOf.set('instructor', given.instructor);
  browserOf.set('student', sure(given.students.get('amina')).browser);
  browserOf.set('assistant', await aMember(server, given, 'tomas', 'assistant'));
  browserOf.set('observer', await aMember(server, given, 'oke', 'observer'));
});
afterAll(() => server.stop());

/** What each role is answered: 200 may, 403 is told that the role lacks it, 404 learns nothing. */
const table: readonly {
  act: string;
  instructor: number;
  assistant: number;
  observer: number;
  student: number;
  ask: (browser: Browser) => PromiseLike<{ status: number }>;
}[] = [
  {
    act: 'read the roster',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/courses/${given.course.id}/roster`),
  },
  {
    act: 'preview a class file',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .post(`/api/courses/${given.course.id}/roster/preview`)
        .send({ source: { kind: 'paste', text: 'x@y.example' }, meanings: null }),
  },
  {
    act: 'make sign-in links',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) => browser.post(`/api/courses/${given.course.id}/roster/sign-in-links`),
  },
  {
    act: 'make a group set',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .post(`/api/courses/${given.course.id}/sets`)
        .send({ name: 'Extra', shape: { by: 'count', groups: 1 }, capacity: null, pattern: '', names: [] }),
  },
  {
    act: 'read the Board',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/sets/${given.set.id}/board`),
  },
  {
    act: 'place a student',
    instructor: 200,
    assistant: 200,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: sure(given.students.get('nino')).enrolmentId, from: null, to: null }] }),
  },
  {
    act: 'rename a group',
    instructor: 409, // with a version that is long past: let in, then told what is there
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .patch(`/api/groups/${sure(given.board.groups[0]).id}`)
        .send({ name: 'New', capacity: null, version: 99 }),
  },
  {
    act: 'list what is released',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/courses/${given.course.id}/activities`),
  },
  {
    act: 'read the settings of an assignment',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) => browser.get(`/api/activities/${activity.id}`),
  },
  {
    act: 'write an assignment',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser.post(`/api/courses/${given.course.id}/activities`).send(anAssignment({ title: 'Draft' })),
  },
  {
    act: 'see whom a release reaches',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .post(`/api/activities/${activity.id}/reach`)
        .send({ to: wholeSet(given.set.id), mode: 'own', outsiders: 'hidden' }),
  },
  {
    act: 'give a group longer',
    instructor: 200,
    assistant: 403,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser
        .put(`/api/activities/${activity.id}/extensions/${sure(given.board.groups[1]).id}`)
        .send({ due: '2026-11-20T10:00:00.000Z', reason: 'Ill' }),
  },
  {
    act: 'read a group’s copy',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/copies/${copyId}`),
  },
  {
    act: 'read the queue of the desk',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/releases/${sure(activity.release).id}/desk`),
  },
  {
    act: 'read the gradebook',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/courses/${given.course.id}/gradebook`),
  },
  {
    act: 'read a marking sheet',
    instructor: 200,
    assistant: 200,
    observer: 200,
    student: 404,
    ask: (browser) => browser.get(`/api/copies/${copyId}/marks/group`),
  },
  {
    act: 'mark',
    instructor: 409,
    assistant: 409,
    observer: 403,
    student: 404,
    ask: (browser) =>
      browser.put(`/api/copies/${copyId}/marks/group`).send({ ...aSheet, typedMark: '30', version: 99 }),
  },
  {
    act: 'recall marks',
    instructor: 200,
    assistant: 200,
    observer: 403,
    student: 404,
    ask: (browser) => browser.post(`/api/copies/${copyId}/marks/group/recall`).send({ version: 0 }),
  },
];

describe('what each role may do', () => {
  it.each(
    table.flatMap((row) =>
      (['instructor', 'assistant', 'observer', 'student'] as const).map((role) => ({
        role,
        act: row.act,
        status: row[role],
        ask: row.ask,
      })),
    ),
  )('answers $status when an $role wants to $act', async ({ role, status, ask }) =>
    expect((await ask(sure(browserOf.get(role)))).status).toBe(status),
  );

  it('shows an observer no draft', async () => {
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ title: 'Secret draft' }))
      .expect(200);
    const { body } = await sure(browserOf.get('observer'))
      .get(`/api/courses/${given.course.id}/activities`)
      .expect(200);
    expect(JSON.stringify(body)).not.toContain('Secret draft');
  });

  it('counts staff neither among the students of the Board nor as unplaced', async () => {
    const own = await aCourse(server, { email: 'counts@quillmere.example' });
    await aMember(server, own, 'priya', 'assistant');
    await aMember(server, own, 'lindgard', 'observer');
    const { body } = (await own.instructor.get(`/api/courses/${own.course.id}/figures`).expect(200)) as {
      body: object;
    };
    expect(body).toMatchObject({ enrolled: 5, unplaced: 1 });
    const { entries } = (await own.instructor.get(`/api/courses/${own.course.id}/roster`).expect(200))
      .body as RosterView;
    const staff = entries.filter((entry) => entry.role !== 'student').map((entry) => entry.role);
    expect(staff.toSorted()).toEqual(['assistant', 'instructor', 'observer']);
  });
});

describe('broken class files over the API', () => {
  const preview = (content: string | Buffer) =>
    given.instructor.post(`/api/courses/${given.course.id}/roster/preview`).send({
      source: { kind: 'file', fileName: 'class.csv', contentBase64: base64(content) },
      meanings: null,
    });
  const header = 'Email,Name\n';
  const utf16 = (text: string) => Buffer.from(`\ufeff${text}`, 'utf16le');

  it.each([
    ['a byte order mark', Buffer.from(`\ufeff${header}ann@b.example,Ann\n`)],
    ['semicolons', 'Email;Name\nann@b.example;Ann\n'],
    ['tabs', 'Email\tName\nann@b.example\tAnn\n'],
    ['Windows-1252', Buffer.from('Email,Name\nann@b.example,Ann\n', 'latin1')],
    ['UTF-16', utf16(`${header}ann@b.example,Ann\n`)],
    ['no header', 'ann@b.example,Ann\nben@b.example,Ben\n'],
    ['quoted newlines', `${header}ann@b.example,"Ann\nLee"\n`],
    ['old Mac line ends', 'Email,Name\rann@b.example,Ann\r'],
  ])('reads one with %s', async (_what, content) => {
    const { body } = (await preview(content).expect(200)) as { body: ImportPreview };
    expect(body.columnProblem).toBeNull();
    expect(body.counts.problem).toBe(0);
    expect(body.counts.new).toBeGreaterThan(0);
  });

  it.each([
    ['a malformed address', `${header}ann at home,Ann\n`, 2, 'is not an email address'],
    [
      'an address twice, in two cases',
      `${header}ann@b.example,Ann\nANN@b.example,Ann\n`,
      3,
      'The same address as in line 2',
    ],
    ['a row that is cut short', `${header}ann@b.example\n`, 2, '1 of 2 cells'],
    ['a row that is too long', `${header}Okafor,Ada,ann@b.example\n`, 2, '3 cells where 2 are expected'],
    ['a cell like a formula', `${header}ann@b.example,=1+1\n`, 2, 'begins like a formula'],
    ['no name', `${header}ann@b.example,\n`, 2, 'No name'],
  ])('names the line with %s, and nothing of the file comes in', async (_what, content, line, sentence) => {
    const { body } = (await preview(content).expect(200)) as { body: ImportPreview };
    expect(body.rows.filter((row) => row.kind === 'problem')).toEqual([
      expect.objectContaining({ line, sentences: [expect.stringContaining(sentence)] }),
    ]);
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/import`)
      .send({
        source: { kind: 'file', fileName: 'class.csv', contentBase64: base64(content) },
        meanings: ['email', 'name'],
        leaveOutLines: [],
        fingerprint: body.fingerprint,
      })
      .expect(422);
    const { entries } = (await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200))
      .body as RosterView;
    expect(entries.some((entry) => entry.email.toLowerCase() === 'ann@b.example')).toBe(false);
  });
});

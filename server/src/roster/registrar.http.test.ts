import type { Server } from 'node:http';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import type { GroupSetList } from '@jigsaw/contract/sets';
import type { ImportPreview, ImportResult } from '@jigsaw/contract/import';
import type { RegistrarView, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

interface Listed {
  readonly name: string;
  readonly section: string;
  readonly role?: string;
}

/** What the registrar answers; a test may put anything in its place. */
const school = {
  codes: ['FER 220'],
  sections: new Map<string, string>(),
  people: [] as Listed[],
  answer: null as { status: number; body: string | Uint8Array } | null,
};

function bundle(): Uint8Array {
  const csv = (rows: readonly (readonly string[])[]) =>
    strToU8(rows.map((cells) => cells.join(',')).join('\n'));
  return zipSync({
    'classes.csv': csv([['sourcedId', 'title'], ...school.sections]),
    'users.csv': csv([
      ['sourcedId', 'givenName', 'familyName', 'email'],
      ...school.people.map(({ name }) => [name, name, '', `${name}@quillmere.example`]),
    ]),
    'enrollments.csv': csv([
      ['sourcedId', 'classSourcedId', 'userSourcedId', 'role'],
      ...school.people.map(({ name, section, role = 'student' }) => [`in-${name}`, section, name, role]),
    ]),
  });
}

let registrar: Server;
let server: TestServer | undefined;
let given: CourseForTests;
beforeAll(async () => {
  registrar = createServer((request, response) => {
    const url = new URL(sure(request.url), 'http://registrar.test');
    if (school.answer) return response.writeHead(school.answer.status).end(school.answer.body);
    if (url.pathname !== '/courses.json') return response.end(bundle());
    const isTeacher = url.searchParams.get('teacher') === 'ilse.marrow@quillmere.example';
    return response.end(
      JSON.stringify({
        courses: isTeacher
          ? school.codes.map((code) => ({ code, title: code, people: school.people.length }))
          : [],
      }),
    );
  });
  await new Promise<void>((resolve) => registrar.listen(0, '127.0.0.1', resolve));
});
beforeEach(async () => {
  await server?.stop();
  server = await startTestServer({
    registrarUrl: `http://127.0.0.1:${(registrar.address() as AddressInfo).port}`,
  });
  given = await aCourse(server, { students: 5 });
  school.answer = null;
  school.codes = ['FER 220'];
  school.sections = new Map([
    ['tue', 'Tuesday lab'],
    ['thu', 'Thursday lab'],
  ]);
  school.people = ['noor', 'jorge', 'amina', 'kofi'].map((name, at) => ({
    name,
    section: at < 2 ? 'tue' : 'thu',
  }));
});
afterAll(async () => {
  await server?.stop();
  await new Promise((resolve) => registrar.close(resolve));
});

const at = (path: string) => `/api/courses/${given.course.id}${path}`;
const source = { kind: 'registrar', course: 'FER 220', setName: 'Lab sections' };
const preview = async () =>
  (await given.instructor.post(at('/roster/preview')).send({ source, meanings: null }).expect(200))
    .body as ImportPreview;
const apply = (seen: ImportPreview, more: object = {}) =>
  given.instructor.post(at('/roster/import')).send({
    source,
    meanings: seen.columns.map((column) => column.meaning),
    leaveOutLines: [],
    drop: seen.missing.filter((person) => person.isDropped).map((person) => person.enrolmentId),
    fingerprint: seen.fingerprint,
    ...more,
  });
const sync = async () => (await apply(await preview()).expect(200)).body as ImportResult;
const roster = async () => (await given.instructor.get(at('/roster')).expect(200)).body as RosterView;
const sectionsNow = async () => {
  const { entries, sets } = await roster();
  const setId = sets.find((set) => set.name === 'Lab sections')?.id;
  const here = entries.filter((entry) => entry.leftAt === null && entry.role === 'student');
  return Object.fromEntries(
    here.map((entry) => [
      entry.email.split('@')[0],
      entry.groups.find((group) => group.setId === setId)?.name ?? null,
    ]),
  );
};
const everything = async () =>
  JSON.stringify([await roster(), (await given.instructor.get(at('/sets')).expect(200)).body]);

describe('the registrar', () => {
  it('offers the course of the same code, and is followed once it was brought in', async () => {
    const before = (await given.instructor.get(at('/registrar')).expect(200)).body as RegistrarView;
    expect(before).toEqual({
      state: 'there',
      courses: [{ code: 'FER 220', title: 'FER 220', people: 4 }],
      followed: null,
      likely: 'FER 220',
      syncedAt: null,
      setName: null,
    });
    await sync();
    expect((await given.instructor.get(at('/registrar')).expect(200)).body).toMatchObject({
      followed: 'FER 220',
      setName: 'Lab sections',
      syncedAt: expect.any(String),
    });
  });

  it('gives its sections as an exclusive set that follows it', async () => {
    expect((await preview()).newGroups).toEqual([
      { set: null, isNew: true, groups: ['Tuesday lab', 'Thursday lab'] },
    ]);
    await sync();
    expect(await sectionsNow()).toEqual({
      noor: 'Tuesday lab',
      jorge: 'Tuesday lab',
      amina: 'Thursday lab',
      kofi: 'Thursday lab',
      nino: null,
    });
    const { sets } = (await given.instructor.get(at('/sets')).expect(200)).body as GroupSetList;
    expect(sets.map((set) => [set.name, set.groupCount, set.isSynchronised])).toEqual([
      ['Bench teams', 2, false],
      ['Lab sections', 2, true],
    ]);
    expect((await preview()).counts).toEqual({ new: 0, changed: 0, unchanged: 4, problem: 0 });
  });

  it('adds, drops and changes sections, work intact, and all of it is taken back at once', async () => {
    await sync();
    await released(given);
    const { browser } = sure(given.students.get('noor'));
    const copyId = await copyOf(browser, given.course.id);
    await browser
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Salt first.'), version: 0 })
      .expect(200);
    const before = await sectionsNow();
    school.people = [
      { name: 'jorge', section: 'thu' },
      { name: 'amina', section: 'thu' },
      { name: 'kofi', section: 'thu' },
      { name: 'hana', section: 'tue' },
    ];
    const seen = await preview();
    expect(seen.rows.flatMap((row) => (row.kind === 'changed' ? row.changes : []))).toEqual([
      { field: 'Section', from: 'Tuesday lab', to: 'Thursday lab' },
    ]);
    // Nino was added by hand: the registrar does not speak of her.
    expect(seen.missing.map((person) => [person.email.split('@')[0], person.isDropped])).toEqual([
      ['noor', true],
      ['nino', false],
    ]);
    const { changeId } = (await apply(seen).expect(200)).body as ImportResult;
    expect(await sectionsNow()).toEqual({
      jorge: 'Thursday lab',
      amina: 'Thursday lab',
      kofi: 'Thursday lab',
      hana: 'Tuesday lab',
      nino: null,
    });
    await browser.get(`/api/copies/${copyId}/work`).expect(404);
    await given.instructor.post(at(`/roster/changes/${changeId}/undo`)).expect(200);
    expect(await sectionsNow()).toEqual(before);
    expect(JSON.stringify((await browser.get(`/api/copies/${copyId}/work`).expect(200)).body)).toContain(
      'Salt first.',
    );
    expect(
      sure((await roster()).entries.find((entry) => entry.email.startsWith('noor')))
        .groups.map((group) => group.name)
        .sort(),
    ).toEqual(['Crock', 'Tuesday lab']);
  });

  it('may rename a section, and so may the instructor, without moving anybody', async () => {
    await sync();
    const { entries } = await roster();
    const lab = sure(
      sure(entries.find((entry) => entry.email.startsWith('noor'))).groups.find(
        (group) => group.name === 'Tuesday lab',
      ),
    );
    await given.instructor
      .patch(`/api/groups/${lab.groupId}`)
      .send({ name: 'Early birds', capacity: null, version: 1 })
      .expect(200);
    school.sections.set('tue', 'Tuesday laboratory');
    const seen = await preview();
    expect([seen.newGroups, seen.counts.changed]).toEqual([[], 0]);
    // A new section that has an old one's former name is another section.
    school.sections.set('wed', 'Tuesday lab');
    school.people = school.people.map((person) =>
      person.name === 'kofi' ? { name: 'kofi', section: 'wed' } : person,
    );
    await sync();
    expect(await sectionsNow()).toMatchObject({ noor: 'Early birds', kofi: 'Tuesday lab' });
  });

  it('does not seat its teachers', async () => {
    school.people = [...school.people, { name: 'tomas', section: 'tue', role: 'aide' }];
    await sync();
    const tomas = sure((await roster()).entries.find((entry) => entry.email.startsWith('tomas')));
    expect([tomas.role, tomas.groups]).toEqual(['assistant', []]);
  });

  it('that forgets a good part of the class is doubted: no one is proposed to leave', async () => {
    school.people = 'a b c d e f g h i j k l'
      .split(' ')
      .map((letter) => ({ name: `student-${letter}`, section: 'tue' }));
    await sync();
    school.people = school.people.slice(0, 7);
    const seen = await preview();
    expect(seen.missing.some((person) => person.isDropped)).toBe(false);
    expect(seen.warning).toBe(
      'The registrar no longer lists 5 of 12 students. No one is removed unless you choose it. Ask the registrar first.',
    );
  });

  it.each([
    ['gone', { status: 503, body: 'Closed.' }, 'answered with an error (503)'],
    ['a web page', { status: 200, body: '<h1>Welcome</h1>' }, 'not a roster'],
    ['an empty answer', { status: 200, body: '' }, 'not a roster'],
    [
      'a damaged archive',
      { status: 200, body: Buffer.from('PK\u0003\u0004 and then nothing') },
      'not a roster',
    ],
    [
      'a list of no one',
      { status: 200, body: zipSync({ 'users.csv': strToU8('sourcedId,email\n') }) },
      'not a roster',
    ],
    ['more than a roster can be', { status: 200, body: Buffer.alloc(21_000_000, 'x') }, 'not a roster'],
  ])('that answers with %s is told of, and nothing changes', async (_what, answer, sentence) => {
    await sync();
    const seen = await preview();
    const before = await everything();
    school.answer = answer;
    for (const ask of [
      given.instructor.post(at('/roster/preview')).send({ source, meanings: null }),
      apply(seen),
    ])
      expect((await ask.expect(502)).body).toMatchObject({
        type: '/problems/registrar-away',
        detail: expect.stringContaining(sentence),
      });
    expect((await given.instructor.get(at('/registrar')).expect(200)).body).toMatchObject({ state: 'away' });
    expect(await everything()).toBe(before);
  });

  it('that changed its mind between the preview and the press is shown once more', async () => {
    const seen = await preview();
    school.people = school.people.slice(1);
    expect((await apply(seen).expect(409)).body).toMatchObject({ type: '/problems/stale-write' });
    expect((await roster()).syncedAt).toBeNull();
  });

  it('does not give anybody a class that they do not teach', async () => {
    const stranger = await aCourse(sure(server), { students: 2, email: 'mal.ory@quillmere.example' });
    const ask = stranger.instructor
      .post(`/api/courses/${stranger.course.id}/roster/preview`)
      .send({ source, meanings: null });
    expect((await ask.expect(502)).body.detail).toBe(
      'The registrar does not name you as a teacher of this course. Ask them to add you, or import a file.',
    );
    expect(
      (await stranger.instructor.get(`/api/courses/${stranger.course.id}/registrar`).expect(200)).body,
    ).toMatchObject({ courses: [] });
    for (const path of ['/registrar', '/roster'])
      await sure(given.students.get('noor')).browser.get(at(path)).expect(404);
  });
});

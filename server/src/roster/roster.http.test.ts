import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetList } from '@jigsaw/contract/sets';
import type { ImportPreview } from '@jigsaw/contract/import';
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
  given = await aCourse(server, { students: 3 });
});
afterAll(() => server.stop());

const file = (content: string | Buffer, fileName = 'class.csv') => ({
  kind: 'file',
  fileName,
  contentBase64: base64(content),
});
const preview = async (source: unknown, status = 200) => {
  const answer = await given.instructor
    .post(`/api/courses/${given.course.id}/roster/preview`)
    .send({ source, meanings: null })
    .expect(status);
  return answer.body as ImportPreview & { detail: string };
};
const importPeople = (
  source: unknown,
  { columns, fingerprint }: ImportPreview,
  leaveOutLines: number[] = [],
) =>
  given.instructor
    .post(`/api/courses/${given.course.id}/roster/import`)
    .send({ source, meanings: columns.map((column) => column.meaning), leaveOutLines, fingerprint });
const roster = async () =>
  ((await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200)).body as RosterView)
    .entries;

describe('bringing in a class file', () => {
  it('brings in what was previewed, with numbers and attributes', async () => {
    const source = file(
      'Matrikel;Surname;First;E-Mail;Lab experience\nfe-1;Peñaloza;Jorge;jp@quillmere.example;some\nfe-2;한;서연;han@quillmere.example;none\n',
    );
    const seen = await preview(source);
    expect(seen).toMatchObject({
      delimiter: ';',
      counts: { new: 2, changed: 0, unchanged: 0, problem: 0 },
      columnProblem: null,
    });
    expect(
      await importPeople(source, seen)
        .expect(200)
        .then((answer) => answer.body as unknown),
    ).toEqual({
      changeId: expect.any(String),
      added: 2,
      changed: 0,
      unchanged: 0,
      dropped: 0,
      leftOut: 0,
      seated: 0,
    });
    expect((await roster()).find((entry) => entry.email === 'jp@quillmere.example')).toMatchObject({
      name: 'Jorge Peñaloza',
      number: 'fe-1',
      role: 'student',
      attributes: { 'Lab experience': 'some' },
    });
    expect(await preview(source)).toMatchObject({ counts: { new: 0, changed: 0, unchanged: 2, problem: 0 } });
  });

  it('brings in nothing at all while one row is faulty, and names its line', async () => {
    const before = (await roster()).length;
    const source = file('Email,Name\nok@quillmere.example,Fine\nnot an address,Broken\n');
    const seen = await preview(source);
    expect(seen.rows[1]).toMatchObject({
      kind: 'problem',
      line: 3,
      sentences: [expect.stringContaining('not an email address')],
    });
    const refused = await importPeople(source, seen).expect(422);
    expect(refused.body).toMatchObject({ issues: [{ path: 'line 3' }] });
    expect(await roster()).toHaveLength(before);
    await importPeople(source, seen, [3]).expect(200);
    expect(await roster()).toHaveLength(before + 1);
  });

  it('takes a row as someone corrected it, with the file itself as it is', async () => {
    const source = file('Email,Name\nmended at quillmere,Mended\n');
    const mends = [{ line: 2, cells: ['mended@quillmere.example', 'Mended'] }];
    expect((await preview(source)).counts).toMatchObject({ problem: 1 });
    const seen = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/roster/preview`)
        .send({ source, meanings: ['email', 'name'], mends })
        .expect(200)
    ).body as ImportPreview;
    expect(seen.counts).toMatchObject({ new: 1, problem: 0 });
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/import`)
      .send({ source, meanings: ['email', 'name'], mends, leaveOutLines: [], fingerprint: seen.fingerprint })
      .expect(200);
    expect((await roster()).map((entry) => entry.email)).toContain('mended@quillmere.example');
  });

  it('refuses what no longer matches its preview', async () => {
    const source = file('Email,Name\nstale@quillmere.example,Stale\n');
    const seen = await preview(source);
    await importPeople(source, seen).expect(200);
    await importPeople(source, seen).expect(409);
  });

  it.each([
    ['an empty file', '', 'empty'],
    ['a header without people', 'Email,Name\n', 'no people'],
    ['a damaged spreadsheet', Buffer.from([0x50, 0x4b, 3, 4, 20, 0]), 'Download or save it again'],
    ['a spreadsheet of an older form', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0]), 'Save it as XLSX or CSV'],
    [
      'something binary',
      Buffer.from(Array.from({ length: 500 }, (_, at) => (at * 7) % 251)),
      'not a text file',
    ],
    ['a quote that never closes', 'Email,Name\na@b.example,"Ann\n', 'line 2'],
  ])('says what to do with %s', async (_what, content, says) =>
    expect((await preview(file(content), 422)).detail).toContain(says),
  );

  it('refuses 20 MB of anything before it looks into it', async () => {
    const answer = await given.instructor
      .post(`/api/courses/${given.course.id}/roster/preview`)
      .send({ source: file(Buffer.alloc(20_000_000, 'a,')), meanings: null });
    expect([413, 422]).toContain(answer.status);
    expect((answer.body as { detail: string }).detail).toContain('10 MB');
  });

  it('keeps names in every script, in either direction, of one word or with marks that combine; one address in two cases is one', async () => {
    const names = [
      'Suharto',
      'ليلى الحموي',
      'נועה ברקאי',
      '高橋 ひなた',
      'Πηνελόπη Καραθάνου',
      'आरव देशपांडे',
      'Zoe\u0308 Ga\u0308rtner',
      'ณัฐพล ศรีสุข',
    ];
    const source = file(
      `Email,Name\n${names.map((name, at) => `script${at}@quillmere.example,${name}`).join('\n')}\nSCRIPT0@quillmere.example,Twice\n`,
    );
    const seen = await preview(source);
    expect(seen.counts).toMatchObject({ new: names.length, problem: 1 });
    expect(seen.rows.at(-1)).toMatchObject({
      kind: 'problem',
      sentences: ['The same address as in line 2. Keep one of the two.'],
    });
    await importPeople(source, seen, [names.length + 2]).expect(200);
    const there = new Map((await roster()).map((entry) => [entry.email, entry.name]));
    names.forEach((name, at) =>
      expect(there.get(`script${at}@quillmere.example`)).toBe(name.normalize('NFC')),
    );
  });

  it('asks which column holds addresses before it reads rows', async () => {
    const seen = await preview(file('Name,Lab\nAnn,some\n'));
    expect(seen.columnProblem).toContain('mail addresses');
    expect(seen.rows).toEqual([]);
  });

  it('reads 5,000 lines in one go', async () => {
    const lines = Array.from({ length: 5000 }, (_, at) => `s${at}@quillmere.example,Student ${at}`);
    const source = file(`Email,Name\n${lines.join('\n')}\n`);
    const other = (
      await given.instructor
        .post('/api/courses')
        .send({ code: 'BIG', title: 'Big', term: '', timeZone: 'UTC' })
        .expect(200)
    ).body as {
      id: string;
    };
    const seen = (
      await given.instructor
        .post(`/api/courses/${other.id}/roster/preview`)
        .send({ source, meanings: null })
        .expect(200)
    ).body as ImportPreview;
    const result = await given.instructor
      .post(`/api/courses/${other.id}/roster/import`)
      .send({ source, meanings: ['email', 'name'], leaveOutLines: [], fingerprint: seen.fingerprint })
      .expect(200);
    expect(result.body).toMatchObject({ added: 5000 });
  });
});

describe('taking the roster out', () => {
  it('gives a class file and a bundle that an empty course takes in with the same people in the same groups', async () => {
    const circles = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/sets`)
        .send({
          name: 'Circles',
          isExclusive: false,
          shape: { by: 'count', groups: 3 },
          capacity: null,
          pattern: 'Circle {n}',
          names: ['Rye', 'Rye; malt'],
        })
        .expect(200)
    ).body as { id: string };
    const { groups } = (await given.instructor.get(`/api/sets/${circles.id}/board`).expect(200))
      .body as BoardView;
    const student = sure(given.students.get('noor')).enrolmentId;
    const moves = groups.slice(0, 2).map((group) => ({ student, from: null, to: group.id }));
    await given.instructor.post(`/api/sets/${circles.id}/place`).send({ moves }).expect(200);
    const own = (await roster()).filter((entry) => entry.role === 'student');
    for (const format of ['csv', 'zip']) {
      const answer = await given.instructor
        .get(`/api/courses/${given.course.id}/roster.${format}`)
        .buffer(true)
        .parse((response, done) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => chunks.push(chunk));
          response.on('end', () => done(null, Buffer.concat(chunks)));
        })
        .expect(200);
      expect(answer.headers).toMatchObject({
        'content-disposition': `attachment; filename="roster.${format}"`,
        'cache-control': 'private, no-store',
      });
      const other = (
        await given.instructor
          .post('/api/courses')
          .send({ code: format, title: 'Copy', term: '', timeZone: 'UTC' })
          .expect(200)
      ).body as {
        id: string;
      };
      const source = file(answer.body as Buffer, `roster.${format}`);
      const seen = (
        await given.instructor
          .post(`/api/courses/${other.id}/roster/preview`)
          .send({ source, meanings: null })
          .expect(200)
      ).body as ImportPreview;
      expect(seen.counts.problem).toBe(0);
      const body = {
        source,
        meanings: seen.columns.map((column) => column.meaning),
        leaveOutLines: [],
        fingerprint: seen.fingerprint,
      };
      await given.instructor.post(`/api/courses/${other.id}/roster/import`).send(body).expect(200);
      const there = (
        (await given.instructor.get(`/api/courses/${other.id}/roster`).expect(200)).body as RosterView
      ).entries;
      const plain = (entries: RosterView['entries']) =>
        entries.map(({ email, name, number, role, attributes, groups: all }) => ({
          email,
          name,
          number,
          role,
          attributes,
          groups: all.map((each) => each.name).sort(),
        }));
      expect(plain(there.filter((entry) => entry.role === 'student'))).toEqual(plain(own));
      expect(sure(plain(there).find((entry) => entry.email.startsWith('noor'))).groups).toEqual([
        'Crock',
        'Rye',
        'Rye; malt',
      ]);
      const { sets } = (await given.instructor.get(`/api/courses/${other.id}/sets`).expect(200))
        .body as GroupSetList;
      expect(sets.map((set) => [set.name, set.isExclusive, set.groupCount])).toEqual([
        ['Bench teams', true, format === 'csv' ? 1 : 2],
        ['Circles', false, format === 'csv' ? 2 : 3],
      ]);
    }
  });

  it('is for the instructor alone', async () => {
    for (const format of ['csv', 'zip']) {
      await sure(given.students.get('noor'))
        .browser.get(`/api/courses/${given.course.id}/roster.${format}`)
        .expect(404);
      await server.browser().get(`/api/courses/${given.course.id}/roster.${format}`).expect(401);
    }
  });
});

describe('who may see the roster', () => {
  it('does not exist for students, for other instructors, or signed out', async () => {
    const other = await server.instructor('other@quillmere.example');
    const unknown = await other.get('/api/courses/01920000-0000-7000-8000-000000000000/roster').expect(404);
    for (const browser of [other, sure(given.students.get('noor')).browser]) {
      const answer = await browser.get(`/api/courses/${given.course.id}/roster`).expect(404);
      expect(answer.body).toEqual(unknown.body);
    }
    await server.browser().get(`/api/courses/${given.course.id}/roster`).expect(401);
    await sure(given.students.get('noor'))
      .browser.post('/api/courses')
      .send({ code: 'X', title: 'X', term: '', timeZone: 'UTC' })
      .expect(403);
  });
});

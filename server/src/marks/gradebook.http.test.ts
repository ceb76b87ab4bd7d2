import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { FoldedGradebook } from '@jigsaw/contract/gradebook';
import type { MarkView } from '@jigsaw/contract/marks';
import { sure } from '@jigsaw/core/lists';
import { aSheet, aCourse, addFile, copyOf, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
// A course of its own for each, so that no test builds on what another left.
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  given = await aCourse(server, { email: `ilse${count}@quillmere.example` }); // Crock: noor, jorge; Carboy: amina, kofi; nino in none
  await released(given, { title: '=Report' });
  await released(given, {
    title: 'Later sheet',
    schedule: { opens: null, due: '2026-12-24T17:00:00.000Z', closes: null },
  });
  server.clock.set('2026-11-13T21:05:00Z'); // the first is due on the 12th
  const copyId = await copyOf(student('noor'), given.course.id, '=Report');
  await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const cellsOf = async (name: string) => {
  const book = await gradebookOf(given);
  return sure(book.students.find((each) => each.enrolmentId === idOf(name))).cells.map((cells) =>
    cells.map((cell) => [cell.state, cell.mark]),
  );
};
const mark = async (sheet: object): Promise<MarkView> => {
  const copyId = await copyOf(student('noor'), given.course.id, '=Report');
  const { version } = (await given.instructor.get(`/api/copies/${copyId}/marks/group`)).body as MarkView;
  return (
    await given.instructor
      .put(`/api/copies/${copyId}/marks/group`)
      .send({ ...aSheet, typedMark: '31.5', adjustments: [], version, ...sheet })
      .expect(200)
  ).body as MarkView;
};
const release = async () => {
  const copyId = await copyOf(student('noor'), given.course.id, '=Report');
  const { version } = (await given.instructor.get(`/api/copies/${copyId}/marks/group`)).body as MarkView;
  await given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version }).expect(200);
};

describe('the gradebook', () => {
  it('says of each student and assignment how far it is', async () => {
    const book = await gradebookOf(given);
    expect(book.activities.map((activity) => activity.title)).toEqual(['=Report', 'Later sheet']);
    expect(await cellsOf('noor')).toEqual([[['to-mark', null]], [['open', null]]]);
    expect(await cellsOf('amina')).toEqual([[['missing', null]], [['open', null]]]);
    expect(await cellsOf('nino')).toEqual([[], []]);
  });

  it('shows a draft to staff with the sum that would be released, and then what was released', async () => {
    const adjustment = { kind: 'adjusted', by: '1.5', reason: 'Ill' };
    await mark({ adjustments: [{ enrolmentId: idOf('jorge'), adjustment }] });
    expect((await cellsOf('noor'))[0]).toEqual([['drafted', '23.5']]);
    expect((await cellsOf('jorge'))[0]).toEqual([['drafted', '25']]);
    await release();
    expect((await cellsOf('jorge'))[0]).toEqual([['released', '25']]);
    await mark({ typedMark: '40', adjustments: [] });
    expect((await cellsOf('jorge'))[0]).toEqual([['released', '25']]); // a later draft is not what they have
    await mark({
      adjustments: [{ enrolmentId: idOf('jorge'), adjustment: { kind: 'excused', reason: 'Ill' } }],
    });
    await release();
    expect((await cellsOf('jorge'))[0]).toEqual([['excused', null]]);
  });

  it('follows credit and not today’s group', async () => {
    await mark({});
    await release();
    const [crock] = given.board.groups;
    const place = (from: string | null, to: string | null) =>
      given.instructor
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: idOf('noor'), from, to }] })
        .expect(200);
    await place(sure(crock).id, null);
    expect((await cellsOf('noor'))[0]).toEqual([['released', '23.5']]);
    expect((await cellsOf('noor'))[1]).toEqual([]);
    await place(null, sure(crock).id);
  });

  it('shows the work someone is credited with before a group in which there is none', async () => {
    const given2 = await aCourse(server, { email: 'moved@quillmere.example', students: 4, groups: 2 });
    const [crock, carboy] = given2.board.groups;
    await released(given2);
    const amina = sure(given2.students.get('amina')); // of Carboy, which stands behind Crock
    const copyId = await copyOf(amina.browser, given2.course.id);
    await addFile(amina.browser, copyId, 'carboy.txt', Buffer.from('pH'));
    await amina.browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    await given2.instructor
      .post(`/api/sets/${given2.set.id}/place`)
      .send({ moves: [{ student: amina.enrolmentId, from: sure(carboy).id, to: sure(crock).id }] })
      .expect(200);
    const book = await gradebookOf(given2);
    const { cells } = sure(book.students.find((each) => each.enrolmentId === amina.enrolmentId));
    expect(cells[0]).toMatchObject([{ state: 'to-mark', copyId }]);
  });

  it('is sent with what the members of a group have in common once', async () => {
    await mark({ typedMark: '25', adjustments: [] });
    const { body } = await given.instructor.get(`/api/courses/${given.course.id}/gradebook`).expect(200);
    const { cells, students } = body as FoldedGradebook;
    const placesOf = (name: string) =>
      sure(students.find((each) => each.enrolmentId === idOf(name))).cells[0];
    expect(placesOf('noor')).toEqual(placesOf('jorge'));
    expect(placesOf('noor')).not.toEqual(placesOf('amina'));
    expect(new Set(cells.map((cell) => JSON.stringify(cell))).size).toBe(cells.length);
  });

  it('exports released marks, with cells that begin like a formula made harmless', async () => {
    const excused = { kind: 'excused', reason: 'Ill' };
    await mark({ adjustments: [{ enrolmentId: idOf('jorge'), adjustment: excused }] });
    await release();
    const { text, headers } = await given.instructor
      .get(`/api/courses/${given.course.id}/gradebook.csv`)
      .expect(200);
    expect(headers['content-disposition']).toContain('gradebook.csv');
    const lines = text.replace('\ufeff', '').trim().split('\r\n');
    expect(lines[0]).toBe("Number,Name,Address,'=Report (of 40),Later sheet (of 40)");
    expect(lines).toContain(',Noor,noor@quillmere.example,23.5,');
    expect(lines).toContain(',Jorge,jorge@quillmere.example,excused,');
    expect(lines).toContain(',Amina,amina@quillmere.example,,');
    const sheet = await copyOf(student('amina'), given.course.id, 'Later sheet');
    await given.instructor
      .put(`/api/copies/${sheet}/marks/group`)
      .send({ ...aSheet, typedMark: '12', adjustments: [], version: 0 })
      .expect(200);
    expect((await cellsOf('amina'))[1]).toEqual([['drafted', '12']]);
    const again = await given.instructor.get(`/api/courses/${given.course.id}/gradebook.csv`).expect(200);
    expect(again.text).toContain(',Amina,amina@quillmere.example,,'); // a draft is no one's mark yet
    expect(again.text).not.toContain('12');
  });

  it('does not exist for students and for other courses', async () => {
    const other = await server.instructor('elsewhere@quillmere.example');
    for (const browser of [student('noor'), other]) {
      await browser.get(`/api/courses/${given.course.id}/gradebook`).expect(404);
      await browser.get(`/api/courses/${given.course.id}/gradebook.csv`).expect(404);
    }
  });
});

import { afterAll, beforeAll, expect, it } from '@jest/globals';
import type { MarkView } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import {
  aCourse,
  anAssignment,
  aSheet,
  aText,
  base64,
  copyOf,
  importPaste,
  released,
} from '../test/aCourse.js';
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

/** NUL, and half of an emoji: neither can be kept, in a text column or in JSON. */
const odd = (text: string) => `${text}\0\ud83d`;

it('texts with what no database keeps are saved without it, wherever they are sent', async () => {
  const { instructor, course } = given;
  const draft = (
    await instructor
      .post(`/api/courses/${course.id}/activities`)
      .send(anAssignment({ title: odd('Title'), brief: aText(odd('Brief')) }))
      .expect(200)
  ).body as ActivityView;
  expect(draft.title).toBe('Title\ufffd');
  expect(JSON.stringify(draft.brief)).toContain('Brief\ufffd');

  await released(given, { title: 'Report' });
  const copyId = await copyOf(sure(given.students.get('noor')).browser, course.id, 'Report');
  const path = `/api/copies/${copyId}/marks/group`;
  await instructor
    .put(path)
    .send({ ...aSheet, typedMark: '30', feedback: odd('Good') })
    .expect(200);
  expect(((await instructor.get(path)).body as MarkView).feedback).toBe('Good\ufffd');
  await sure(given.students.get('noor'))
    .browser.put(`/api/copies/${copyId}/part`)
    .send({ text: aText(odd('Part')), version: 0 })
    .expect(200);

  await importPaste(instructor, course.id, `${odd('Ada')} Moss <ada@quillmere.example>`);
  const file = Buffer.from(
    `Email,Name\nben@quillmere.example,${'Ben '.repeat(2000)}\ncleo@quillmere.example,Cl\0eo\n`,
  );
  const source = { kind: 'file', fileName: 'a.csv', contentBase64: base64(file) };
  const seen = await instructor
    .post(`/api/courses/${course.id}/roster/preview`)
    .send({ source, role: 'student', meanings: null });
  expect(seen.status).toBe(200);
  expect(JSON.stringify((seen.body as ImportPreview).rows)).toContain('Cleo');
  const roster = (await instructor.get(`/api/courses/${course.id}/roster`)).body as RosterView;
  expect(roster.entries.map((each) => each.name)).toContain('Ada\ufffd Moss');
});

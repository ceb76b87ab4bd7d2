import { afterAll, beforeAll, expect, it } from '@jest/globals';
import type { MarkView, ReadyMarks } from '@jigsaw/contract/marks';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aSheet, copyOf, importPaste, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  await importPaste(given.instructor, given.course.id, 'Noor <noor.two@quillmere.example>');
});
afterAll(() => server.stop());

const read = async <Answer>(path: string) => (await given.instructor.get(path).expect(200)).body as Answer;
const told = ['Noor (noor.two@quillmere.example)', 'Noor (noor@quillmere.example)'];

it('two of one name are told apart wherever staff place and mark them, and not in files or to students', async () => {
  const { students } = await read<BoardView>(`/api/sets/${given.set.id}/board`);
  const noors = students.map((each) => each.name).filter((name) => name.startsWith('Noor'));
  expect(noors.sort()).toEqual(told);
  const book = await gradebookOf(given);
  expect(
    book.students
      .map((each) => each.name)
      .filter((name) => name.startsWith('Noor'))
      .sort(),
  ).toEqual(told);

  const activity = await released(given, {
    title: 'Alone',
    kind: 'folder',
    settings: { by: 'student' },
  });
  const { browser, enrolmentId } = sure(given.students.get('noor'));
  const copyId = await copyOf(browser, given.course.id, 'Alone');
  const path = `/api/copies/${copyId}/marks/${enrolmentId}`;
  await given.instructor
    .put(path)
    .send({ ...aSheet, typedMark: '30' })
    .expect(200);
  expect((await read<MarkView>(path)).members.map((each) => each.member.name)).toEqual([told[1]]);
  const ready = await read<ReadyMarks>(`/api/releases/${sure(activity.release).id}/marks/ready`);
  expect(ready.toRelease.map((each) => each.who.name)).toEqual([told[1]]);

  const csv = (await given.instructor.get(`/api/courses/${given.course.id}/gradebook.csv`)).text;
  expect(csv).not.toContain('Noor (');
  const file = (await given.instructor.get(`/api/sets/${given.set.id}/groups.csv`)).text;
  expect(file).not.toContain('Noor (');
  const room = await sure(given.students.get('jorge')).browser.get(`/api/courses/${given.course.id}/rooms`);
  expect(JSON.stringify(room.body)).not.toContain('Noor (');
});

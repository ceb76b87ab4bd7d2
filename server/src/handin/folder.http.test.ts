import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { WorkView } from '@jigsaw/contract/handin';
import type { DeskView, MarkView } from '@jigsaw/contract/marks';
import { draftOf } from '@jigsaw/contract/release';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aSheet, aText, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let count = 0;

beforeAll(async () => {
  server = await startTestServer({ largestFileBytes: 3 * 1024 * 1024 });
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(() => server.clock.set('2026-11-10T10:00:00Z'));

const student = (name: string): Browser => sure(given.students.get(name)).browser;
async function aFolder(
  settings: Record<string, unknown>,
): Promise<{ folder: ActivityView; copyId: string; title: string }> {
  count += 1;
  const title = `Folder ${count}`;
  const folder = await released(given, { kind: 'folder', title, settings });
  return { folder, title, copyId: await copyOf(student('noor'), given.course.id, title) };
}
const pdf = Buffer.from('%PDF-1.7\n1 0 obj\n<<>>\nendobj\n');
const exe = Buffer.concat([Buffer.from('MZ'), Buffer.alloc(600)]);
const add = (browser: Browser, copyId: string, name: string, bytes: Buffer) =>
  browser
    .post(`/api/copies/${copyId}/files`)
    .query({ name })
    .set('Content-Type', 'application/octet-stream')
    .send(bytes);
const work = async (browser: Browser, copyId: string) =>
  (await browser.get(`/api/copies/${copyId}/work`).expect(200)).body as WorkView;
const handIn = (browser: Browser, copyId: string, attempt: number) => {
  server.clock.pass({ minutes: 1 });
  return browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt });
};

describe('what a submission folder takes', () => {
  it('takes the types it names and nothing under a false name', async () => {
    const { copyId } = await aFolder({ types: ['pdf', 'csv'], largestMb: 1 });
    await add(student('noor'), copyId, 'report.pdf', pdf).expect(200);
    await add(student('noor'), copyId, 'readings.csv', Buffer.from('hour,pH\n1,6.1\n')).expect(200);
    const wrong = await add(student('noor'), copyId, 'report.docx', pdf).expect(422);
    expect(wrong.body).toMatchObject({
      detail: 'report.docx is not an allowed type here. Save it as .pdf or .csv and add it again.',
    });
    const disguised = await add(student('noor'), copyId, 'report2.pdf', exe).expect(422);
    expect(disguised.body).toMatchObject({
      detail: expect.stringContaining('holds a .exe file under another name'),
    });
    await add(student('noor'), copyId, 'report3.pdf', Buffer.from('just words')).expect(422);
    await add(student('noor'), copyId, 'large.csv', Buffer.alloc(1024 * 1024 + 1, 'a')).expect(413);
    expect((await work(student('jorge'), copyId)).files.map((file) => file.name)).toEqual([
      'report.pdf',
      'readings.csv',
    ]);
    const [left] = await server.app
      .get(DataSource)
      .query<{ count: number }[]>(`SELECT count(*)::int AS "count" FROM "blob" WHERE "sha256" IS NULL`);
    expect(sure(left).count).toBe(0); // nothing stays of what was refused
  });

  it('takes no text, no empty hand-in, and never more files than it says, however many come at once', async () => {
    const { copyId } = await aFolder({ mostFiles: 3 });
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('text'), version: 0 })
      .expect(422);
    const nothing = await handIn(student('noor'), copyId, 1).expect(422);
    expect(nothing.body).toMatchObject({ detail: 'There is nothing to hand in yet. Add a file.' });
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, at) =>
        add(student(at % 2 ? 'noor' : 'jorge'), copyId, `file-${at}.txt`, Buffer.from(`file ${count} ${at}`)),
      ),
    );
    expect(answers.filter((answer) => answer.status === 200)).toHaveLength(3);
    expect(answers.filter((answer) => answer.status === 422)).toHaveLength(27);
    const { files } = await work(student('noor'), copyId);
    expect(files).toHaveLength(3);
    const owner = sure(files[0]).addedBy.name === 'Noor' ? 'noor' : 'jorge';
    await student(owner)
      .delete(`/api/copies/${copyId}/files/${sure(files[0]).id}`)
      .expect(200);
    await addFile(student('noor'), copyId, 'instead.txt', Buffer.from('instead'));
    await student(owner)
      .post(`/api/copies/${copyId}/files/${sure(files[0]).id}/restore`)
      .expect(409); // its place is taken
  });

  it('takes 300 files one after the other no further than its limit', async () => {
    const { copyId } = await aFolder({ mostFiles: 50 });
    let kept = 0;
    for (let at = 0; at < 300; at += 1)
      kept += (await add(student('noor'), copyId, `f${at}.txt`, Buffer.from(`${at}`))).status === 200 ? 1 : 0;
    expect(kept).toBe(50);
  });
});

describe('attempts', () => {
  it('one: what is in stays as it is', async () => {
    const { copyId } = await aFolder({ attempts: 'one' });
    await addFile(student('noor'), copyId, 'a.txt', Buffer.from('a'));
    const { body } = (await handIn(student('noor'), copyId, 1).expect(200)) as { body: WorkView };
    expect(body).toMatchObject({ mayHandIn: false, state: 'done' });
    await add(student('jorge'), copyId, 'b.txt', Buffer.from('b')).expect(409);
    await student('noor')
      .delete(`/api/copies/${copyId}/files/${sure(body.files[0]).id}`)
      .expect(409);
    await handIn(student('jorge'), copyId, 2).expect(409);
  });

  it('latest: the newest counts, the earlier ones stay to be seen', async () => {
    const { copyId } = await aFolder({ attempts: 'latest' });
    const first = await addFile(student('noor'), copyId, 'v1.txt', Buffer.from('v1'));
    await handIn(student('noor'), copyId, 1).expect(200);
    await student('noor')
      .delete(`/api/copies/${copyId}/files/${sure(first.files[0]).id}`)
      .expect(200);
    await addFile(student('noor'), copyId, 'v2.txt', Buffer.from('v2'));
    const { body } = (await handIn(student('jorge'), copyId, 2).expect(200)) as { body: WorkView };
    expect(
      body.handIns.map((each) => [each.attempt, each.handedInBy.name, each.files.map((file) => file.name)]),
    ).toEqual([
      [2, 'Jorge', ['v2.txt']],
      [1, 'Noor', ['v1.txt']],
    ]);
  });

  it('all: each adds what is new, and what is in cannot be taken out', async () => {
    const { copyId } = await aFolder({ attempts: 'all' });
    const first = await addFile(student('noor'), copyId, 'week1.txt', Buffer.from('w1'));
    await handIn(student('noor'), copyId, 1).expect(200);
    await student('noor')
      .delete(`/api/copies/${copyId}/files/${sure(first.files[0]).id}`)
      .expect(409);
    const nothing = await handIn(student('noor'), copyId, 2).expect(422);
    expect(nothing.body).toMatchObject({ detail: 'There is nothing new to hand in. Add a file first.' });
    await addFile(student('jorge'), copyId, 'week2.txt', Buffer.from('w2'));
    const { body } = (await handIn(student('jorge'), copyId, 2).expect(200)) as { body: WorkView };
    expect(body.handIns.map((each) => each.files.map((file) => file.name))).toEqual([
      ['week2.txt'],
      ['week1.txt'],
    ]);
    expect(body.files.map((file) => file.isHandedIn)).toEqual([true, true]);
  });
});

describe('a folder for single students', () => {
  it('stays each student’s own once it is closed, and is no news to teammates', async () => {
    count += 1;
    const title = `Folder ${count}`;
    const closes = '2026-11-11T10:00:00.000Z';
    await released(given, {
      kind: 'folder',
      title,
      settings: { by: 'student' },
      schedule: { opens: null, due: null, closes },
    });
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await add(student('noor'), copyId, 'mine.csv', Buffer.from('a,b')).expect(200);
    await handIn(student('noor'), copyId, 1).expect(200);
    expect(await itemOf(student('jorge'), given.course.id, title)).toMatchObject({ unread: 0, latest: null });
    server.clock.set('2026-11-12T10:00:00Z');
    const seen = await work(student('jorge'), copyId);
    expect([seen.files, seen.handIns, seen.parts]).toEqual([[], [], []]);
    expect((await work(student('noor'), copyId)).handIns).toHaveLength(1);
  });

  it('is handed in by each alone, late by each alone, and marked by each, sorted by group', async () => {
    const { folder, copyId, title } = await aFolder({ by: 'student' });
    const carboys = await copyOf(student('amina'), given.course.id, title);
    await addFile(student('amina'), carboys, 'amina.txt', Buffer.from('amina'));
    await handIn(student('amina'), carboys, 1).expect(200);
    await addFile(student('noor'), copyId, 'noor.txt', Buffer.from('noor'));
    await handIn(student('noor'), copyId, 1).expect(200);
    await addFile(student('jorge'), copyId, 'jorge.txt', Buffer.from('jorge'));
    server.clock.set('2026-11-12T19:00:00Z');
    await handIn(student('jorge'), copyId, 1).expect(200); // 2 h 1 min late: a tenth of 40

    const desk = (await given.instructor.get(`/api/releases/${sure(folder.release).id}/desk`).expect(200))
      .body as DeskView;
    expect(desk.markFor).toBe('student');
    expect(
      desk.rows.map((row) => [row.group?.name, row.student?.name, row.work?.deduction ?? null, row.needsYou]),
    ).toEqual([
      ['Crock', 'Jorge', '4', true],
      ['Crock', 'Noor', '0', true],
      ['Carboy', 'Amina', '0', true],
      ['Carboy', 'Kofi', null, false],
    ]);
    expect((await itemOf(given.instructor, given.course.id, title)).progress).toMatchObject({
      done: 2,
      asked: 2,
      state: 'done',
    });

    const jorge = sure(given.students.get('jorge')).enrolmentId;
    await given.instructor
      .put(`/api/copies/${copyId}/marks/${jorge}`)
      .send({ ...aSheet, typedMark: '30' })
      .expect(200);
    await given.instructor
      .post(`/api/copies/${copyId}/marks/${jorge}/release`)
      .send({ version: 1 })
      .expect(200);
    const mark = (await given.instructor.get(`/api/copies/${copyId}/marks/${jorge}`).expect(200))
      .body as MarkView;
    expect(mark.members).toMatchObject([{ member: { name: 'Jorge' }, mark: '26' }]);
    const mine = async (name: string) =>
      (
        (await student(name).get(`/api/courses/${given.course.id}/my-marks`).expect(200)).body as {
          marks: { title: string; mark: string }[];
        }
      ).marks;
    expect((await mine('jorge')).filter((each) => each.title === title)).toMatchObject([{ mark: '26' }]);
    expect((await mine('noor')).filter((each) => each.title === title)).toEqual([]);
    await given.instructor.get(`/api/copies/${copyId}/marks/group`).expect(404); // the group has no mark here
    await given.instructor
      .get(`/api/copies/${copyId}/marks/${sure(given.students.get('amina')).enrolmentId}`)
      .expect(404);
    await given.instructor
      .post(`/api/copies/${copyId}/marks/${jorge}/recall`)
      .send({ version: 1 })
      .expect(200);
    expect((await mine('jorge')).filter((each) => each.title === title)).toEqual([]);
  });

  it('stays each student’s once there is work', async () => {
    const { folder, copyId } = await aFolder({ by: 'student' });
    await addFile(student('noor'), copyId, 'noor.txt', Buffer.from('noor'));
    await handIn(student('noor'), copyId, 1).expect(200);
    const refused = await given.instructor
      .put(`/api/activities/${folder.id}`)
      .send({ ...draftOf(folder), version: folder.version, settings: { by: 'group' } })
      .expect(409);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('stays as it is') });
  });
});

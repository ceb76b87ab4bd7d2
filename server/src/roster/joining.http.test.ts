import { afterAll, beforeEach, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { RosterChangeList, RosterChanged, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aSheet, aText, copyOf, importPaste, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer | undefined;
let given: CourseForTests;
beforeEach(async () => {
  await server?.stop();
  server = await startTestServer();
  given = await aCourse(server, { students: 5 }); // noor and jorge in Crock, amina and kofi in Carboy, nino in none
});
afterAll(() => server?.stop());

const at = (path: string) => `/api/courses/${given.course.id}/roster${path}`;
const roster = async () => ((await given.instructor.get(at('')).expect(200)).body as RosterView).entries;
const student = (name: string) => sure(given.students.get(name));
const join = (keep: string, other: string) =>
  given.instructor
    .post(at('/changes'))
    .send({ act: 'join', keep: student(keep).enrolmentId, other: student(other).enrolmentId });
const joined = async (keep: string, other: string) =>
  (await join(keep, other).expect(200)).body as RosterChanged;
const undo = (id: string | null) => given.instructor.post(at(`/changes/${id}/undo`));
/** Every row that hangs on an entry, with whose it is; times of seats apart, which begin anew. */
async function everything() {
  const manager = sure(server).app.get(DataSource).manager;
  const tables = [
    'part',
    'hand_in',
    'credit',
    'post',
    'mark',
    'mark_adjustment',
    'released_mark',
    'work_file',
  ];
  const all: Record<string, unknown> = {};
  for (const table of tables) all[table] = await manager.query(`SELECT * FROM "${table}" t ORDER BY t::text`);
  all['seats'] = await manager.query(
    `SELECT "enrolmentId", "groupId" FROM "membership" WHERE "until" IS NULL ORDER BY 1, 2`,
  );
  all['people'] = (await roster()).map(({ email, number, attributes, leftAt }) => ({
    email,
    number,
    attributes,
    hasLeft: leftAt !== null,
  }));
  return all;
}
const write = (name: string, copyId: string, text: string) =>
  student(name)
    .browser.put(`/api/copies/${copyId}/part`)
    .send({ text: aText(text), version: 0 })
    .expect(200);

describe('two entries of one person', () => {
  it('become one, with what each had: text, work, credit, posts and marks; and are parted again', async () => {
    await released(given);
    const copyId = await copyOf(student('noor').browser, given.course.id);
    await write('noor', copyId, 'Salt first.');
    await write('jorge', copyId, 'Then water.');
    await student('jorge').browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    await released(given, { kind: 'discussion', title: 'Bench talk', points: null, settings: {} });
    const talk = await copyOf(student('jorge').browser, given.course.id, 'Bench talk');
    await student('jorge')
      .browser.post(`/api/copies/${talk}/posts`)
      .send({
        id: '01900000-0000-7000-8000-000000000001',
        parentId: null,
        text: aText('Who brings the salt?'),
      })
      .expect(200);
    await given.instructor
      .put(`/api/copies/${copyId}/marks/group`)
      .send({ ...aSheet, typedMark: '30' })
      .expect(200);
    await given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version: 1 }).expect(200);
    const before = await everything();

    const { changeId } = await joined('noor', 'jorge');
    const after = await everything();
    const noor = student('noor').enrolmentId;
    expect(JSON.stringify(after)).not.toContain(student('jorge').enrolmentId);
    expect(after['part']).toMatchObject([{ enrolmentId: noor, words: 4, version: 2 }]);
    expect(after['hand_in']).toMatchObject([{ handedInBy: noor, parts: [{ enrolmentId: noor, words: 4 }] }]);
    expect(after['credit']).toHaveLength(1);
    expect(after['post']).toMatchObject([{ authorId: noor }]);
    expect(after['released_mark']).toMatchObject([{ enrolmentId: noor, mark: '30.00' }]);
    expect((await student('noor').browser.get(`/api/copies/${copyId}/work`).expect(200)).body).toMatchObject({
      parts: [{ words: 4 }],
    });
    await student('jorge').browser.get(`/api/courses/${given.course.id}/rooms`).expect(404);

    await undo(changeId).expect(200);
    const back = await everything();
    // The version of a text counts on, so that anyone who has it open learns of the change.
    expect(back).toEqual(before);
    await student('jorge').browser.get(`/api/copies/${copyId}/work`).expect(200);
  });

  it('are parted after tables have changed: new columns begin as the table says, and those that are gone are not missed', async () => {
    await released(given);
    const copyId = await copyOf(student('noor').browser, given.course.id);
    await write('noor', copyId, 'Salt first.');
    await write('jorge', copyId, 'Then water.');
    await student('jorge').browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const { changeId } = await joined('noor', 'jorge');

    const { manager } = sure(server).app.get(DataSource);
    await manager.query(`ALTER TABLE "credit" ADD COLUMN "share" int NOT NULL DEFAULT 100`);
    await manager.query(`ALTER TABLE "part" ADD COLUMN "isRead" boolean NOT NULL DEFAULT false`);
    await manager.query(`ALTER TABLE "part" DROP COLUMN "words"`);
    await undo(changeId).expect(200);

    const jorge = student('jorge').enrolmentId;
    const credits = await manager.query<{ share: number; enrolmentId: string }[]>(`SELECT * FROM "credit"`);
    expect(credits.map((credit) => credit.share)).toEqual([100, 100]);
    expect(credits.map((credit) => credit.enrolmentId)).toContain(jorge);
    const parts = await manager.query<{ isRead: boolean; text: unknown }[]>(
      `SELECT * FROM "part" WHERE "enrolmentId" = $1`,
      [jorge],
    );
    expect(parts).toMatchObject([{ isRead: false, text: aText('Then water.') }]);
  });

  it('keep the text that was written after they were joined, when they are parted', async () => {
    await released(given);
    const copyId = await copyOf(student('noor').browser, given.course.id);
    await write('noor', copyId, 'Salt first.');
    await write('jorge', copyId, 'Then water.');
    const { changeId } = await joined('noor', 'jorge');
    await student('noor')
      .browser.put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Salt first. Then water. Then wait.'), version: 2 })
      .expect(200);
    await undo(changeId).expect(200);
    const { parts } = (await given.instructor.get(`/api/copies/${copyId}/work`).expect(200)).body as {
      parts: { words: number }[];
    };
    expect(parts.map((part) => part.words).sort()).toEqual([2, 6]);
  });

  it('that both handed in themselves count their attempts in one row', async () => {
    await released(given, { kind: 'folder', title: 'Certificates', settings: { by: 'student' } });
    const copyId = await copyOf(student('noor').browser, given.course.id, 'Certificates');
    const handIn = async (name: string, attempt: number) => {
      sure(server).clock.pass({ minutes: 1 });
      await addFile(student(name).browser, copyId, `${name}${attempt}.txt`, Buffer.from(name));
      await student(name).browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt }).expect(200);
    };
    await handIn('jorge', 1);
    await handIn('noor', 1);
    await handIn('jorge', 2);
    const before = await everything();
    const { changeId } = await joined('noor', 'jorge');
    const attempts = (await everything())['hand_in'] as {
      ownerId: string;
      attempt: number;
      handedInAt: Date;
    }[];
    expect(attempts.sort((a, b) => a.attempt - b.attempt).map((each) => each.attempt)).toEqual([1, 2, 3]);
    expect(attempts.map((each) => each.handedInAt.getTime())).toEqual(
      attempts.map((each) => each.handedInAt.getTime()).sort(),
    );
    await undo(changeId).expect(200);
    expect(await everything()).toEqual(before);
  });

  it('that both have a mark of their own keep that of the one who stays', async () => {
    await released(given, { settings: {} });
    const copyId = await copyOf(student('noor').browser, given.course.id);
    await write('noor', copyId, 'Salt.');
    await student('noor').browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const adjust = (name: string, by: string) => ({
      enrolmentId: student(name).enrolmentId,
      adjustment: { kind: 'adjusted', by, reason: 'Did the trial.' },
    });
    const sheet = { ...aSheet, typedMark: '30', adjustments: [adjust('noor', '1'), adjust('jorge', '2')] };
    await given.instructor.put(`/api/copies/${copyId}/marks/group`).send(sheet).expect(200);
    await given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version: 1 }).expect(200);
    const { changeId } = await joined('noor', 'jorge');
    expect((await everything())['released_mark']).toMatchObject([
      { enrolmentId: student('noor').enrolmentId, mark: '31.00' },
    ]);
    await undo(changeId).expect(200);
    expect(
      ((await everything())['released_mark'] as { mark: string }[]).map((row) => row.mark).sort(),
    ).toEqual(['31.00', '32.00']);
  });

  it('give the one who stays the places, the number and the attributes that they lack', async () => {
    await given.instructor
      .post(at('/changes'))
      .send({
        act: 'edit',
        edits: [
          {
            enrolmentId: student('kofi').enrolmentId,
            from: { number: null },
            to: { number: 'fe-7', attributes: { Lab: 'some' } },
          },
        ],
      })
      .expect(200);
    await joined('nino', 'kofi');
    const nino = sure((await roster()).find((entry) => entry.email.startsWith('nino')));
    expect(nino).toMatchObject({ number: 'fe-7', attributes: { Lab: 'some' }, groups: [{ name: 'Carboy' }] });
    expect((await roster()).some((entry) => entry.email.startsWith('kofi'))).toBe(false);
  });

  it('are one for class files that name the other address', async () => {
    await joined('nino', 'kofi');
    const preview = async (text: string) =>
      (
        await given.instructor
          .post(at('/preview'))
          .send({ source: { kind: 'paste', text }, meanings: null })
          .expect(200)
      ).body as ImportPreview;
    const one = await preview('Nino <kofi@quillmere.example>');
    expect(one.counts).toEqual({ new: 0, changed: 0, unchanged: 1, problem: 0 });
    expect(one.missing.map((person) => person.email)).not.toContain('nino@quillmere.example');
    const two = await preview('Nino <kofi@quillmere.example>\nNino <nino@quillmere.example>');
    expect(two.rows[1]).toMatchObject({
      kind: 'problem',
      sentences: ['Another address of Nino, who is in line 1 already. Keep one of the two.'],
    });
    await importPaste(given.instructor, given.course.id, 'Nino <kofi@quillmere.example>');
    expect(
      (await roster()).filter((entry) => entry.leftAt === null && entry.role === 'student'),
    ).toHaveLength(4);
  });

  it('are joined again by a press of its own, not by undoing the undo', async () => {
    const { changeId } = await joined('nino', 'kofi');
    await undo(changeId).expect(200);
    const { changes } = (await given.instructor.get(at('/changes')).expect(200)).body as RosterChangeList;
    expect(changes.slice(0, 2).map((change) => [change.kind, change.canUndo])).toEqual([
      ['undo', false],
      ['join', false],
    ]);
    await undo(sure(changes[0]).id).expect(409);
    await joined('nino', 'kofi');
  });

  it('are two of this course, and not the one who asks', async () => {
    const you = given.course.enrolmentId;
    const post = (body: object) => given.instructor.post(at('/changes')).send(body);
    await post({ act: 'join', keep: student('noor').enrolmentId, other: you }).expect(422);
    await post({ act: 'join', keep: student('noor').enrolmentId, other: student('noor').enrolmentId }).expect(
      422,
    );
    await joined('noor', 'jorge');
    await join('noor', 'jorge').expect(404);
    await post({ act: 'restore', enrolmentIds: [student('jorge').enrolmentId] }).expect(404);
    await student('noor')
      .browser.post(at('/changes'))
      .send({ act: 'join', keep: student('noor').enrolmentId, other: student('amina').enrolmentId })
      .expect(404);
  });
});

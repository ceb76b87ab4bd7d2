import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DiscussionView, PostView, TalkChanges } from '@jigsaw/contract/discussion';
import { sure } from '@jigsaw/core/lists';
import { DataSource } from 'typeorm';
import { newId } from '../platform/ids.js';
import { aCourse, aText, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let copyId: string;
let title: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  title = `Talk ${count}`;
  server.clock.set('2026-11-10T10:00:00Z');
  await released(given, {
    kind: 'discussion',
    title,
    points: '9',
    settings: { posts: 1, postWords: 3, replies: 2, replyWords: 2 },
  });
  copyId = await copyOf(student('noor'), given.course.id, title);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const post = (browser: Browser, text: string, more: object = {}) =>
  browser
    .post(`/api/copies/${copyId}/posts`)
    .send({ id: newId(), parentId: null, text: aText(text), ...more });
const written = async (browser: Browser, text: string, more: object = {}): Promise<PostView> => {
  server.clock.pass({ minutes: 1 });
  return (await post(browser, text, more).expect(200)).body as PostView;
};
const read = async (browser: Browser) =>
  (await browser.get(`/api/copies/${copyId}/discussion`).expect(200)).body as DiscussionView;
const textsOf = ({ threads }: DiscussionView) =>
  threads.map((thread) =>
    thread.posts.map((each) =>
      each.text ? sure(JSON.stringify(each.text).match(/"text":"([^"]+)"/))[1] : '—',
    ),
  );

describe('a group’s discussion', () => {
  it('has threads with replies, in the order in which they were written, counted in words', async () => {
    const first = await written(student('noor'), 'Nose: cut grass.');
    const reply = await written(student('jorge'), 'Mine was sharper.', { parentId: first.id });
    await written(student('jorge'), 'I read the meter first.');
    await written(given.instructor, 'Taste before you read.', { parentId: reply.id });
    const view = await read(student('noor'));
    expect(textsOf(view)).toEqual([
      ['Nose: cut grass.', 'Mine was sharper.', 'Taste before you read.'],
      ['I read the meter first.'],
    ]);
    expect(
      sure(view.threads[0]).posts.map(({ author, words, isNew, parentId }) => [
        author.name,
        author.isStaff,
        words,
        isNew,
        parentId,
      ]),
    ).toEqual([
      ['Noor', false, 3, false, null],
      ['Jorge', false, 3, true, first.id],
      ['Dr. Ilse Marrow', true, 4, true, reply.id],
    ]);
  });

  it('writes a post once that is sent twice', async () => {
    const id = newId();
    const answers = await Promise.all([1, 2, 3].map(() => post(student('noor'), 'Once only.', { id })));
    expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200]);
    expect(textsOf(await read(student('jorge')))).toEqual([['Once only.']]);
    expect((await itemOf(student('jorge'), given.course.id, title)).unread).toBe(1);
  });

  it('lets each change their own and shows both texts when two windows did', async () => {
    const mine = await written(student('noor'), 'First draft of it.');
    const changed = (
      await student('noor')
        .put(`/api/copies/${copyId}/posts/${mine.id}`)
        .send({ text: aText('Second.'), version: 1 })
        .expect(200)
    ).body as PostView;
    expect(changed).toMatchObject({ version: 2, words: 1 });
    expect(changed.editedAt).not.toBeNull();
    const stale = await student('noor')
      .put(`/api/copies/${copyId}/posts/${mine.id}`)
      .send({ text: aText('Third.'), version: 1 })
      .expect(409);
    expect(JSON.stringify(stale.body)).toContain('Second.');
    await student('jorge')
      .put(`/api/copies/${copyId}/posts/${mine.id}`)
      .send({ text: aText('Jorge’s.'), version: 2 })
      .expect(403);
    await given.instructor
      .put(`/api/copies/${copyId}/posts/${mine.id}`)
      .send({ text: aText('Staff’s.'), version: 2 })
      .expect(403);
  });

  it('takes a post out with a gap where answers hang on it, and puts it back', async () => {
    const first = await written(student('noor'), 'To be regretted.');
    await written(student('jorge'), 'An answer to it.', { parentId: first.id });
    const alone = await written(student('noor'), 'No one answered this.');
    await student('noor').delete(`/api/copies/${copyId}/posts/${first.id}`).expect(200);
    await student('noor').delete(`/api/copies/${copyId}/posts/${alone.id}`).expect(200);
    await student('noor').delete(`/api/copies/${copyId}/posts/${alone.id}`).expect(200); // a second press changes nothing
    expect(textsOf(await read(student('jorge')))).toEqual([['—', 'An answer to it.']]);
    expect(JSON.stringify(await read(student('jorge')))).not.toContain('regretted');
    expect(textsOf(await read(student('noor')))).toEqual([['—', 'An answer to it.'], ['—']]); // anyone who took it out may still put it back
    await student('jorge').post(`/api/copies/${copyId}/posts/${first.id}/restore`).expect(404);
    await student('noor').post(`/api/copies/${copyId}/posts/${first.id}/restore`).expect(200);
    expect(textsOf(await read(student('jorge')))[0]).toEqual(['To be regretted.', 'An answer to it.']);
    await post(student('jorge'), 'Too late.', { parentId: alone.id }).expect(409);
  });

  it('lets staff take out what a student wrote, not a teammate', async () => {
    const first = await written(student('noor'), 'Rude words here.');
    await student('jorge').delete(`/api/copies/${copyId}/posts/${first.id}`).expect(403);
    await given.instructor.delete(`/api/copies/${copyId}/posts/${first.id}`).expect(200);
    await student('noor').post(`/api/copies/${copyId}/posts/${first.id}/restore`).expect(404);
    expect(textsOf(await read(student('noor')))).toEqual([]);
  });

  it('leaves opening threads to staff where it is set so', async () => {
    await released(given, {
      kind: 'discussion',
      title: `Asked ${count}`,
      settings: { studentsOpenThreads: false },
    });
    const asked = await copyOf(student('noor'), given.course.id, `Asked ${count}`);
    await student('noor')
      .post(`/api/copies/${asked}/posts`)
      .send({ id: newId(), parentId: null, text: aText('Mine') })
      .expect(403);
    const { id } = (
      await given.instructor
        .post(`/api/copies/${asked}/posts`)
        .send({ id: newId(), parentId: null, text: aText('What is pH?') })
        .expect(200)
    ).body as PostView;
    await student('noor')
      .post(`/api/copies/${asked}/posts`)
      .send({ id: newId(), parentId: id, text: aText('A measure.') })
      .expect(200);
  });

  it('is read only once closed, and not written in by those who read along', async () => {
    await released(
      given,
      {
        kind: 'discussion',
        title: `Along ${count}`,
        schedule: { opens: null, due: null, closes: '2026-11-11T00:00:00.000Z' },
      },
      { mode: 'read-along' },
    );
    const along = await copyOf(student('noor'), given.course.id, `Along ${count}`);
    const attempt = (name: string) =>
      student(name)
        .post(`/api/copies/${along}/posts`)
        .send({ id: newId(), parentId: null, text: aText('Hello there') });
    await attempt('amina').expect(403);
    await attempt('noor').expect(200);
    server.clock.set('2026-11-11T00:00:00Z');
    await attempt('noor').expect(409);
    await student('amina').get(`/api/copies/${along}/discussion`).expect(200);
  });

  it('shows what each did, and the marks that it comes to, to no one of another group who reads along', async () => {
    const title = `Counted ${count}`;
    await released(
      given,
      { kind: 'discussion', title, points: '10', settings: { posts: 1, replies: 0 } },
      { mode: 'read-along' },
    );
    const along = await copyOf(student('noor'), given.course.id, title);
    const met = async (browser: Browser) =>
      ((await browser.get(`/api/copies/${along}/discussion`).expect(200)).body as DiscussionView).met;
    expect(await met(student('amina'))).toEqual([]);
    expect((await itemOf(given.instructor, given.course.id, title)).progress).toMatchObject({
      done: 0,
      asked: 2,
    });
    expect((await met(student('noor'))).map((each) => [each.member.name, each.suggested])).toEqual([
      ['Noor', null],
    ]);
    const seen = await met(given.instructor);
    expect(seen.length).toBeGreaterThan(1);
    expect(seen.every((each) => each.suggested !== null)).toBe(true);
  });

  it('refuses nothing at all, what is no text of the editor, and a text of a megabyte', async () => {
    await post(student('noor'), ' ').expect(422);
    await post(student('noor'), '', {
      text: { type: 'doc', content: [{ type: 'script', content: [{ type: 'text', text: 'alert(1)' }] }] },
    }).expect(422);
    const longest = await post(student('noor'), 'brine '.repeat(180_000)).expect(413);
    expect(longest.body).toMatchObject({ detail: expect.stringContaining('This is too long.') });
    const long = await post(student('noor'), 'brine '.repeat(40_000)).expect(422);
    expect(long.body).toMatchObject({ detail: 'The text is too long: 200,000 characters are the most.' });
    expect(textsOf(await read(student('noor')))).toEqual([]);
  });

  it('gives long talks a page at a time, each thread whole', async () => {
    const ids: string[] = [];
    for (let at = 0; at < 63; at += 1) ids.push((await written(student('noor'), `Thread number ${at}`)).id);
    await written(student('jorge'), 'A late reply.', { parentId: ids[0] });
    const first = await read(student('jorge'));
    expect([first.threads.length, sure(first.threads[0]).posts.length, first.next]).toEqual([60, 2, ids[59]]);
    const rest = (
      await student('jorge').get(`/api/copies/${copyId}/discussion`).query({ after: first.next }).expect(200)
    ).body as DiscussionView;
    expect([rest.threads.map((thread) => thread.id), rest.next]).toEqual([ids.slice(60), null]);
  });
});

describe('what became of a discussion', () => {
  const changes = async (since: number, browser = student('jorge')) =>
    (await browser.get(`/api/copies/${copyId}/discussion/changes`).query({ since }).expect(200))
      .body as TalkChanges;
  const told = ({ asOf, threads, met }: TalkChanges) =>
    textsOf({ asOf, threads: sure(threads), met, next: null, mayOpenThread: true, mayReply: true });

  it('is told by the threads in which something happened, each whole, and by nothing else', async () => {
    const first = await written(student('noor'), 'The first thread.');
    const second = await written(student('noor'), 'The second thread.');
    const { asOf } = await read(student('jorge'));
    expect(told(await changes(asOf))).toEqual([]);
    await written(student('noor'), 'An answer.', { parentId: first.id });
    const one = await changes(asOf);
    expect(told(one)).toEqual([['The first thread.', 'An answer.']]);
    expect(sure(one.threads)[0]?.posts.map((each) => each.isNew)).toEqual([true, true]);
    await written(student('noor'), 'The third thread.');
    const two = await changes(one.asOf);
    expect(told(two)).toEqual([['The third thread.']]);
    await student('noor').delete(`/api/copies/${copyId}/posts/${second.id}`).expect(200);
    const three = await changes(two.asOf);
    expect(three.threads).toEqual([{ id: second.id, posts: [] }]); // for them it is gone
    await student('noor').post(`/api/copies/${copyId}/posts/${second.id}/restore`).expect(200);
    expect(told(await changes(three.asOf))).toEqual([['The second thread.']]);
  });

  it('misses nothing of what two write at one moment', async () => {
    const { asOf } = await read(student('jorge'));
    const both = [student('noor'), given.instructor].map((browser) => post(browser, 'At once.').expect(200));
    const between: TalkChanges[] = [];
    const writing = { isOver: false };
    void Promise.all(both).then(() => (writing.isOver = true));
    while (!writing.isOver) between.push(await changes(between.at(-1)?.asOf ?? asOf));
    between.push(await changes(between.at(-1)?.asOf ?? asOf));
    const threads = between.flatMap((each) => sure(each.threads)); // one may be told twice, none not at all
    expect(new Set(threads.map((thread) => thread.id)).size).toBe(2);
    const turns = between.map((each) => each.asOf);
    expect(sure(turns.at(-1))).toBe(asOf + 2);
  });

  it('waits for what is being written in its talk, and tells nothing of what is written elsewhere', async () => {
    const { id } = await written(student('noor'), 'Begun.');
    const slow = server.app.get(DataSource).createQueryRunner();
    await slow.startTransaction();
    await slow.query(`SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE`, [copyId]);
    const waiting = post(student('noor'), 'After it.').expect(200).then(() => 'kept'); // prettier-ignore
    const first = await Promise.race([waiting, read(student('jorge'))]);
    expect(first).toMatchObject({ asOf: 1 });
    await slow.query(`UPDATE "post" SET "turn" = 2 WHERE "id" = $1`, [id]);
    await slow.commitTransaction();
    await slow.release();
    expect(await waiting).toBe('kept');
    expect((await read(student('jorge'))).asOf).toBe(3);
    const elsewhere = await copyOf(student('amina'), given.course.id, title);
    await student('amina')
      .post(`/api/copies/${elsewhere}/posts`)
      .send({ id: newId(), parentId: null, text: aText('Of Carboy.') })
      .expect(200);
    expect((await read(student('jorge'))).asOf).toBe(3);
  });

  it('is to be read whole where it is too much, and asks for a moment that can be one', async () => {
    const { asOf } = await read(student('jorge'));
    for (let at = 0; at < 61; at += 1) await written(student('noor'), `Thread number ${at}`);
    expect((await changes(asOf)).threads).toBeNull();
    for (const since of ['', 'yesterday', '-1', '9999999999', '1.5', "1'; --"])
      await student('jorge').get(`/api/copies/${copyId}/discussion/changes`).query({ since }).expect(422);
    await student('jorge').get(`/api/copies/${copyId}/discussion/changes?since=2147483647`).expect(200);
  });
});

describe('what a discussion asks', () => {
  it('tells each student how far they are, and staff everyone’s with what it would come to', async () => {
    const first = await written(student('noor'), 'Three words here.');
    await written(student('noor'), 'Two words.', { parentId: first.id });
    await written(student('jorge'), 'Short.', { parentId: first.id });
    expect((await read(student('noor'))).met).toMatchObject([
      {
        member: { name: 'Noor' },
        posts: { done: 1 },
        replies: { done: 1 },
        isComplete: false,
        suggested: null,
      },
    ]);
    expect(
      (await read(given.instructor)).met.map(({ member, suggested }) => [member.name, suggested]),
    ).toEqual([
      ['Jorge', '0'],
      ['Noor', '6'],
    ]);
    expect((await itemOf(student('noor'), given.course.id, title)).progress).toMatchObject({
      done: 2,
      asked: 3,
      owes: true,
      state: 'in-work',
    });
    await written(student('noor'), 'One more.', { parentId: first.id });
    expect((await itemOf(student('noor'), given.course.id, title)).progress).toMatchObject({
      done: 3,
      asked: 3,
      owes: false,
      state: 'done',
    });
    expect((await itemOf(given.instructor, given.course.id, title)).progress).toMatchObject({
      done: 1,
      asked: 2,
    });
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { PageView, RevisionView, WikiView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { newId } from '../platform/ids.js';
import { aCourse, aText, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let copyId: string;
let pageId: string;
let title: string;
let count = 0;
const prompt = {
  type: 'doc' as const,
  content: [
    {
      type: 'paragraph',
      content: [
        { type: 'text', text: 'What ' },
        { type: 'placeholder', attrs: { what: 'group-name' } },
        { type: 'text', text: ' sees each day.' },
      ],
    },
  ],
};

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  title = `Log ${count}`;
  server.clock.set('2026-11-10T10:00:00Z');
  await released(given, {
    kind: 'wiki',
    title,
    settings: { promptTitle: 'How we keep this log', promptText: prompt },
  });
  copyId = await copyOf(student('noor'), given.course.id, title);
  pageId = sure((await wiki(student('noor'))).pages[0]).id;
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const at = () => `/api/copies/${copyId}/wiki`;
const wiki = async (browser: Browser) => (await browser.get(at()).expect(200)).body as WikiView;
const save = (browser: Browser, text: string, basedOn: number, more: object = {}) => {
  server.clock.pass({ minutes: 1 });
  return browser
    .put(`${at()}/pages/${pageId}`)
    .send({ title: 'How we keep this log', text: aText(text), basedOn, ...more });
};
const page = async (browser: Browser) =>
  (await browser.get(`${at()}/pages/${pageId}`).expect(200)).body as PageView;

describe('a group’s wiki', () => {
  it('begins in every copy with the prompt page, which is no news, and with the blanks left to be filled', async () => {
    const carboy = await copyOf(student('amina'), given.course.id, title);
    const view = (await student('amina').get(`/api/copies/${carboy}/wiki`).expect(200)).body as WikiView;
    expect(view.pages).toMatchObject([
      { title: 'How we keep this log', revision: 1, isNew: false, savedBy: { isStaff: true } },
    ]);
    expect(sure(view.pages[0]).id).not.toBe(pageId);
    expect((await page(student('noor'))).text).toEqual(prompt);
    expect((await itemOf(student('amina'), given.course.id, title)).unread).toBe(0);
  });

  it('keeps every save as a revision with its author and what it changed', async () => {
    await save(student('noor'), 'Day 1: salted at two percent.', 1).expect(200);
    await save(student('jorge'), 'Day 1: salted at two and a half percent.', 2).expect(200);
    const { revisions, revision } = await page(student('noor'));
    expect(revision).toBe(3);
    expect(
      revisions.map(({ number, author, words, added, removed }) => [
        number,
        author.name,
        words,
        added,
        removed,
      ]),
    ).toEqual([
      [3, 'Jorge', 9, 3, 0],
      [2, 'Noor', 6, 6, 6],
      [1, 'Dr. Ilse Marrow', 6, 6, 0],
    ]);
    const second = (await student('jorge').get(`${at()}/pages/${pageId}/revisions/2`).expect(200))
      .body as RevisionView;
    expect(second.text).toEqual(aText('Day 1: salted at two percent.'));
    await student('jorge').get(`${at()}/pages/${pageId}/revisions/4`).expect(404);
    await student('jorge').get(`${at()}/pages/${pageId}/revisions/last`).expect(404);
  });

  it('refuses a save that began from an older revision and shows the newest; nothing is lost', async () => {
    await save(student('noor'), 'Noor’s day 1.', 1).expect(200);
    const stale = await save(student('jorge'), 'Jorge’s day 1.', 1).expect(409);
    expect(stale.body).toMatchObject({
      current: { revision: 2, text: aText('Noor’s day 1.'), savedBy: { name: 'Noor' } },
    });
    await save(student('jorge'), 'Noor’s and Jorge’s day 1.', 2).expect(200);
    expect((await page(student('noor'))).revisions).toHaveLength(3);
  });

  it('keeps one of many saves at the same moment, and refuses the others with it', async () => {
    const answers = await Promise.all(
      ['noor', 'jorge', 'noor', 'jorge'].map((name) => save(student(name), `${name} ${Math.random()}`, 1)),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409]);
  });

  it('makes no revision of a save that changes nothing', async () => {
    await save(student('noor'), 'Day 1.', 1).expect(200);
    await save(student('noor'), 'Day 1.', 2).expect(200);
    expect((await page(student('noor'))).revisions).toHaveLength(2);
  });

  it('makes a page once that is sent twice, links to it by its id, and refuses links that lead elsewhere', async () => {
    const id = newId();
    await Promise.all(
      [1, 2].map(() =>
        student('noor').post(`${at()}/pages`).send({ id, title: 'The salt mistake' }).expect(200),
      ),
    );
    expect((await wiki(student('jorge'))).pages.map((each) => [each.title, each.isNew])).toEqual([
      ['How we keep this log', false],
      ['The salt mistake', true],
    ]);
    const linked = (attrs: object) => ({
      type: 'doc',
      content: [
        { type: 'paragraph', content: [{ type: 'text', text: 'see', marks: [{ type: 'pageLink', attrs }] }] },
      ],
    });
    await save(student('noor'), '', 1, { text: linked({ pageId: id }) }).expect(200);
    expect((await page(student('jorge'))).text).toEqual(linked({ pageId: id }));
    await save(student('noor'), '', 2, { text: linked({ pageId: 'javascript:alert(1)' }) }).expect(422);
  });

  it('takes a page out with all its revisions and puts it back', async () => {
    await save(student('noor'), 'Day 1.', 1).expect(200);
    await student('jorge').delete(`${at()}/pages/${pageId}`).expect(200);
    await save(student('noor'), 'Day 2.', 2).expect(409);
    expect((await wiki(student('noor'))).pages[0]).toMatchObject({ isDeleted: true });
    await student('noor').post(`${at()}/pages/${pageId}/restore`).expect(200);
    await save(student('noor'), 'Day 2.', 2).expect(200);
  });

  it('is new to the others with each save, until they have seen it', async () => {
    await save(student('noor'), 'Day 1.', 1).expect(200);
    expect((await itemOf(student('jorge'), given.course.id, title)).unread).toBe(1);
    expect((await itemOf(student('noor'), given.course.id, title)).unread).toBe(0);
    const seen = (version: number) =>
      student('jorge')
        .post(`/api/copies/${copyId}/seen`)
        .send({ what: 'items', items: [{ id: pageId, version }] });
    await seen(2).expect(200, { unread: 0 });
    await save(student('noor'), 'Day 2.', 2).expect(200);
    await seen(2).expect(200, { unread: 1 }); // what was seen is the older one
    await seen(99).expect(200, { unread: 0 });
    await save(student('noor'), 'Day 3.', 3).expect(200); // and no later version was marked ahead
    expect((await itemOf(student('jorge'), given.course.id, title)).unread).toBe(1);
  });

  it('tells who wrote how much, and takes staff for no member', async () => {
    await save(student('noor'), 'One two three.', 1).expect(200);
    await save(given.instructor, 'One two three. Well kept.', 2).expect(200);
    expect((await wiki(student('noor'))).writers).toMatchObject([
      { member: { name: 'Noor' }, revisions: 1, added: 3 },
    ]);
  });

  it('is closed to readers and once its time is over', async () => {
    await released(
      given,
      {
        kind: 'wiki',
        title: `Open ${count}`,
        schedule: { opens: null, due: null, closes: '2026-11-11T00:00:00.000Z' },
      },
      { mode: 'read-along' },
    );
    const along = await copyOf(student('noor'), given.course.id, `Open ${count}`);
    const attempt = (name: string) =>
      student(name).post(`/api/copies/${along}/wiki/pages`).send({ id: newId(), title: 'Mine' });
    await attempt('amina').expect(403);
    await attempt('noor').expect(200);
    server.clock.set('2026-11-11T00:00:00Z');
    await attempt('noor').expect(409);
  });

  it('of which a page was taken out has it for its members alone: for readers it is gone, with all its revisions', async () => {
    await released(given, { kind: 'wiki', title: `Gone ${count}` }, { mode: 'read-along' });
    const along = await copyOf(student('noor'), given.course.id, `Gone ${count}`);
    const id = newId();
    const pages = `/api/copies/${along}/wiki/pages`;
    await student('noor').post(pages).send({ id, title: 'Secret' }).expect(200);
    const seenBy = async (name: string) =>
      ((await student(name).get(`/api/copies/${along}/wiki`).expect(200)).body as WikiView).pages.some(
        (each) => each.id === id,
      );
    const reads = async (name: string, status: number) => {
      await student(name).get(`${pages}/${id}`).expect(status);
      await student(name).get(`${pages}/${id}/revisions/1`).expect(status);
    };
    expect(await seenBy('amina')).toBe(true);
    await reads('amina', 200);
    await student('noor').delete(`${pages}/${id}`).expect(200);
    expect([await seenBy('amina'), await seenBy('jorge')]).toEqual([false, true]);
    await reads('amina', 404);
    await reads('jorge', 200);
  });

  it('refuses a page without a title and a text of a megabyte, and keeps what is there', async () => {
    await save(student('noor'), 'Day 1.', 1, { title: ' ' }).expect(422);
    await save(student('noor'), 'brine '.repeat(180_000), 1).expect(413);
    await save(student('noor'), 'brine '.repeat(40_000), 1).expect(422);
    expect((await page(student('noor'))).revision).toBe(1);
  });
});

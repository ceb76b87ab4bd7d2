import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { DiscussionView } from '@jigsaw/contract/discussion';
import { sure } from '@jigsaw/core/lists';
import { newId } from '../platform/ids.js';
import { aCourse, aText, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { theClass } from '@jigsaw/core/release';

let server: TestServer;
let given: CourseForTests;
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
});
afterAll(() => server.stop());

type Who = 'noor' | 'jorge' | 'staff';
const people: readonly Who[] = ['noor', 'jorge', 'staff'];
const browserOf = (who: Who): Browser =>
  who === 'staff' ? given.instructor : sure(given.students.get(who)).browser;

/** What people do in one talk; `which` picks one of the posts that are there. */
type Act =
  | { readonly act: 'post'; readonly who: Who }
  | { readonly act: 'change' | 'delete' | 'restore' | 'see'; readonly which: number; readonly who: Who }
  | { readonly act: 'see-all'; readonly who: Who };
const who = fc.constantFrom(...people);
const anAct: fc.Arbitrary<Act> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ act: fc.constant('post' as const), who }) },
  {
    weight: 3,
    arbitrary: fc.record({
      act: fc.constantFrom('change' as const, 'delete' as const, 'restore' as const, 'see' as const),
      which: fc.nat(),
      who,
    }),
  },
  { weight: 1, arbitrary: fc.record({ act: fc.constant('see-all' as const), who }) },
);

interface Post {
  readonly id: string;
  readonly author: Who;
  version: number;
  isOut: boolean;
  readonly seen: Map<Who, number>;
}

/** The rule in its plainest form, written apart from the query: go through every post. */
const recount = (posts: readonly Post[], reader: Who) =>
  posts.filter((post) => post.author !== reader && !post.isOut && post.version > (post.seen.get(reader) ?? 0))
    .length;

describe('what is unread', () => {
  it('is what a slow recount finds, whatever people did', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anAct, { minLength: 4, maxLength: 14 }), async (acts) => {
        count += 1;
        const title = `Talk ${count}`;
        await released(given, { kind: 'discussion', title });
        const copyId = await copyOf(browserOf('noor'), given.course.id, title);
        const posts: Post[] = [];
        for (const act of acts) {
          const browser = browserOf(act.who);
          server.clock.pass({ minutes: 1 });
          const at = (post: Post) => `/api/copies/${copyId}/posts/${post.id}`;
          const own = posts.filter((post) => post.author === act.who);
          if (act.act === 'post') {
            const id = newId();
            await browser
              .post(`/api/copies/${copyId}/posts`)
              .send({ id, parentId: null, text: aText('Something new') })
              .expect(200);
            posts.push({ id, author: act.who, version: 1, isOut: false, seen: new Map() });
          } else if (act.act === 'see-all') {
            await browser.post(`/api/copies/${copyId}/seen`).send({ what: 'all' }).expect(200);
            for (const post of posts)
              if (post.author !== act.who && !post.isOut) post.seen.set(act.who, post.version);
          } else if (act.act === 'see') {
            const post = posts[act.which % (posts.length || 1)];
            if (!post) continue;
            await browser
              .post(`/api/copies/${copyId}/seen`)
              .send({ what: 'items', items: [{ id: post.id, version: post.version }] })
              .expect(200);
            if (post.author !== act.who && !post.isOut) post.seen.set(act.who, post.version);
          } else {
            const post = own[act.which % (own.length || 1)];
            if (!post) continue;
            if (act.act === 'change') {
              if (post.isOut) continue;
              await browser
                .put(at(post))
                .send({ text: aText(`Changed ${post.version}`), version: post.version })
                .expect(200);
              post.version += 1;
            } else if (act.act === 'delete') {
              await browser.delete(at(post)).expect(200);
              post.isOut = true;
            } else {
              await browser.post(`${at(post)}/restore`).expect(200);
              post.isOut = false;
            }
          }
        }
        for (const reader of people) {
          const item =
            reader === 'staff'
              ? ((await browserOf('staff').get(`/api/copies/${copyId}`)).body as { unread: number })
              : await itemOf(browserOf(reader), given.course.id, title);
          expect({ reader, unread: item.unread }).toEqual({ reader, unread: recount(posts, reader) });
          const view = (await browserOf(reader).get(`/api/copies/${copyId}/discussion`))
            .body as DiscussionView;
          expect(
            view.threads.flatMap((thread) => thread.posts).filter((post) => post.isNew && post.text !== null),
          ).toHaveLength(recount(posts, reader));
        }
      }),
      { numRuns: 12 },
    );
  });

  it('is counted on the track over all rooms, of groups read along and of the class too', async () => {
    const before = async (name: Who) =>
      ((await browserOf(name).get(`/api/courses/${given.course.id}/figures`)).body as { unread: number })
        .unread;
    for (const name of people) {
      for (const { id } of (await server.rows(`SELECT "id" FROM "copy"`)) as { id: string }[])
        await browserOf(name).post(`/api/copies/${id}/seen`).send({ what: 'all' });
    }
    expect(await Promise.all(people.map(before))).toEqual([0, 0, 0]);
    await released(given, { kind: 'discussion', title: 'Along' }, { mode: 'read-along' });
    await released(given, { kind: 'discussion', title: 'Class' }, { to: theClass, mode: 'common' });
    const amina = sure(given.students.get('amina')).browser;
    for (const title of ['Along', 'Class'])
      await amina
        .post(`/api/copies/${await copyOf(amina, given.course.id, title)}/posts`)
        .send({ id: newId(), parentId: null, text: aText('From Carboy') })
        .expect(200);
    expect(await Promise.all(people.map(before))).toEqual([2, 2, 2]);
  });
});

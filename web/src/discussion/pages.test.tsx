import { describe, expect, it } from '@jest/globals';
import { api } from '../api/index.js';
import { screen, waitFor, within } from '@testing-library/react';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aGroup, aHead, anAuthor, aPost, aTalk, id, text } from '../test/data.js';
import { aMark } from '../test/markings.js';
import { aRow, desk } from '../test/onDesk.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const copyPath = `copies/${id('copy')}`;
const settings = { posts: 1, postWords: 120, replies: 2, replyWords: 40 };
const talk = (
  view: DiscussionView,
  more = {},
  head: Partial<CopyHead> = {},
  role: 'student' | 'instructor' = 'student',
) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    {
      [`GET ${copyPath}`]: aHead({ kind: 'discussion', title: 'Tasting critique', settings, ...head }),
      [`GET ${copyPath}/discussion`]: view,
      ...more,
    },
    role,
  );
const jorge = aPost('Jorge', 'Nose of walnut');
const saved = (post: PostView, met: DiscussionView['met'] = []) => ({ ...post, met });
const noor = aPost('Noor', 'Mine was toast', { parentId: jorge.id });

describe('a discussion', () => {
  it('shows threads with answers, who is staff, what is new, and how long each is against what is asked', async () => {
    const staff = aPost('Ilse', 'Taste first', {
      parentId: noor.id,
      threadId: jorge.id,
      author: anAuthor('Dr. Ilse Marrow', { isStaff: true }),
      isNew: true,
    });
    talk(aTalk([[jorge, noor, staff]]));
    const thread = await screen.findByRole('region', { name: 'Thread of Jorge' });
    const [first, second, third] = within(thread).getAllByRole('article');
    expect(first).toHaveTextContent(/Jorge.*3 of 120 words.*Nose of walnut/);
    expect(second).toHaveTextContent(/Noor.*3 of 40 words/);
    expect(third).toHaveTextContent(/Dr. Ilse Marrow.*staff.*new.*to Noor/);
    expect(screen.getByText('1 unread')).toBeInTheDocument();
  });

  it('tells a student how far they are, and staff everyone', async () => {
    const met = {
      posts: { done: 1, asked: 1 },
      replies: { done: 0, asked: 2 },
      words: 3,
      isComplete: false,
      suggested: null,
    };
    talk(aTalk([[jorge]], { met: [{ member: anAuthor('Noor', { isYou: true }), ...met }] }));
    const side = await screen.findByRole('complementary', { name: 'Requirement' });
    expect(side).toHaveTextContent('For Crock');
    expect(side).toHaveTextContent(
      /You so far.*1 post of 120 words and 2 replies of 40 words.*Incomplete1 of 10 of 2/,
    );
  });

  it('answers under what is answered, once, and counts words as they are typed', async () => {
    const { user, writes } = talk(aTalk([[jorge]]), {
      [`POST ${copyPath}/posts`]: saved(noor),
    });
    await user.click(await screen.findByRole('button', { name: 'Reply to Jorge' }));
    const box = await screen.findByRole('textbox', { name: 'Your reply to Jorge' });
    await user.click(box);
    await user.keyboard('Mine was toast');
    expect(await screen.findByText('3 of 40 words', { selector: '[role=status] span' })).toBeInTheDocument();
    expect(screen.getByText('37 words to go. You can still post it.')).toBeInTheDocument();
    await user.click(sure(screen.getAllByRole('button', { name: 'Reply to Jorge' }).at(-1)));
    await waitFor(() =>
      expect(writes().filter((write) => write.path === `${copyPath}/posts`)).toHaveLength(1),
    );
    expect(sure(writes()[0]).body).toMatchObject({
      parentId: jorge.id,
      text: { content: [{ content: [{ text: 'Mine was toast' }] }] },
    });
    await waitFor(() =>
      expect(screen.queryByRole('textbox', { name: 'Your reply to Jorge' })).not.toBeInTheDocument(),
    );
  });

  it('shows one’s own post from the answer, with how far it brings one, and does not ask for the talk again', async () => {
    const met = { posts: { done: 1, asked: 1 }, replies: { done: 0, asked: 2 }, words: 2, isComplete: false, suggested: null }; // prettier-ignore
    const you = anAuthor('Noor', { isYou: true });
    const { user, asked } = talk(
      aTalk([[jorge]], { met: [{ member: you, ...met, posts: { done: 0, asked: 1 } }] }),
      { [`POST ${copyPath}/posts`]: saved(aPost('Noor', 'My own'), [{ member: you, ...met }]) },
    );
    const times = () => asked.filter((each) => each.path === `${copyPath}/discussion`).length;
    await user.click(await screen.findByRole('textbox', { name: 'New post' }));
    await user.keyboard('My own');
    await user.click(screen.getByRole('button', { name: 'Post to Crock' }));
    expect(await screen.findByRole('region', { name: 'Thread of Noor' })).toHaveTextContent('My own');
    expect(screen.getByRole('complementary', { name: 'Requirement' })).toHaveTextContent('Incomplete1 of 1');
    expect(times()).toBe(1);
  });

  it('takes in what a teammate wrote, without asking for the whole talk again', async () => {
    const { asked, store, set } = talk(aTalk([[jorge]]));
    await screen.findByRole('region', { name: 'Thread of Jorge' });
    const kofi = aPost('Kofi', 'Warmer today', { threadId: jorge.id, parentId: jorge.id });
    set(`GET ${copyPath}/discussion/changes`, {
      asOf: 701,
      threads: [{ id: jorge.id, posts: [jorge, kofi] }],
      met: [],
    });
    store.dispatch(api.util.invalidateTags(['Post']));
    expect(await screen.findByText('Warmer today')).toBeInTheDocument();
    const times = (path: string) => asked.filter((each) => each.path === path).length;
    expect([times(`${copyPath}/discussion`), times(`${copyPath}/discussion/changes`)]).toEqual([1, 1]);
  });

  it('reads the talk again where the server could not tell what came', async () => {
    const { store, set } = talk(aTalk([[jorge]]));
    await screen.findByRole('region', { name: 'Thread of Jorge' });
    set(`GET ${copyPath}/discussion/changes`, new Refusal(422, 'invalid-input', 'Say since when.'));
    set(`GET ${copyPath}/discussion`, aTalk([[jorge], [aPost('Kofi', 'Warmer today')]]));
    store.dispatch(api.util.invalidateTags(['Post']));
    expect(await screen.findByText('Warmer today')).toBeInTheDocument();
  });

  it('reads the talk again when a server says that there was too much', async () => {
    const { store, set } = talk(aTalk([[jorge]]));
    await screen.findByRole('region', { name: 'Thread of Jorge' });
    set(`GET ${copyPath}/discussion/changes`, { asOf: 701, threads: null, met: [] });
    set(`GET ${copyPath}/discussion`, aTalk([[jorge], [aPost('Kofi', 'Warmer today')]]));
    store.dispatch(api.util.invalidateTags(['Post']));
    expect(await screen.findByText('Warmer today')).toBeInTheDocument();
  });

  it('draws a long thread only as far as it stands near the view', async () => {
    const answers = Array.from({ length: 200 }, (_, at) =>
      aPost('Noor', `${at} degrees`, { parentId: jorge.id }),
    );
    talk(aTalk([[jorge, ...answers]]));
    const thread = await screen.findByRole('region', { name: 'Thread of Jorge' });
    expect(within(thread).getAllByRole('article').length).toBeLessThan(30);
    expect(thread.querySelectorAll('[data-holds]').length).toBeGreaterThan(10);
  });

  it('keeps what is written when the server does not answer, and through a reload', async () => {
    const { user } = talk(aTalk([]), {
      [`POST ${copyPath}/posts`]: new Refusal(503, 'database-away', 'The database does not answer.'),
    });
    const box = await screen.findByRole('textbox', { name: 'New post' });
    await user.click(box);
    await user.keyboard('Not lost');
    await user.click(screen.getByRole('button', { name: 'Post to Crock' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('The database does not answer.');
    expect(box).toHaveTextContent('Not lost');
    expect(sessionStorage.getItem(`draft post ${id('copy')} `)).toContain('Not lost');
    sessionStorage.clear();
  });

  it('changes one’s own post, and shows both texts when another window did', async () => {
    const own = aPost('Noor', 'First draft');
    const path = `${copyPath}/posts/${own.id}`;
    const { user, writes, set } = talk(aTalk([[own]]), {
      [`PUT ${path}`]: new Refusal(409, 'stale-write', 'You edited this in another window.', {
        current: own,
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Edit' }));
    await user.click(await screen.findByRole('textbox', { name: 'Your post' }));
    await user.keyboard(' here');
    set(`GET ${copyPath}/discussion`, aTalk([[{ ...own, version: 2, text: text('From the other window') }]]));
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText(/You edited this in another window/)).toBeInTheDocument();
    expect(sure(writes().filter((write) => write.method === 'PUT')[0]).body).toMatchObject({ version: 1 });
    expect(screen.getByRole('button', { name: 'Keep my text' })).toBeInTheDocument();
  });

  it('takes a post out with the way back, and shows a gap where it was', async () => {
    const own = aPost('Noor', 'To be regretted');
    const path = `${copyPath}/posts/${own.id}`;
    const gone = { ...own, text: null, words: 0, deletedBy: 'you' as const, mayChange: false };
    const { user, writes, set } = talk(aTalk([[own]]), {
      [`DELETE ${path}`]: saved(gone),
      [`POST ${path}/restore`]: saved(own),
    });
    set(`GET ${copyPath}/discussion`, aTalk([[own]]));
    await user.click(await screen.findByRole('button', { name: 'Delete your post' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map((write) => write.method)).toEqual(['DELETE', 'POST']));
    expect(screen.queryByRole('button', { name: 'Delete Jorge’s post' })).not.toBeInTheDocument();
  });

  it('says who took a post out, never what it said', async () => {
    talk(aTalk([[{ ...jorge, text: null, words: 0, deletedBy: 'staff' }, noor]]));
    expect(await screen.findByText('Deleted by staff.')).toBeInTheDocument();
  });

  it('lets readers read, and says why they cannot write', async () => {
    talk(
      aTalk([[jorge]], { mayOpenThread: false, mayReply: false }),
      {},
      { part: 'reader', access: 'read-only', group: aGroup('Carboy', 2), mode: 'read-along' },
    );
    expect(await screen.findByText('You read along here.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Reply/ })).not.toBeInTheDocument();
    expect(screen.getByText('Carboy’s copy. You read along.')).toBeInTheDocument();
  });

  it('lets staff go from group to group, and mark all as read', async () => {
    const others = [
      { copyId: id<'copy'>('carboy'), group: aGroup('Carboy', 2), unread: 3, state: 'in-work' as const },
    ];
    const { user, writes } = talk(
      aTalk([[{ ...jorge, isNew: true }]]),
      { [`POST ${copyPath}/seen`]: { unread: 0 } },
      { part: 'staff', others, unread: 1 },
      'instructor',
    );
    const copies = await screen.findByRole('navigation', { name: 'The groups’ copies' });
    expect(copies).toHaveTextContent('4 unread');
    expect(screen.getByRole('link', { name: 'Crock' })).toHaveAttribute('href', inCourse(`room/${id('Crock')}`)); // prettier-ignore
    expect(within(copies).getByRole('link', { name: /Carboy, 3/ })).toHaveAttribute(
      'href',
      inCourse(`copies/${id('carboy')}`),
    );
    expect(within(copies).getByRole('link', { name: /Crock/ })).toHaveAttribute('aria-current', 'page');
    await user.click(await screen.findByRole('button', { name: 'Mark all as read' }));
    await waitFor(() =>
      expect(writes()[0]).toMatchObject({ path: `${copyPath}/seen`, body: { what: 'all' } }),
    );
  });

  it('shows later threads when asked, each whole', async () => {
    const later = aPost('Jorge', 'A later thread');
    const first = aTalk([[jorge]], { next: jorge.id });
    const { user, set } = talk(first);
    await screen.findByText('Nose of walnut');
    set(`GET ${copyPath}/discussion`, aTalk([[later]], { next: null }));
    await user.click(screen.getByRole('button', { name: 'Show later threads' }));
    expect(await screen.findByText('A later thread')).toBeInTheDocument();
  });

  it('finds the post that one came for on whatever page it stands, with the box to answer it open', async () => {
    const [later, last] = [aPost('Jorge', 'A later thread'), aPost('Jorge', 'Is it salt?')];
    const pages: Record<string, unknown> = {
      first: aTalk([[jorge]], { next: jorge.id }),
      [jorge.id]: aTalk([[later]], { next: later.id }),
      [later.id]: aTalk([[last]], { next: null }),
    };
    showPage(
      `${inCourse(`copies/${id('copy')}`)}#post-${last.id}`,
      {
        [`GET ${copyPath}`]: aHead({ kind: 'discussion', part: 'staff', settings }),
        [`GET ${copyPath}/discussion`]: (_body: unknown, search: URLSearchParams) =>
          pages[search.get('after') ?? 'first'],
      },
      'instructor',
    );
    expect(await screen.findByRole('textbox', { name: 'Your reply to Jorge' })).toBeInTheDocument();
    expect(screen.getByText('Is it salt?')).toBeInTheDocument();
  });
});

describe('a discussion on the Marking desk', () => {
  it('is there whole, however many pages it has', async () => {
    const pages = [aTalk([[jorge]], { next: jorge.id }), aTalk([[aPost('Kofi', 'Later and warmer')]])];
    desk(aMark({ copy: aHead({ kind: 'discussion', part: 'staff', settings }) }), [aRow()], {
      [`GET ${copyPath}/discussion`]: () => pages.shift(),
    });
    expect(await screen.findByText('Later and warmer')).toBeInTheDocument();
    expect(screen.getByText('Nose of walnut')).toBeInTheDocument();
  });
});

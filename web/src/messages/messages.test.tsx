import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type {
  MessageList,
  RecipientChoice,
  SendingView,
  ThreadLine,
  ThreadView,
} from '@jigsaw/contract/messages';
import { aGroup, aRoom, anAuthor, at, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const crock = aGroup('Crock');
const cask = aGroup('Cask');
const path = `courses/${courseId}/messages`;
const threadId = id<'thread'>('jars');
const sendingId = id<'sending'>('tasting');
const noor = anAuthor('Noor');
const ilse = anAuthor('Ilse', { isStaff: true, isYou: true });
const line = (subject: string, more: Partial<ThreadLine> = {}): ThreadLine => ({
  id: id(subject),
  with: { kind: 'person', person: noor },
  subject,
  last: { by: noor, at, excerpt: `About ${subject}` },
  unread: 0,
  awaitsReply: false,
  ...more,
});
const sending = { id: sendingId, subject: 'Tasting', at, by: ilse, kind: 'people', count: 48, replied: 2 } as const; // prettier-ignore
const aList = (more: Partial<MessageList> = {}): MessageList => ({
  threads: [
    line('jars', { unread: 2, awaitsReply: true }),
    line('salt', { with: { kind: 'group', group: crock }, last: { by: ilse, at, excerpt: 'Coarse' } }),
  ],
  hasMore: false,
  sendings: [sending],
  ...more,
});
const aMessage = (number: number, text: string, more: Partial<ThreadView['messages'][number]> = {}): ThreadView['messages'][number] => ({ id: id(`m${number}`), number, by: noor, at, text, isNew: false, mayRemove: true, ...more }); // prettier-ignore
const aThread = (more: Partial<ThreadView> = {}): ThreadView => ({
  id: threadId,
  courseId,
  with: { kind: 'person', person: noor },
  subject: 'jars',
  sendingId: null,
  messages: [aMessage(1, 'Two jars?'), aMessage(2, '<script>alert(1)</script>', { isNew: true })],
  members: [],
  ...more,
});
const choice: RecipientChoice = {
  everyone: 48,
  hasStaff: false,
  sets: [{ id: crock.setId, name: 'Bench teams', groups: [crock, cask] }],
  audiences: [{ id: id('dairy'), name: 'Dairy', people: 3 }, { id: id('none'), name: 'Empty', people: 0 }], // prettier-ignore
};
function show(at: string, more = {}, role: 'student' | 'instructor' | 'observer' = 'instructor') {
  return showPage(
    inCourse(at),
    {
      [`GET ${path}`]: aList(),
      [`GET ${path}/recipients`]: choice,
      [`GET ${path}/count`]: { unread: 1 },
      [`GET threads/${threadId}`]: aThread(),
      ...more,
    },
    role,
  );
}
const links = async (name: string) => within(await screen.findByRole('navigation', { name })).queryAllByRole('link').map((link) => link.textContent); // prettier-ignore

describe('the messages of a course', () => {
  it('are listed by what was written last, with what is new and what awaits a reply; one that went to many is a line of its own', async () => {
    const { user } = show('messages');
    expect(await screen.findByRole('link', { name: 'Messages, 1 new' })).toHaveAttribute(
      'aria-current',
      'page',
    );
    expect((await links('Threads')).map((text) => text.replace(/\d+ Nov.*?\d\d:\d\d/, ''))).toEqual([
      expect.stringMatching(/^Noor.*jars2 newNoor: About jarsawaits a reply$/),
      expect.stringMatching(/^Crock.*saltYou: Coarse$/),
    ]);
    await user.click(screen.getByRole('radio', { name: 'Awaiting a reply 1' }));
    expect(await links('Threads')).toHaveLength(1);
    await user.click(screen.getByRole('radio', { name: 'Sent to many 1' }));
    expect(await links('Sent to many')).toEqual([
      expect.stringMatching(/^Tasting.*You to 48 people2 replied$/),
    ]);
  });

  it('say what will be here, and ask for earlier ones', async () => {
    const { unmount } = show(
      'messages',
      { [`GET ${path}`]: aList({ threads: [], sendings: [] }) },
      'student',
    );
    expect(await screen.findByText('No messages yet. Write the first one.')).toBeInTheDocument();
    expect(screen.queryByRole('radio')).toBeNull();
    unmount();
    const asked: (string | null)[] = [];
    const { user } = show('messages', {
      [`GET ${path}`]: (_body: unknown, search: URLSearchParams) => {
        asked.push(search.get('most'));
        return aList({ hasMore: asked.length === 1 });
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Show earlier threads' }));
    await waitFor(() => expect(asked).toEqual(['100', '400']));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Show earlier threads' })).toBeNull());
  });

  it('are found by name and words', async () => {
    const { user } = show('messages', { [`GET ${path}`]: aList({ threads: ['a', 'b', 'c', 'd', 'kéfir'].map((each) => line(each)) }) }); // prettier-ignore
    await user.type(await screen.findByRole('searchbox', { name: 'Find a message' }), 'kefir noor');
    expect(await links('Threads')).toHaveLength(1);
    await user.type(screen.getByRole('searchbox', { name: 'Find a message' }), ' x');
    expect(
      screen.getByText('No message like that. Try a part of the name, or another word.'),
    ).toBeInTheDocument();
  });
});

describe('a thread', () => {
  it('shows what was written as text, says who reads it, and takes a reply once', async () => {
    const { user, writes, set } = show(`messages/${threadId}`, { [`POST threads/${threadId}/messages`]: new Refusal(503, 'away', 'The server is away.') }); // prettier-ignore
    const thread = within(await screen.findByRole('region', { name: 'jars' }));
    expect(thread.getByText('<script>alert(1)</script>')).toBeInTheDocument();
    expect(
      thread.getByText(/Instructors read this, and assistants who lead a group of theirs/),
    ).toBeInTheDocument();
    const send = thread.getByRole('button', { name: 'Send reply' });
    expect(send).toBeDisabled();
    await user.type(thread.getByRole('textbox', { name: 'Reply' }), 'Yes');
    await user.click(send);
    expect(await thread.findByText('The server is away.')).toBeInTheDocument();
    expect(thread.getByRole('textbox', { name: 'Reply' })).toHaveValue('Yes');
    const own = aMessage(3, 'Yes', { by: ilse });
    set(`POST threads/${threadId}/messages`, own);
    set(`GET threads/${threadId}`, aThread({ messages: [...aThread().messages, own] }));
    await user.click(send);
    await waitFor(() => expect(thread.getByRole('textbox', { name: 'Reply' })).toHaveValue(''));
    expect(await thread.findByText('Yes')).toBeInTheDocument();
    const [first, second] = writes().filter(({ path: to }) => to.endsWith('/messages'));
    expect(second?.body).toEqual(first?.body);
  });

  it('takes what is pressed after an earlier text was found to be there as another message', async () => {
    const { user, writes, set } = show(`messages/${threadId}`, { [`POST threads/${threadId}/messages`]: new Refusal(409, 'conflict', 'An earlier text stands above.') }); // prettier-ignore
    const thread = within(await screen.findByRole('region', { name: 'jars' }));
    await user.type(thread.getByRole('textbox', { name: 'Reply' }), 'No');
    await user.click(thread.getByRole('button', { name: 'Send reply' }));
    expect(await thread.findByText('An earlier text stands above.')).toBeInTheDocument();
    set(`POST threads/${threadId}/messages`, aMessage(4, 'No', { by: ilse }));
    await user.click(thread.getByRole('button', { name: 'Send reply' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    const [first, second] = writes().map(({ body }) => body as { id: string; text: string });
    expect([first?.text, second?.text]).toEqual(['No', 'No']);
    expect(second?.id).not.toBe(first?.id);
  });

  it('of a group names its members and leads to its room; to a student theirs is with staff', async () => {
    const { unmount } = show(`messages/${threadId}`, { [`GET threads/${threadId}`]: aThread({ with: { kind: 'group', group: crock }, members: ['Jorge', 'Noor'], sendingId }) }); // prettier-ignore
    const thread = within(await screen.findByRole('region', { name: 'jars' }));
    expect(thread.getByRole('link', { name: 'Crock' })).toHaveAttribute(
      'href',
      `/c/${courseId}/room/${crock.id}`,
    );
    expect(thread.getByText(/Staff read this too/)).toHaveTextContent(
      'Crock: Jorge, Noor. Staff read this too. · Sent to others too',
    );
    unmount();
    show(`messages/${threadId}`, { [`GET threads/${threadId}`]: aThread({ with: { kind: 'person', person: { ...noor, isYou: true } } }) }, 'student'); // prettier-ignore
    expect(await screen.findByText('Between you and the staff who teach you.')).toBeInTheDocument();
  });

  it('removes a message, with the way back, and says so where it is gone', async () => {
    const messageId = id('m1');
    const { user, writes } = show(`messages/${threadId}`, {
      [`DELETE messages/${messageId}`]: aThread({ messages: [] }),
      [`POST messages/${messageId}/restore`]: aThread(),
    });
    const [first] = await screen.findAllByRole('button', { name: /^Remove the message of Noor/ });
    await user.click(first as HTMLElement);
    expect(await screen.findByText('Message removed')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map(({ method, path: to }) => `${method} ${to}`)).toContain(`POST messages/${messageId}/restore`)); // prettier-ignore
  });

  it('that is not there, or not theirs, is nothing', async () => {
    show(`messages/${id('other')}`);
    expect(
      await screen.findByText('This message was removed, or it is not yours to read.'),
    ).toBeInTheDocument();
  });
});

describe('what is new in a thread', () => {
  let seen: (isIntersecting: boolean) => void;
  const real = globalThis.IntersectionObserver;
  beforeEach(() => {
    jest.useFakeTimers({ advanceTimers: true });
    globalThis.IntersectionObserver = class {
      constructor(tell: IntersectionObserverCallback) {
        seen = (isIntersecting) => tell([{ isIntersecting } as IntersectionObserverEntry], this as never);
      }
      observe() {}
      disconnect() {}
    } as never;
  });
  afterEach(() => {
    jest.useRealTimers();
    globalThis.IntersectionObserver = real;
  });

  it('counts as read once it has stood in view for a moment', async () => {
    const { writes } = show(`messages/${threadId}`, { [`POST threads/${threadId}/seen`]: { done: true } });
    await screen.findByRole('region', { name: 'jars' });
    act(() => {
      seen(true);
      seen(false);
      jest.advanceTimersByTime(5000);
    });
    expect(writes()).toEqual([]);
    act(() => {
      seen(true);
      jest.advanceTimersByTime(1300);
    });
    await waitFor(() => expect(writes()).toEqual([{ method: 'POST', path: `threads/${threadId}/seen`, body: { upTo: 2 } }])); // prettier-ignore
  });
});

describe('writing to many', () => {
  it('says how many it reaches now, and what becomes of names; it goes out, and Undo takes it back', async () => {
    const { user, writes } = show('messages', {
      [`POST ${path}`]: { id: sendingId, threadId: null, count: 2 },
      [`DELETE sendings/${sendingId}`]: { done: true },
    });
    await user.click(await screen.findByRole('button', { name: 'New message' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Write a message' }));
    await user.click(await sheet.findByRole('button', { name: /Choose who to write to/ }));
    const options = await screen.findAllByRole('option');
    expect(options.map((option) => option.textContent)).toEqual(['Every student, 48 people', 'Dairy, 3 people', 'Each of Bench teams, 2 groups', 'Crock', 'Cask']); // prettier-ignore
    await user.click(screen.getByRole('option', { name: 'Each of Bench teams, 2 groups' }));
    await user.type(sheet.getByRole('textbox', { name: 'Subject' }), 'Jars');
    await user.type(sheet.getByRole('textbox', { name: 'Message' }), 'Dear ');
    await user.click(sheet.getByRole('button', { name: 'Add {group} to the message' }));
    expect(sheet.getByText('Each group gets a thread of its own, which its members and the staff read. {group} is replaced by their own.')).toBeInTheDocument(); // prettier-ignore
    await user.click(sheet.getByRole('button', { name: 'Send to 2 groups' }));
    expect(await screen.findByText('Sent to 2 groups')).toBeInTheDocument();
    expect(writes()[0]?.body).toMatchObject({ to: { kind: 'set', setId: crock.setId }, subject: 'Jars', text: 'Dear {group}', count: 2 }); // prettier-ignore
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes()[1]).toMatchObject({ method: 'DELETE', path: `sendings/${sendingId}` }),
    );
  });

  it('keeps what was typed where it is refused, and shows how many there are by now', async () => {
    const { user, set } = show('messages', { [`POST ${path}`]: new Refusal(409, 'conflict', 'This would reach 47 people now, not 48. Look at who gets it, then send it again.') }); // prettier-ignore
    await user.click(await screen.findByRole('button', { name: 'New message' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Write a message' }));
    await user.click(await sheet.findByRole('button', { name: /Choose who to write to/ }));
    await user.click(await screen.findByRole('option', { name: 'Every student, 48 people' }));
    await user.type(sheet.getByRole('textbox', { name: 'Subject' }), 'Jars');
    await user.type(sheet.getByRole('textbox', { name: 'Message' }), 'Bring two');
    set(`GET ${path}/recipients`, { ...choice, everyone: 47 });
    await user.click(sheet.getByRole('button', { name: 'Send to 48 students' }));
    expect(await sheet.findByText(/This would reach 47 people now/)).toBeInTheDocument();
    expect(await sheet.findByRole('button', { name: 'Send to 47 students' })).toBeEnabled();
    expect(sheet.getByRole('textbox', { name: 'Message' })).toHaveValue('Bring two');
  });

  it('shows one that went out: who replied first, each with the way to their thread', async () => {
    const view: SendingView = {
      ...sending,
      count: 2,
      replied: 1,
      text: 'Hello {first name}',
      threads: [
        { id: id('to Amina'), with: { kind: 'person', person: anAuthor('Amina') }, hasReplied: false },
        { id: id('to Noor'), with: { kind: 'person', person: noor }, hasReplied: true },
      ],
    };
    const { user, router } = show(`messages/sent/${sendingId}`, {
      [`GET sendings/${sendingId}`]: view,
      [`DELETE sendings/${sendingId}`]: { done: true },
      [`POST sendings/${sendingId}/restore`]: { done: true },
    });
    const shown = within(await screen.findByRole('region', { name: 'Tasting' }));
    expect(shown.getByRole('heading', { name: '1 of 2 replied' })).toBeInTheDocument();
    expect(within(shown.getByRole('list', { name: 'Recipients' })).getAllByRole('link').map((link) => link.textContent)).toEqual(['Noorreplied', 'Amina']); // prettier-ignore
    await user.click(shown.getByRole('button', { name: 'Remove from all threads' }));
    expect(await screen.findByText('“Tasting” removed from 2 threads')).toBeInTheDocument();
    expect(router.state.location.pathname).toBe(`/c/${courseId}/messages`);
  });
});

describe('writing from a room', () => {
  it('is a student’s way to their group, and shows them the thread; an observer has none', async () => {
    const room = { ...aRoom(), group: crock };
    const answers = {
      [`GET courses/${courseId}/rooms`]: { rooms: [room], common: [], locked: [] },
      [`GET groups/${crock.id}/room`]: room,
      [`POST ${path}`]: { id: sendingId, threadId, count: 1 },
    };
    const { user, writes, router, unmount } = show('room', answers, 'student');
    await user.click(await screen.findByRole('button', { name: 'Write to your group…' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Write to Crock' }));
    expect(sheet.queryByRole('button', { name: /^Add/ })).toBeNull();
    await user.type(sheet.getByRole('textbox', { name: 'Subject' }), 'Scale');
    await user.type(sheet.getByRole('textbox', { name: 'Message' }), 'Who has one?');
    await user.click(sheet.getByRole('button', { name: 'Send to Crock' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/c/${courseId}/messages/${threadId}`));
    expect(writes()[0]?.body).toMatchObject({ to: { kind: 'groups', groupIds: [crock.id] }, count: 1 });
    unmount();
    show(`room/${crock.id}`, answers, 'observer');
    await screen.findByRole('heading', { name: /Crock/ });
    expect(screen.queryByRole('button', { name: /^Write to/ })).toBeNull();
  });
});

import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { RoomLine, RoomNeed } from '@jigsaw/contract/rooms';
import { aGroup, aHead, aRoom, aRoomLine, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const linesPath = `GET courses/${courseId}/room-lines`;
const stopsPath = `PUT courses/${courseId}/stops`;
const since = '2026-11-09T10:00:00.000Z';

const question = (name: string): RoomNeed => ({ code: 'question', copyId: id(`${name} talk`), kind: 'seance', title: 'Talk', postId: id(`${name} asks`), by: 'Noor Haddad', excerpt: 'Is it salt?', since, newest: since, count: 1 }); // prettier-ignore
const missing = (name: string): RoomNeed => ({ code: 'missing', copyId: id(`${name} sheet`), kind: 'assignment', title: 'Sheet', since }); // prettier-ignore
const silent: RoomNeed = { code: 'silent', enrolmentId: id('jorge'), name: 'Jorge', reading: null, since };

const line = (name: string, number: number, needs: RoomNeed[], more: Partial<RoomLine> = {}) =>
  aRoomLine({ group: aGroup(name, number), needs, score: 90 - number, ...more });
const crock = line('Crock', 1, [question('Crock')], { kinds: ['seance'] });
const carboy = line('Carboy', 2, [missing('Carboy')]);
const tun = line('Tun', 3, [silent], { isLed: true });
const copyOf = (need: RoomNeed) =>
  aHead({ id: need.code === 'silent' ? id('copy') : need.copyId, kind: 'seance' }); // a kind that these pages know nothing of
const show = (lines: readonly RoomLine[], more = {}) =>
  showPage(inCourse('rooms'), {
    [linesPath]: { lines, common: [] },
    [stopsPath]: { done: true },
    [`GET copies/${id('Crock talk')}`]: copyOf(question('Crock')),
    [`GET copies/${id('Carboy sheet')}`]: copyOf(missing('Carboy')),
    [`GET groups/${id('Tun')}/room`]: aRoom({ group: aGroup('Tun', 3) }),
    ...more,
  });
const place = ({ router }: ReturnType<typeof show>) => router.state.location.pathname + router.state.location.hash; // prettier-ignore
const strip = () => screen.findByRole('region', { name: 'Your round' });
const cards = () => within(screen.getByRole('region', { name: /^(Your round|Where to go first)$/ })).getAllByRole('listitem').map((each) => each.textContent); // prettier-ignore

beforeEach(() => {
  sessionStorage.clear();
  localStorage.clear();
});

describe('a round', () => {
  it('goes as far as the minutes go that one has, and remembers how many', async () => {
    const { user, unmount } = show([crock, carboy, tun]);
    expect(await screen.findByText('3 stops, about 5 min')).toBeInTheDocument();
    expect(cards()).toEqual([
      expect.stringMatching(/^1Crock1 question2 minNoor Haddad in Talk, .* ago: Is it salt\?Answer Noor/),
      expect.stringMatching(/^2Carboymissing2 minSheet, was due .*See what is there/),
      expect.stringMatching(/^3Tunquiet1 minJorge wrote nothing for \d+ days?See the room/),
    ]);
    await user.click(screen.getByRole('radio', { name: '5 min' }));
    unmount();
    show([crock, carboy, { ...tun, needs: [missing('Tun')] }]);
    expect(await screen.findByText('2 stops, about 4 min; 1 more room waits')).toBeInTheDocument();
  });

  it('goes from stop to stop by one key, each at the right place, and ends in the rooms', async () => {
    const page = show([crock, carboy, tun]);
    await screen.findByText('3 stops, about 5 min');
    await page.user.keyboard('s');
    expect(await screen.findByText(/Stop 1 of 3/)).toHaveTextContent(/Crock 1 question Talk, asked/);
    await waitFor(() =>
      expect(place(page)).toBe(inCourse(`copies/${id('Crock talk')}#post-${id('Crock asks')}`)),
    );
    await page.user.keyboard('s');
    expect(await screen.findByText(/Stop 2 of 3/)).toHaveTextContent(/Carboy missing/);
    await waitFor(() => expect(place(page)).toBe(inCourse(`copies/${id('Carboy sheet')}`)));
    await page.user.keyboard('s');
    expect(await screen.findByText(/Stop 3 of 3/)).toHaveTextContent(/Tun quiet/);
    await waitFor(() => expect(place(page)).toBe(inCourse(`room/${id('Tun')}`)));
    expect(screen.queryByRole('link', { name: 'Go there' })).toBeNull();
    await page.user.keyboard('s');
    expect(await screen.findByText('3 left')).toBeInTheDocument();
    expect(place(page)).toBe(inCourse('rooms'));
    expect(page.writes()).toEqual([]); // going on says nothing
    await page.user.click(screen.getByRole('button', { name: 'End the round' }));
    expect(await screen.findByRole('button', { name: /^Begin/ })).toBeInTheDocument();
  });

  it('keeps what one says to a stop, goes on, and takes it back', async () => {
    const page = show([crock, carboy]);
    await page.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    const answered = { ...crock, needs: [], answered: [{ need: question('Crock'), said: 'later' as const, at: since }] }; // prettier-ignore
    page.set(linesPath, { lines: [answered, carboy], common: [] });
    await page.user.click(await screen.findByRole('button', { name: 'Later' }));
    expect(await screen.findByText(/Stop 2 of 2/)).toBeInTheDocument();
    const body = { groupId: id('Crock'), code: 'question', subjectId: id('Crock talk'), upTo: since };
    expect(page.writes().at(-1)).toMatchObject({ body: { ...body, said: 'later' } });
    expect(screen.getByText('Crock: put off')).toBeInTheDocument();
    page.set(linesPath, { lines: [crock, carboy], common: [] });
    await page.user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(page.writes().at(-1)).toMatchObject({ body: { ...body, said: null } }));
  });

  it('stays where it is when an answer is refused, and says so', async () => {
    const page = show([crock, carboy], {
      [stopsPath]: new Refusal(503, 'unavailable', 'The database does not answer.'),
    });
    await page.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    await page.user.click(await screen.findByRole('button', { name: 'Done' }));
    expect(await screen.findByText('The database does not answer.')).toBeInTheDocument();
    expect(await strip()).toHaveTextContent(/Stop 1 of 2: Crock/);
  });

  it('says when a stop is settled by itself, passes over it, and shows how all of them stand', async () => {
    const page = show([crock, carboy, tun]);
    await page.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    await strip();
    page.unmount();
    const done = { ...carboy, needs: [], answered: [{ need: missing('Carboy'), said: 'done' as const, at: since }] }; // prettier-ignore
    const later = show([{ ...crock, needs: [] }, done, tun]); // loaded anew: the round goes on
    expect(await screen.findByText('1 settled, 1 done, 1 left')).toBeInTheDocument();
    expect(cards()).toEqual([
      expect.stringMatching(/^1Crocksettled/),
      expect.stringMatching(/^2Carboydone/),
      expect.stringMatching(/^3Tunquiet/),
    ]);
    await later.user.click(within(await strip()).getByRole('link', { name: /^Crock/ }));
    expect(await screen.findByText(/Stop 1 of 3/)).toHaveTextContent(/Crock settled/);
    expect(screen.queryByRole('button', { name: 'Done' })).toBeNull();
    await later.user.click(screen.getByRole('button', { name: /^Next stop/ }));
    expect(await screen.findByText(/Stop 3 of 3/)).toHaveTextContent(/Tun quiet/);
  });

  it('goes on while it is not known yet how its stops stand', async () => {
    const first = show([crock, carboy]);
    await first.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    await strip();
    first.unmount();
    const page = showPage(inCourse(`room/${id('Tun')}`), {
      [linesPath]: () => new Promise(() => undefined),
      [`GET copies/${id('Carboy sheet')}`]: copyOf(missing('Carboy')),
    });
    expect(await strip()).toHaveTextContent(/Stop 1 of 2: Crock 1 question/);
    await page.user.keyboard('s');
    expect(await screen.findByText(/Stop 2 of 2/)).toHaveTextContent(/Carboy missing/);
    expect(screen.queryByRole('button', { name: 'Done' })).toBeNull(); // that is not known either
  });

  it('leads to the next thing of the same stop, and back to it from elsewhere', async () => {
    const page = show([crock, carboy]);
    await page.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    await strip();
    await act(() => page.router.navigate(inCourse(`room/${id('Tun')}`)));
    expect(await screen.findByRole('link', { name: 'Go there' })).toHaveAttribute('href', inCourse(`copies/${id('Crock talk')}#post-${id('Crock asks')}`)); // prettier-ignore
  });

  it('leaves letters to pages where no stop is', async () => {
    const page = show([crock, carboy]);
    await page.user.click(await screen.findByRole('button', { name: /^Begin/ }));
    await strip();
    await act(() => page.router.navigate(inCourse('groups')));
    await screen.findByRole('link', { name: 'Go there' });
    await page.user.keyboard('s');
    expect(screen.getByText(/Stop 1 of 2/)).toBeInTheDocument();
    expect(place(page)).toBe(inCourse('groups'));
  });
});

describe('a page of the rooms that stays open', () => {
  afterEach(() => void jest.useRealTimers());

  it('finds what time alone makes pressing, every few minutes', async () => {
    jest.useFakeTimers({ advanceTimers: true });
    const { set } = show([crock]);
    await screen.findByText('1 stop, about 2 min');
    set(linesPath, { lines: [crock, carboy], common: [] });
    await act(() => jest.advanceTimersByTimeAsync(6 * 60_000));
    expect(await screen.findByText('2 stops, about 4 min')).toBeInTheDocument();
  });
});

describe('what one has answered', () => {
  it('is folded away and counted, and each is opened again', async () => {
    const answered = { ...tun, needs: [], answered: [{ need: silent, said: 'not-needed' as const, at: since }] }; // prettier-ignore
    const { user, writes } = show([crock, answered]);
    expect(await screen.findByText('1 thing that you have answered.')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Show' }));
    const list = screen.getByRole('list', { name: 'What you have answered' });
    expect(list).toHaveTextContent(/Tun, quiet: Jorge wrote nothing for .*not needed/);
    await user.click(within(list).getByRole('button', { name: 'Open again: Tun, quiet' }));
    expect(writes().at(-1)).toMatchObject({ body: { groupId: id('Tun'), code: 'silent', subjectId: id('jorge'), upTo: since, said: null } }); // prettier-ignore
  });
});

describe('rooms are narrowed', () => {
  const shown = () => screen.getAllByRole('rowheader').map((each) => each.querySelector('b')?.textContent);
  const choose = async (user: ReturnType<typeof show>['user'], label: RegExp, option: string) => {
    await user.click(await screen.findByRole('button', { name: label }));
    await user.click(await screen.findByRole('option', { name: option }));
  };

  it('to what one leads, and to a kind of activity with what needs someone in it', async () => {
    const both = {
      ...carboy,
      needs: [missing('Carboy'), { ...question('Carboy'), count: 3 } as RoomNeed],
      kinds: ['assignment', 'seance'],
    };
    const { user } = show([crock, both, tun]);
    await screen.findByText(/3 stops/);
    await choose(user, /Whose rooms/, 'Groups you lead');
    expect(shown()).toEqual(['Tun']);
    await choose(user, /Whose rooms/, 'All groups');
    await choose(user, /Kind/, 'seance');
    expect(shown()).toEqual(['Carboy', 'Crock']);
    expect(cards()).toEqual([expect.stringMatching(/^2Carboy3 questions/), expect.stringMatching(/^1Crock1 question/)]); // prettier-ignore
  });

  it('to a saved audience, by the groups that it reaches', async () => {
    const audience = { id: id<'audience'>('late'), name: 'Late shift', version: 1, include: [], exclude: [], people: 2, groups: 1, usedIn: [] }; // prettier-ignore
    const { user } = show([crock, carboy], {
      [`GET courses/${courseId}/audiences`]: { audiences: [audience] },
      [`POST courses/${courseId}/audiences/members`]: {
        people: [],
        removed: [],
        groups: [{ groupId: id('Carboy'), number: 2, name: 'Carboy' }],
        circle: null,
      },
    });
    await choose(user, /Whose rooms/, 'Audience Late shift');
    await waitFor(() => expect(shown()).toEqual(['Carboy']));
  });
});

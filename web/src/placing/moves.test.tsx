import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { MovesAct } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { api } from '../api/index.js';
import { aBoard, aPlaceResult, boardAnswers, courseId, id } from '../test/data.js';
import { group, move, path, placePath, said, setId, tray } from '../test/onBoard.js';
import { inCourse, showPage } from '../test/showPage.js';

beforeEach(() => localStorage.clear());

const edited = (name: string, more: object) => ({
  ...sure(aBoard({}).groups.find((each) => each.name === name)),
  ...more,
  version: 2,
});
const anAct = (more: Partial<MovesAct> = {}): MovesAct => ({
  at: '2026-11-02T10:00:00.000Z',
  by: 'Jo Vale',
  isYours: false,
  isOwnChoice: false,
  count: 1,
  placed: 1,
  removed: 0,
  why: null,
  moves: [{ enrolmentId: id('Ada'), name: 'Ada', from: [], to: [{ number: 2, name: 'Carboy' }] }],
  ...more,
});

describe('a group that holds more than its places', () => {
  it('may hold so many by one press', async () => {
    const { user, writes, set } = showPage(
      path,
      boardAnswers(aBoard({ Ada: 'Crock', Ben: 'Crock', Cho: 'Crock' }), {
        [`PATCH groups/${id('Crock')}`]: edited('Crock', { capacity: 3 }),
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Let Crock hold 3' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    expect(sure(writes()[0]).body).toEqual({ name: 'Crock', capacity: 3, version: 1 });
    await said('Crock may hold 3');
    set(`PATCH groups/${id('Crock')}`, edited('Crock', { capacity: null }));
    await user.click(sure(screen.getAllByRole('button', { name: 'Undo' }).at(-1))); // the notice's, not the Board's
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(sure(writes()[1]).body).toEqual({ name: 'Crock', capacity: null, version: 2 });
  });
});

describe('a locked group', () => {
  const locked = () => {
    const board = aBoard({ Ada: null, Ben: 'Crock' });
    return {
      ...board,
      groups: board.groups.map((each) => ({ ...each, isLocked: each.name === 'Carboy' })),
    };
  };

  it('takes no one in, says so, and does when it is unlocked by the same press', async () => {
    const { user, writes } = showPage(
      path,
      boardAnswers(locked(), {
        [`PATCH groups/${id('Carboy')}`]: edited('Carboy', { isLocked: false }),
        [placePath]: aPlaceResult(0),
      }),
    );
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await said('Carboy is locked: no one joins or leaves.');
    expect(writes()).toHaveLength(0);
    await user.click(screen.getByRole('button', { name: 'Unlock and move' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(writes().map((write) => write.body)).toEqual([
      { name: 'Carboy', capacity: null, isLocked: false, version: 1 },
      { moves: [move('Ada', null, 'Carboy')] },
    ]);
  });
});

const earlier = '2026-11-02T09:00:00.000Z';

describe('many sets', () => {
  it('are found by name, also those whose tabs are out of sight', async () => {
    const board = aBoard({ Ada: null });
    const sets = ['Labs', 'Panels', 'Posters', 'Pairs'].map((name) => ({
      ...board.set,
      id: id<'group-set'>(name),
      name,
    }));
    const { user, router } = showPage(
      path,
      boardAnswers(board, {
        [`GET courses/${courseId}/sets`]: { sets: [board.set, ...sets], archived: [], students: 1 },
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'All 5 group sets' }));
    await user.keyboard('post');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`groups/${id('Posters')}`)));
  });
});

describe('who made a move', () => {
  it('is not told of students who choose for themselves: they are counted', async () => {
    const board = aBoard({ Ada: null, Ben: 'Crock' });
    const { set, store } = showPage(path, boardAnswers(board));
    await tray();
    set(`GET sets/${setId}/board`, {
      ...aBoard({ Ada: 'Carboy', Ben: 'Crock' }),
      latest: anAct({ isOwnChoice: true }),
    });
    store.dispatch(api.util.invalidateTags(['Placement']));
    await waitFor(() => expect(group('Carboy')).toHaveTextContent('Ada'));
    expect(within(group('Carboy')).getByText('Ada').closest('[data-moved]')).toBeNull();
    expect(screen.queryByText(/Ada chose Carboy/)).toBeNull();
  });

  it('has each part of its history begin where the one above ends, also when that one has moved on', async () => {
    const act = (hour: number) => anAct({ at: `2026-11-02T0${hour}:00:00.000Z` });
    const asked: (string | null)[] = [];
    const { user, set, store } = showPage(path, boardAnswers({ ...aBoard({ Ada: null }), latest: act(5) }));
    const answer = (first: number) => (_body: unknown, search: URLSearchParams) => {
      const before = search.get('before');
      asked.push(before);
      return before === null
        ? { acts: [act(first)], before: act(first).at }
        : { acts: [act(1)], before: null };
    };
    set(`GET sets/${setId}/moves`, answer(5));
    await user.click(await screen.findByRole('button', { name: 'Moves…' }));
    await user.click(await screen.findByRole('button', { name: 'Earlier moves' }));
    await waitFor(() => expect(asked).toEqual([null, act(5).at]));
    set(`GET sets/${setId}/moves`, answer(6));
    store.dispatch(api.util.invalidateTags(['Placement']));
    await waitFor(() => expect(asked).toContain(act(6).at));
  });

  it('is said and marked while it is new, and told in full', async () => {
    const board = aBoard({ Ada: null, Ben: 'Crock' });
    const parts = [
      { acts: [anAct(), anAct({ isYours: true, count: 23, at: earlier })], before: earlier },
      { acts: [], before: null },
    ];
    const { user, set, store } = showPage(
      path,
      boardAnswers(
        { ...board, latest: anAct({ at: earlier }) },
        {
          [`GET sets/${setId}/moves`]: () => parts.shift(),
        },
      ),
    );
    await tray();
    expect(screen.queryByText(/Jo Vale placed Ada/)).toBeNull();
    const after = aBoard({ Ada: 'Carboy', Ben: 'Crock' });
    set(`GET sets/${setId}/board`, { ...after, latest: anAct() });
    store.dispatch(api.util.invalidateTags(['Placement'])); // as a change that is heard of does
    expect((await screen.findAllByText(/Jo Vale placed Ada in Carboy/)).length).toBeGreaterThan(0);
    expect(within(group('Carboy')).getByText('Ada').closest('[data-moved]')).not.toBeNull();

    await user.click(screen.getByRole('button', { name: 'Moves…' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Moves in Bench teams' }));
    expect(await sheet.findByText('Jo Vale placed Ada in Carboy')).toBeInTheDocument();
    expect(sheet.getByText('You moved 23 students')).toBeInTheDocument();
    expect(sheet.getByText('and 22 others')).toBeInTheDocument();
    await user.click(sheet.getByRole('button', { name: 'Earlier moves' }));
    await waitFor(() => expect(sheet.queryByRole('button', { name: 'Earlier moves' })).toBeNull());
  });
});

import { beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aBoard, anEntry, boardAnswers, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { deal } from './dealOut.js';

const setId = id<'group-set'>('benches');
const path = inCourse(`groups/${setId}`);
const group = (name: string) => screen.findByRole('grid', { name: new RegExp(`^${name}, group`) });
const row = async (place: string, name: string) => within(await group(place)).getByRole('row', { name });
const [ada, crock, carboy] = [id<'enrolment'>('Ada'), id<'group'>('Crock'), id<'group'>('Carboy')];
const openSet = async (user: ReturnType<typeof showPage>['user'], item: RegExp) => {
  await user.click(await screen.findByRole('button', { name: 'Set' }));
  await user.click(await screen.findByRole('menuitem', { name: item }));
};

beforeEach(() => localStorage.clear());

describe('the menus of the Board', () => {
  it('do with those who are selected what the keys do', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: 'Crock', Ben: 'Crock' })));
    await user.pointer({ keys: '[MouseRight]', target: await row('Crock', 'Ada') });
    expect(screen.getByRole('menu', { name: 'Ada' })).toBeInTheDocument();
    expect(screen.getByRole('menuitem', { name: /^Swap/ })).toHaveAttribute('aria-disabled', 'true');
    await user.click(screen.getByRole('menuitem', { name: /^Remove from group/ }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({ moves: [{ student: ada, from: crock, to: null }] }),
    );
  });

  it('lock a group and take everyone out of it', async () => {
    const board = aBoard({ Ada: 'Crock' });
    const { user, writes } = showPage(
      path,
      boardAnswers(board, { [`PATCH groups/${crock}`]: board.groups[0] }),
    );
    await user.click(await screen.findByRole('button', { name: 'More of Crock' }));
    await user.click(screen.getByRole('menuitem', { name: /^Lock/ }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({ name: 'Crock', capacity: null, isLocked: true, version: 1 }),
    );
    await user.click(screen.getByRole('button', { name: 'More of Crock' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Remove everyone' }));
    await waitFor(() =>
      expect(sure(writes()[1]).body).toEqual({ moves: [{ student: ada, from: crock, to: null }] }),
    );
  });
});

describe('balance', () => {
  it('shows what is chosen, and still does after a reload', async () => {
    const plain = aBoard({ Ada: 'Crock', Ben: 'Carboy' });
    const names = ['Lab', 'Language', 'Timetable', 'Access', 'Town'];
    const board: BoardView = {
      ...plain,
      attributes: names.map((name) => ({ name, kind: 'category' as const, isChosen: false })),
      students: plain.students.map((student, at) => ({
        ...student,
        attributes: Object.fromEntries(names.map((name) => [name, at === 0 ? 'yes' : 'no'])),
      })),
    };
    const { user } = showPage(path, boardAnswers(board));
    const balance = async () => within(await screen.findByRole('region', { name: 'Balance' }));
    expect((await balance()).queryByText('Town')).toBeNull();
    await user.click((await balance()).getByRole('button', { name: 'What is measured' }));
    await user.click(screen.getByRole('menuitemcheckbox', { name: 'Town' }));
    await user.keyboard('{Escape}');
    expect((await balance()).getByText('Town')).toBeInTheDocument();
    cleanup();
    showPage(path, boardAnswers(board));
    expect((await balance()).getByText('Town')).toBeInTheDocument();
  });
});

describe('a set that was put away', () => {
  it('says so when it is opened by its address, and is brought back', async () => {
    const board = aBoard({ Ada: 'Crock' });
    const { user, writes } = showPage(
      path,
      boardAnswers(board, {
        [`GET courses/${courseId}/sets`]: {
          sets: [],
          archived: [{ id: setId, name: board.set.name }],
          students: 1,
        },
        [`POST sets/${setId}/archive`]: board.set,
      }),
    );
    expect(await screen.findByText(/is archived/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Restore' }));
    await waitFor(() => expect(sure(writes()[0]).body).toEqual({ isArchived: false }));
  });
});

describe('leaders', () => {
  it('are named only where the set has them, and it says so', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: 'Crock', Ben: 'Crock' })));
    await user.click(await row('Crock', 'Ada'));
    await user.keyboard('l');
    expect(await screen.findByText(/have no leaders/)).toBeInTheDocument();
    expect(writes()).toEqual([]);
  });

  it('give way to the next one in one step', async () => {
    const board = aBoard({ Ada: 'Crock', Ben: 'Crock' });
    const led = {
      ...board,
      set: { ...board.set, hasLeaders: true },
      students: board.students.map((student) => ({
        ...student,
        seats: student.seats.map((seat) => ({ ...seat, isLeader: student.name === 'Ada' })),
      })),
    };
    const { user, writes } = showPage(path, boardAnswers(led));
    expect(within(await row('Crock', 'Ada')).getByLabelText('leads the group')).toBeInTheDocument();
    await user.click(await row('Crock', 'Ben'));
    await user.keyboard('l');
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        moves: [
          { student: ada, from: crock, to: crock, leads: { from: true, to: false } },
          { student: id('Ben'), from: crock, to: crock, leads: { from: false, to: true } },
        ],
      }),
    );
    expect(within(await row('Crock', 'Ben')).getByLabelText('leads the group')).toBeInTheDocument();
  });
});

describe('a set in which one may be in several groups', () => {
  const several = () => {
    const board = aBoard({ Ada: 'Crock', Ben: null });
    return { ...board, set: { ...board.set, isExclusive: false } };
  };

  it('keeps everyone at hand, adds from there and moves from a group', async () => {
    const { user, writes } = showPage(path, boardAnswers(several()));
    const everyone = within(await screen.findByRole('grid', { name: 'All students' }));
    await user.click(everyone.getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({ moves: [{ student: ada, from: null, to: carboy }] }),
    );
    expect(within(await group('Crock')).getByRole('row', { name: 'Ada' })).toBeInTheDocument();
    await user.click(await row('Carboy', 'Ada'));
    await user.keyboard('1');
    expect(await screen.findByText('They are in that group already.')).toBeInTheDocument();
    await user.click(await row('Carboy', 'Ada'));
    await user.keyboard('u');
    await waitFor(() =>
      expect(sure(writes()[1]).body).toEqual({ moves: [{ student: ada, from: carboy, to: null }] }),
    );
  });

  it('is dealt to those who are selected from where they were taken hold of', () => {
    const board = several();
    const dealt = deal(board, 'selected', 'alphabet', 1, new Map([[ada, null]]), new Set([carboy]));
    expect(dealt.place.moves).toEqual([{ student: ada, from: null, to: carboy }]);
    const moved = deal(board, 'selected', 'alphabet', 1, new Map([[ada, crock]]), new Set([carboy]));
    expect(moved.place.moves).toEqual([{ student: ada, from: crock, to: carboy }]);
  });
});

describe('the groups of a set at once', () => {
  it('are named by a pattern or pasted lines, given places, added and taken away', async () => {
    const board = aBoard({ Ada: 'Crock' });
    const { user, writes } = showPage(
      path,
      boardAnswers(board, { [`PUT sets/${setId}/groups`]: { groups: board.groups } }),
    );
    await openSet(user, /^Edit groups/);
    const dialog = within(await screen.findByRole('dialog', { name: 'Groups of Bench teams' }));
    expect(dialog.getByRole('button', { name: 'Save' })).toBeDisabled();
    expect(dialog.getByRole('button', { name: 'Group 1 has members and cannot be removed' })).toBeDisabled();
    await user.click(dialog.getByRole('button', { name: 'Remove group 2' }));
    await user.click(dialog.getByRole('button', { name: 'Add a group' }));
    await user.click(dialog.getByRole('textbox', { name: 'Name of group 1' }));
    await user.paste('Kvevri\nTun');
    await user.type(dialog.getByRole('textbox', { name: 'Places in all' }), '5');
    await user.click(dialog.getByRole('button', { name: 'Set for all' }));
    await user.click(dialog.getByRole('checkbox', { name: 'Group 1 is locked' }));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        groups: [
          { id: crock, name: 'Kvevri', capacity: 5, isLocked: true, version: 1 },
          { id: null, name: 'Tun', capacity: 5, isLocked: false, version: 1 },
        ],
        removed: [carboy],
      }),
    );
  });
});

describe('who looks after which group', () => {
  it('is said for many groups at once, and only what changed is sent', async () => {
    const board = {
      ...aBoard({}),
      staff: [{ enrolmentId: id<'enrolment'>('tomas'), name: 'Tomas', role: 'assistant' as const }],
    };
    const { user, writes } = showPage(
      path,
      boardAnswers(board, {
        [`PUT sets/${setId}/leads`]: { groups: board.groups },
      }),
    );
    await openSet(user, /^Who leads/);
    await user.click(await screen.findByRole('button', { name: 'Tomas: all groups' }));
    await user.click(screen.getByRole('checkbox', { name: 'Tomas leads Crock' }));
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({ leads: [{ groupId: carboy, enrolmentIds: [id('tomas')] }] }),
    );
  });
});

describe('a new set', () => {
  const open = () => {
    const { set } = aBoard({});
    return showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: { sets: [set], archived: [], students: 4 },
      [`POST courses/${courseId}/sets`]: { ...set, activities: [] },
      [`POST sets/${setId}/copies`]: { ...set, activities: [] },
      [`GET sets/${setId}/board`]: aBoard({}),
    });
  };

  it('is formed at hand-in, without groups', async () => {
    const { user, writes } = open();
    await user.type(await screen.findByRole('textbox', { name: /Name of the set/ }), 'Pairs');
    await user.click(screen.getByText(/^Formed at hand-in/));
    await user.type(screen.getByRole('textbox', { name: 'People in a group at most' }), '3');
    await user.click(screen.getByRole('button', { name: 'Create group set' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toMatchObject({ name: 'Pairs', shape: { by: 'hand-in' }, capacity: 3 }),
    );
  });

  it('is made of expert tables, with their sizes and what a small group lacks said before', async () => {
    const { set, groups } = aBoard({});
    const seat = (name: string, at: number) =>
      anEntry(name, {
        groups: [{ setId, groupId: sure(groups[at]).id, number: at + 1, name: sure(groups[at]).name }],
      });
    const { user, writes } = showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: { sets: [set], archived: [], students: 3 },
      [`GET courses/${courseId}/roster`]: {
        entries: [seat('Ada', 0), seat('Ben', 0), seat('Cho', 1)],
        sets: [{ id: setId, name: 'Bench teams', isExclusive: true, groups }],
        attributes: [],
        syncedAt: null,
      },
      [`POST sets/${setId}/experts`]: { ...set, activities: [] },
      [`GET sets/${setId}/board`]: aBoard({}),
    });
    await user.type(await screen.findByRole('textbox', { name: /Name of the set/ }), 'Experts');
    await user.click(screen.getByText(/^Expert tables/));
    await user.type(screen.getByRole('textbox', { name: 'Topics, one per line' }), 'Salt{Enter}Packaging');
    expect(await screen.findByRole('heading', { name: '2 tables' })).toBeInTheDocument();
    expect(
      screen.getByText(/One group is smaller than the number of topics: Carboy has no one for/),
    ).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Create group set' }));
    await waitFor(() =>
      expect(sure(writes()[0]).body).toEqual({
        name: 'Experts',
        topics: ['Salt', 'Packaging'],
        most: null,
        seed: expect.any(Number),
      }),
    );
  });

  it('is copied from another, and says of which', async () => {
    const { user, writes } = open();
    await user.type(await screen.findByRole('textbox', { name: /Name of the set/ }), 'Again');
    await user.click(screen.getByText(/^Copy of another set/));
    expect(screen.getByRole('heading', { name: '2 groups, as in Bench teams' })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Create group set' }));
    await waitFor(() =>
      expect(writes()[0]).toMatchObject({
        path: `sets/${setId}/copies`,
        body: { name: 'Again', withMembers: true },
      }),
    );
  });

  it('is made with what each group gets, said before it is made and after', async () => {
    const board = aBoard({ Ada: 'Crock' });
    const { user, writes } = showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: { sets: [], archived: [], students: 8 },
      [`POST courses/${courseId}/sets`]: {
        ...board.set,
        activities: [
          { id: id('talk'), title: 'Planning', kind: 'discussion', isReleased: true, copies: 2 },
          { id: id('report'), title: 'Assignment', kind: 'assignment', isReleased: false, copies: 0 },
        ],
      },
      [`GET sets/${setId}/board`]: board,
    });
    await user.type(await screen.findByRole('textbox', { name: /Name of the set/ }), 'Benches');
    await user.click(screen.getByText(/^Deal by rules/));
    await user.click(screen.getByRole('button', { name: 'Add: Discussion' }));
    await user.keyboard('Planning');
    await user.click(screen.getByRole('button', { name: 'Add: Wiki' }));
    await user.click(screen.getByRole('button', { name: 'Without Wiki' }));
    await user.click(screen.getByRole('button', { name: 'Add: Assignment' }));
    const forecast = within(screen.getByRole('complementary', { name: 'Forecast' }));
    expect(forecast.getAllByText(/copies, live|a draft/).map((each) => each.textContent)).toEqual([
      '2 copies, live',
      'a draft',
    ]);
    await user.click(screen.getByRole('button', { name: 'Create 2 groups' }));
    const sent = sure(writes()[0]).body as {
      activities: { draft: { kind: string; title: string }; isReleased: boolean }[];
    };
    expect(sent.activities.map(({ draft, isReleased }) => [draft.kind, draft.title, isReleased])).toEqual([
      ['discussion', 'Planning', true],
      ['assignment', 'Assignment', false],
    ]);
    expect(await screen.findByRole('heading', { name: `${board.set.name} is set up` })).toBeInTheDocument();
    expect(screen.getByText('The one student has a place.')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Planning' })).toHaveAttribute(
      'href',
      inCourse(`release/${id('talk')}`),
    );
    expect(screen.getByRole('link', { name: 'Assignment' })).toHaveAttribute(
      'href',
      `${inCourse(`release/${id('report')}`)}?for=${setId}`,
    );
    expect(screen.getByRole('link', { name: 'Deal by rules' })).toHaveAttribute('href', `${path}/deal`);
  });
});

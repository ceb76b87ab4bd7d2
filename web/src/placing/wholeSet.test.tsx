import { beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { aPlaceResult, aBoard, boardAnswers, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { deal } from './dealOut.js';
import { setId, path, placePath, tray, said, move } from '../test/onBoard.js';

beforeEach(() => localStorage.clear()); // what was done on a Board is kept there

describe('a set as a whole', () => {
  const menu = async (user: ReturnType<typeof showPage>['user'], item: RegExp) => {
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: item }));
  };

  it('is dealt to the unplaced in the order asked for, as one step that can be undone', async () => {
    const { user, writes } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: 'Crock', Cho: null, Dia: null }), {
        [placePath]: aPlaceResult(0),
      }),
    );
    await menu(user, /^Deal at random/);
    await user.click(screen.getByRole('radio', { name: 'Alphabetical' }));
    expect(within(screen.getByRole('dialog')).getByText('2 groups of 2')).toBeInTheDocument();
    const after = (name: string) => screen.getByRole('listitem', { name }).querySelector('p');
    expect(after('Crock')).toHaveTextContent('Ben, Cho');
    expect(after('Carboy')).toHaveTextContent('Ada, Dia');
    expect(
      within(screen.getByRole('listitem', { name: 'Crock' }))
        .getByText('Ben')
        .closest('b'),
    ).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Deal 3 students' }));
    await said('3 students dealt alphabetically');
    expect(sure(writes()[0]).body).toEqual({
      moves: [move('Ada', null, 'Carboy'), move('Cho', null, 'Crock'), move('Dia', null, 'Carboy')],
    });
    await user.keyboard('z');
    await waitFor(() => expect(writes()).toHaveLength(2));
  });

  it('offers the deal by rules first, also when everyone has a place', async () => {
    const all = showPage(path, boardAnswers(aBoard({ Ada: 'Crock', Ben: 'Carboy' })));
    await all.user.click(await screen.findByRole('button', { name: 'Deal 2 students…' }));
    await waitFor(() => expect(all.router.state.location.pathname).toBe(`${path}/deal`));
    cleanup();
    // Rules are the course's: an assistant deals places in turn.
    const assistant = showPage(path, boardAnswers(aBoard({ Ada: null })), 'assistant');
    await assistant.user.click(await screen.findByRole('button', { name: 'Deal 1 student…' }));
    expect(await screen.findByRole('dialog', { name: 'Deal places' })).toBeInTheDocument();
  });

  it('says who finds no room, and deals the same again for the same seed', async () => {
    const { user } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null, Cho: null, Dia: null, Eva: null })),
    );
    await menu(user, /^Deal at random/);
    expect(screen.getByText(/1 student finds no room and stays unplaced/)).toBeInTheDocument();
    const view = aBoard({ Ada: null, Ben: null, Cho: 'Crock', Dia: 'Carboy' });
    expect(deal(view, 'all', 'random', 7)).toEqual(deal(view, 'all', 'random', 7));
    expect(
      deal(view, 'unplaced', 'random', 7)
        .place.moves.map((each) => each.student)
        .sort(),
    ).toEqual([id('Ada'), id('Ben')].sort());
    const locked = {
      ...view,
      groups: view.groups.map((each) => ({ ...each, isLocked: each.name === 'Crock' })),
    };
    const anew = deal(locked, 'all', 'alphabet', 0);
    expect(anew.place.moves.every((each) => each.student !== id('Cho') && each.to !== id('Crock'))).toBe(
      true,
    );
    expect(anew.left).toBe(1);
  });

  it('shows who would be where, and deals again with another seed before anything happens', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: null, Cho: null })));
    await menu(user, /^Deal at random/);
    const after = () => screen.getByRole('list', { name: 'Groups after the deal' }).textContent;
    const seeds = new Set<string>();
    const proposals = new Set<string>();
    for (let at = 0; at < 12; at += 1) {
      seeds.add(screen.getByLabelText<HTMLInputElement>('Seed').value);
      proposals.add(after());
      await user.click(screen.getByRole('button', { name: 'Deal again' }));
    }
    expect(seeds.size).toBeGreaterThan(6);
    expect(proposals.size).toBeGreaterThan(1);
    expect(writes()).toEqual([]);
  });

  it('keeps what was done over a reload', async () => {
    const answers = boardAnswers(aBoard({ Ada: null }), { [placePath]: aPlaceResult(0) });
    const first = showPage(path, answers);
    await first.user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await first.user.keyboard('2');
    await said('Ada placed in Carboy');
    cleanup();
    const second = showPage(path, boardAnswers(aBoard({ Ada: 'Carboy' }), { [placePath]: aPlaceResult(1) }));
    await second.user.click(await screen.findByRole('button', { name: 'Undo: Ada placed in Carboy' }));
    await waitFor(() =>
      expect(sure(second.writes()[0]).body).toEqual({ moves: [move('Ada', 'Carboy', null)] }),
    );
  });

  it('keeps what was done even if the page is loaded again before it was answered', async () => {
    const answers = boardAnswers(aBoard({ Ada: null }), { [placePath]: () => new Promise(() => undefined) });
    const first = showPage(path, answers);
    await first.user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await first.user.keyboard('2');
    expect(await screen.findByRole('button', { name: 'Undo: Ada placed in Carboy' })).toBeInTheDocument();
    cleanup();
    showPage(path, boardAnswers(aBoard({ Ada: 'Carboy' })));
    expect(await screen.findByRole('button', { name: 'Undo: Ada placed in Carboy' })).toBeEnabled();
  });

  it('takes everyone out but those in locked groups', async () => {
    const view = aBoard({ Ada: 'Crock', Ben: 'Carboy' });
    const locked = {
      ...view,
      groups: view.groups.map((each) => ({ ...each, isLocked: each.name === 'Crock' })),
    };
    const { user, writes } = showPage(path, boardAnswers(locked, { [placePath]: aPlaceResult(1) }));
    expect(await screen.findByText('Locked')).toBeInTheDocument();
    await menu(user, /Remove everyone except in locked groups/);
    await waitFor(() => expect(sure(writes()[0]).body).toEqual({ moves: [move('Ben', 'Carboy', null)] }));
  });

  it('is archived with the way back', async () => {
    const view = aBoard({ Ada: 'Crock' });
    const other = { ...view.set, id: id<'group-set'>('labs'), name: 'Labs' };
    const sets = { sets: [view.set, other], archived: [], students: 1 };
    const { user, writes } = showPage(
      path,
      boardAnswers(view, {
        [`GET courses/${courseId}/sets`]: sets,
        [`POST sets/${setId}/archive`]: view.set,
      }),
    );
    await menu(user, /Archive set/);
    await said('Bench teams archived. Its rooms, work and marks are kept.');
    expect(sure(writes()[0]).body).toEqual({ isArchived: true });
    await user.click(sure(screen.getAllByRole('button', { name: 'Undo' }).at(-1))); // the notice's, not the Board's
    await waitFor(() => expect(sure(writes()[1]).body).toEqual({ isArchived: false }));
  });

  it('is frozen with the way back, and offered to students', async () => {
    const view = aBoard({ Ada: 'Crock' });
    const { user, writes } = showPage(
      path,
      boardAnswers(view, {
        [`POST sets/${setId}/freeze`]: { ...view.set, frozenAt: '2026-11-10T10:00:00.000Z' },
        [`PATCH sets/${setId}`]: { ...view.set, version: 2 },
      }),
    );
    await menu(user, /^Freeze/);
    await said('Bench teams frozen: students stay where they are');
    await menu(user, /^Set settings/);
    await user.click(await screen.findByRole('checkbox', { name: /Students choose their own place/ }));
    await user.click(screen.getByRole('checkbox', { name: /Everyone sees who is in each group/ }));
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toMatchObject({
        signUp: { opens: null, closes: null, showsNames: false },
        version: 1,
      }),
    );
  });
});

describe('a set that was put away', () => {
  it('is brought back from where sets are made', async () => {
    const { user, writes, router } = showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: {
        sets: [],
        archived: [{ id: setId, name: 'Bench teams' }],
        students: 3,
      },
      [`POST sets/${setId}/archive`]: aBoard({}).set,
    });
    await user.click(await screen.findByRole('button', { name: 'Restore Bench teams' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(path));
    expect(sure(writes()[0]).body).toEqual({ isArchived: false });
  });
});

describe('groups and files', () => {
  const chooseFile = async (user: ReturnType<typeof showPage>['user'], text: string) => {
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Import groups…' }));
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File([text], 'places.csv', { type: 'text/csv' }),
    );
  };

  it('shows what a file would move and which lines are left out, then moves in one step', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: 'Crock' })));
    await chooseFile(
      user,
      'E-mail,Group\nada@quillmere.example,Carboy\nben@quillmere.example,Crock\nzed@quillmere.example,Crock\n',
    );
    expect(await screen.findByText('1 with problems')).toBeInTheDocument();
    expect(screen.getByText(/No one in this course is called “zed@quillmere.example”/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Move 1' }));
    await said('1 student placed as in places.csv');
    expect(sure(writes()[0]).body).toEqual({ moves: [move('Ada', null, 'Carboy')] });
  });

  it('lets the columns be chosen, and adds the groups that the file names', async () => {
    const before = aBoard({ Ada: null });
    const { user, writes, set } = showPage(path, boardAnswers(before));
    await chooseFile(user, 'E-mail,Colour\nada@quillmere.example,Red\n');
    expect(await screen.findByText(/No column is called Group/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /Group$/ }));
    await user.click(await screen.findByRole('option', { name: 'Colour' }));
    expect(await screen.findByText(/This set has no group “Red”/)).toBeInTheDocument();
    const red = { ...sure(before.groups[0]), id: id<'group'>('Red'), number: 3, name: 'Red' };
    set(`PUT sets/${setId}/groups`, { groups: [...before.groups, red] });
    set(`GET sets/${setId}/board`, { ...before, groups: [...before.groups, red] });
    await user.click(screen.getByRole('button', { name: 'Add 1 group: Red' }));
    await user.click(await screen.findByRole('button', { name: 'Move 1' }));
    await said('1 student placed as in places.csv');
    expect(writes().map((write) => write.body)).toMatchObject([
      { groups: [{}, {}, { id: null, name: 'Red' }], removed: [] },
      { moves: [move('Ada', null, 'Red')] },
    ]);
  });

  it('reads a workbook on the server, and says why one cannot be read', async () => {
    const tablePath = `POST courses/${courseId}/roster/table`;
    const { user, set } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null }), {
        [tablePath]: new Refusal(422, 'unreadable-file', 'This workbook holds no people.'),
      }),
    );
    await chooseFile(user, 'PK not a workbook');
    expect(await screen.findByText('This workbook holds no people.')).toBeInTheDocument();
    set(tablePath, {
      headings: ['Name', 'Team'],
      rows: [{ line: 4, cells: ['Ada', 'Carboy'] }],
      place: null,
    });
    await user.upload(
      sure(document.querySelector<HTMLInputElement>('input[type=file]')),
      new File(['PK again'], 'teams.xlsx'),
    );
    expect(await screen.findByRole('button', { name: 'Move 1' })).toBeInTheDocument();
  });

  it('copies the set under another name', async () => {
    const view = aBoard({ Ada: 'Crock' });
    const copied = { ...view.set, id: id<'group-set'>('again'), name: 'Bench teams 2', activities: [] };
    const { user, writes, router } = showPage(
      path,
      boardAnswers(view, { [`POST sets/${setId}/copies`]: copied }),
    );
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Copy set…' }));
    await user.click(await screen.findByRole('checkbox', { name: /With the same people/ }));
    await user.click(screen.getByRole('button', { name: 'Create 2 groups' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`groups/${copied.id}`)));
    expect(sure(writes()[0]).body).toEqual({ name: 'Bench teams 2', withMembers: false });
  });

  it('lists who is where, to be printed', async () => {
    const { user } = showPage(
      inCourse(`groups/${setId}/lists`),
      boardAnswers(aBoard({ Ada: 'Crock', Ben: null })),
    );
    expect(within(await screen.findByRole('region', { name: 'Crock' })).getByText('Ada')).toBeInTheDocument();
    await user.click(screen.getByRole('radio', { name: 'By student' }));
    expect(screen.getByRole('row', { name: 'Ben no group yet' })).toBeInTheDocument();
  });
});

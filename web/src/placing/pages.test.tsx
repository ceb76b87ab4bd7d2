import { beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type { SignUpView } from '@jigsaw/contract/placing';
import { aPlaceResult, aBoard, boardAnswers, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { deal } from './DealOutSheet.js';

const setId = id<'group-set'>('benches');
const path = inCourse(`groups/${setId}`);
const placePath = `POST sets/${setId}/place`;
const tray = () => screen.findByRole('grid', { name: 'Unplaced students' });
const group = (name: string) => screen.getByRole('grid', { name: new RegExp(`^${name}, group`) });
const names = (grid: HTMLElement) =>
  [...grid.querySelectorAll('[role=row][data-key]')].map(
    (row) => row.getAttribute('aria-label') ?? row.textContent,
  );
/** In the notice, and then in the list of this sitting. */
const said = async (words: string) => expect((await screen.findAllByText(words)).length).toBeGreaterThan(0);
const move = (name: string, from: string | null, to: string | null) => ({
  student: id(name),
  from: from && id(from),
  to: to && id(to),
});

beforeEach(() => localStorage.clear()); // what was done on a Board is kept there

describe('the Board', () => {
  it('sends the selection to a group by its number, shows it at once and offers the way back', async () => {
    let release: (value: unknown) => void = () => undefined;
    const { user, writes, set } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null, Cho: 'Crock' })),
    );
    set(placePath, () => new Promise((resolve) => (release = resolve)));
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    expect(names(group('Carboy'))).toEqual(['Ada']); // before the server has answered
    expect(screen.getByText('1 of 3 unplaced')).toBeInTheDocument();
    release(aPlaceResult(1));
    await said('Ada placed in Carboy');
    expect(writes()[0]!.body).toEqual({ moves: [move('Ada', null, 'Carboy')] });

    set(placePath, aPlaceResult(2));
    await user.keyboard('z');
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(writes()[1]!.body).toEqual({ moves: [move('Ada', 'Carboy', null)] });
    expect(names(await tray())).toContain('Ada');
  });

  it('says by how many a group is over and keeps it', async () => {
    const { user } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: 'Crock', Cho: 'Crock' })));
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('1');
    await said('Crock has 3 of 2. Move one student, or let Crock hold 3.');
    expect(screen.getByText('1 over')).toBeInTheDocument();
  });

  it('takes the move back and shows the Board as it is when somebody else was first', async () => {
    const current = aBoard({ Ada: 'Crock', Ben: null });
    const { user } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null }), {
        [placePath]: new Refusal(409, 'stale-write', 'Someone else moved one of these students first.', {
          current,
        }),
      }),
    );
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    expect(await screen.findByText(/Someone else moved one of these students first/)).toBeInTheDocument();
    await waitFor(() => expect(names(group('Crock'))).toEqual(['Ada']));
    expect(names(group('Carboy'))).toEqual([]);
    expect(screen.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });

  it('takes the move back when it could not be kept, and asks for nothing else', async () => {
    const { user } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null }), {
        [placePath]: new Refusal(503, 'unexpected', 'The room could not be reached. Try again.'),
      }),
    );
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    expect(await screen.findByText('The room could not be reached. Try again.')).toBeInTheDocument();
    await waitFor(async () => expect(names(await tray())).toContain('Ada'));
    expect(names(group('Carboy'))).toEqual([]);
    expect(screen.getByText('2 of 2 unplaced')).toBeInTheDocument();
  });

  it('swaps two, and says what is needed for it', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: 'Crock', Ben: 'Carboy' })));
    await tray();
    await user.click(within(group('Crock')).getByRole('row', { name: 'Ada' }));
    await user.keyboard('s');
    expect(await screen.findByText(/Select two students in different groups/)).toBeInTheDocument();
    await user.keyboard('{Control>}');
    await user.click(within(group('Carboy')).getByRole('row', { name: 'Ben' }));
    await user.keyboard('{/Control}');
    expect(screen.getByText('2 selected.')).toBeInTheDocument();
    await user.keyboard('s');
    await said('Ada and Ben swapped');
    expect(writes()[0]!.body).toEqual({
      moves: [move('Ada', 'Crock', 'Carboy'), move('Ben', 'Carboy', 'Crock')],
    });
  });

  it('knows no group of that number', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null })));
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('7');
    expect(await screen.findByText('There is no group 7 in this set.')).toBeInTheDocument();
    expect(writes()).toEqual([]);
  });

  it('finds a student without accents, in the tray and in the groups', async () => {
    const { user } = showPage(
      path,
      boardAnswers(aBoard({ 'Zofia Wiśniewska': null, 'Ada Okafor': null, 'Łukasz Wisniewski': 'Crock' })),
    );
    await tray();
    await user.keyboard('/');
    await user.keyboard('wisniewsk');
    expect(names(await tray())).toEqual(['Zofia Wiśniewska']);
    expect(within(group('Crock')).getByText('Łukasz Wisniewski').closest('[data-found]')).not.toBeNull();
  });

  it('renames a group and shows a stale rename what is there', async () => {
    const { user, writes } = showPage(
      path,
      boardAnswers(aBoard({ Ada: 'Crock' }), {
        [`PATCH groups/${id('Crock')}`]: new Refusal(
          409,
          'stale-write',
          'This group was changed meanwhile: it is called Kvevri now.',
        ),
      }),
    );
    await tray();
    await user.click(screen.getByRole('button', { name: 'More of Crock' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Name, places, lock…' }));
    const name = await screen.findByLabelText('Name, shown everywhere at once');
    await user.clear(name);
    await user.type(name, 'Tun');
    await user.click(screen.getByRole('button', { name: 'Change the group' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('it is called Kvevri now');
    expect(name).toHaveValue('Tun');
    expect(writes()[0]!.body).toEqual({ name: 'Tun', capacity: null, isLocked: false, version: 1 });
  });

  it('lets observers look and nothing else', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null })), 'observer');
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('1');
    expect(writes()).toEqual([]);
    expect(screen.queryByRole('button', { name: 'Change Crock' })).not.toBeInTheDocument();
  });
});

describe('a new group set', () => {
  const open = (students: number) =>
    showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: { sets: [], putAway: [], students },
    });
  const heading = (name: string) => screen.findByRole('heading', { name });

  it('shows what will come of it before anything is made', async () => {
    const { user } = open(27);
    const size = await screen.findByLabelText('Members in a group');
    await user.clear(size);
    await user.type(size, '6');
    expect(await heading('5 groups: 2 of 6, 3 of 5')).toBeInTheDocument();
    await user.click(screen.getByText(/^Full groups/));
    expect(await heading('5 groups: 4 of 6, 1 of 3')).toBeInTheDocument();
    await user.click(screen.getByText(/^Exactly so many/));
    expect(await heading('12 groups: 3 of 3, 9 of 2')).toBeInTheDocument();
  });

  it('says that groups stay empty, and what a shape must be', async () => {
    const { user } = open(2);
    await user.click(await screen.findByText(/^Exactly so many/));
    expect(screen.getByText(/10 groups stay empty/)).toBeInTheDocument();
    const count = screen.getByLabelText('Number of groups');
    await user.clear(count);
    await user.type(count, '2.5');
    expect(screen.getByText('Write a whole number above 0.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Make groups' })).toBeDisabled();
  });

  it('sends the names that were pasted and opens the Board', async () => {
    const made = { ...aBoard({}).set, id: setId, capacity: 4, unplaced: 8, activities: [] };
    const { user, writes, set, router } = open(8);
    set(`POST courses/${courseId}/sets`, made);
    await user.type(await screen.findByLabelText('Name of the set'), 'Bench teams');
    await user.type(screen.getByLabelText(/^Places in each group/), '4');
    await user.type(screen.getByLabelText('Or paste names, one a line'), 'Crock\nCarboy');
    await user.click(screen.getByRole('button', { name: 'Make 2 groups' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(path));
    expect(writes()[0]!.body).toEqual({
      name: 'Bench teams',
      shape: { by: 'size', size: 4, how: 'spread' },
      capacity: 4,
      isExclusive: true,
      pattern: 'Group {n}',
      names: ['Crock', 'Carboy'],
      signUp: null,
    });
  });
});

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
    await user.click(await screen.findByRole('button', { name: 'Deal 3 students…' }));
    await user.click(screen.getByRole('radio', { name: /Alphabetically/ }));
    expect(screen.getByText('2 groups of 2')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Deal 3 students' }));
    await said('3 students dealt alphabetically');
    expect(writes()[0]!.body).toEqual({
      moves: [move('Ada', null, 'Carboy'), move('Cho', null, 'Crock'), move('Dia', null, 'Carboy')],
    });
    await user.keyboard('z');
    await waitFor(() => expect(writes()).toHaveLength(2));
  });

  it('says who finds no room, and deals the same again for the same seed', async () => {
    const { user } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null, Cho: null, Dia: null, Eva: null })),
    );
    await user.click(await screen.findByRole('button', { name: 'Deal 5 students…' }));
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

  it('keeps what was done over a reload', async () => {
    const answers = boardAnswers(aBoard({ Ada: null }), { [placePath]: aPlaceResult(0) });
    const first = showPage(path, answers);
    await first.user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await first.user.keyboard('2');
    await said('Ada placed in Carboy');
    cleanup();
    const second = showPage(path, boardAnswers(aBoard({ Ada: 'Carboy' }), { [placePath]: aPlaceResult(1) }));
    await second.user.click(await screen.findByRole('button', { name: 'Undo: Ada placed in Carboy' }));
    await waitFor(() => expect(second.writes()[0]!.body).toEqual({ moves: [move('Ada', 'Carboy', null)] }));
  });

  it('takes everyone out but those in locked groups', async () => {
    const view = aBoard({ Ada: 'Crock', Ben: 'Carboy' });
    const locked = {
      ...view,
      groups: view.groups.map((each) => ({ ...each, isLocked: each.name === 'Crock' })),
    };
    const { user, writes } = showPage(path, boardAnswers(locked, { [placePath]: aPlaceResult(1) }));
    expect(await screen.findByText('Locked')).toBeInTheDocument();
    await menu(user, /Take everyone out who is in no locked group/);
    await waitFor(() => expect(writes()[0]!.body).toEqual({ moves: [move('Ben', 'Carboy', null)] }));
  });

  it('is put away with the way back, and moved among the others', async () => {
    const view = aBoard({ Ada: 'Crock' });
    const other = { ...view.set, id: id<'group-set'>('labs'), name: 'Labs' };
    const sets = { sets: [view.set, other], putAway: [], students: 1 };
    const { user, writes } = showPage(
      path,
      boardAnswers(view, {
        [`GET courses/${courseId}/sets`]: sets,
        [`PUT courses/${courseId}/sets/order`]: sets,
        [`POST sets/${setId}/put-away`]: view.set,
      }),
    );
    await menu(user, /Show it later/);
    await waitFor(() => expect(writes()[0]!.body).toEqual({ setIds: [other.id, setId] }));
    await menu(user, /Put the set away/);
    await said('Bench teams put away; its rooms, work and marks stay');
    expect(writes()[1]!.body).toEqual({ isPutAway: true });
    await user.click(screen.getAllByRole('button', { name: 'Undo' }).at(-1)!); // the notice's, not the Board's
    await waitFor(() => expect(writes()[2]!.body).toEqual({ isPutAway: false }));
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
    await menu(user, /^Settings/);
    await user.click(await screen.findByRole('checkbox', { name: /Students choose their own place/ }));
    await user.click(screen.getByRole('checkbox', { name: /Everybody sees who is in which group/ }));
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(writes().at(-1)!.body).toMatchObject({
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
        putAway: [{ id: setId, name: 'Bench teams' }],
        students: 3,
      },
      [`POST sets/${setId}/put-away`]: aBoard({}).set,
    });
    await user.click(await screen.findByRole('button', { name: 'Bring Bench teams back' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(path));
    expect(writes()[0]!.body).toEqual({ isPutAway: false });
  });
});

describe('where they fit', () => {
  it('is told for those who are selected, with the reason, and a press places them', async () => {
    const view = aBoard({ Ada: null, Ben: 'Crock', Cho: 'Carboy', Dia: null });
    const lab: Readonly<Record<string, string>> = { Ada: 'none', Ben: 'none', Cho: 'some', Dia: 'some' };
    const known = {
      ...view,
      attributes: [{ name: 'Lab', kind: 'category' as const, isChosen: false }],
      students: view.students.map((each) => ({ ...each, attributes: { Lab: lab[each.name]! } })),
    };
    const { user, writes } = showPage(path, boardAnswers(known));
    expect(await screen.findByRole('region', { name: 'Balance' })).toHaveTextContent(
      'All mixed like the class',
    );
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    const fits = within(await screen.findByRole('region', { name: 'Where they fit' }));
    expect(fits.getAllByRole('button').map((each) => each.textContent)).toEqual([
      '2Carboy1 free, evens out LabBest',
      '1Crock1 free, tilts Lab',
    ]);
    await user.click(fits.getByRole('button', { name: /Carboy/ }));
    await said('Ada placed in Carboy');
    expect(writes()[0]!.body).toEqual({ moves: [move('Ada', null, 'Carboy')] });
  });
});

describe('groups and files', () => {
  const chooseFile = async (user: ReturnType<typeof showPage>['user'], text: string) => {
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Places from a file…' }));
    await screen.findByRole('button', { name: 'Choose a file…' });
    await user.upload(
      document.querySelector<HTMLInputElement>('input[type=file]')!,
      new File([text], 'places.csv', { type: 'text/csv' }),
    );
  };

  it('shows what a file would move and which lines are left out, then moves in one step', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: 'Crock' })));
    await chooseFile(
      user,
      'E-mail,Group\nada@quillmere.example,Carboy\nben@quillmere.example,Crock\nzed@quillmere.example,Crock\n',
    );
    expect(await screen.findByText('1 left out')).toBeInTheDocument();
    expect(screen.getByText(/Nobody in this course is known as “zed@quillmere.example”/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Move 1' }));
    await said('1 student placed as in places.csv');
    expect(writes()[0]!.body).toEqual({ moves: [move('Ada', null, 'Carboy')] });
  });

  it('says why a file is no list of groups', async () => {
    const { user } = showPage(path, boardAnswers(aBoard({ Ada: null })));
    await chooseFile(user, 'E-mail,Colour\nada@quillmere.example,red\n');
    expect(await screen.findByText(/No column is called Group/)).toBeInTheDocument();
  });

  it('copies the set under another name', async () => {
    const view = aBoard({ Ada: 'Crock' });
    const copied = { ...view.set, id: id<'group-set'>('again'), name: 'Bench teams 2', activities: [] };
    const { user, writes, router } = showPage(
      path,
      boardAnswers(view, { [`POST sets/${setId}/copies`]: copied }),
    );
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Copy the set…' }));
    await user.click(await screen.findByRole('checkbox', { name: /With everybody/ }));
    await user.click(screen.getByRole('button', { name: 'Make 2 groups' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`groups/${copied.id}`)));
    expect(writes()[0]!.body).toEqual({ name: 'Bench teams 2', withMembers: false });
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

describe('moving after work began', () => {
  it('says first what happens to the work, and moves nobody until it is read', async () => {
    const view = aBoard({ Ada: 'Crock', Ben: null });
    const worked = {
      ...view,
      students: view.students.map((student) =>
        student.name === 'Ada' ? { ...student, seats: [{ ...student.seats[0]!, handIns: 2 }] } : student,
      ),
    };
    const { user, writes } = showPage(path, boardAnswers(worked));
    await tray();
    await user.click(within(group('Crock')).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    const dialog = within(await screen.findByRole('dialog', { name: 'Ada has handed in' }));
    expect(
      dialog.getByText(/Crock → Carboy\. 2 hand-ins of Crock stay credited to them/),
    ).toBeInTheDocument();
    await user.click(dialog.getByRole('button', { name: 'Leave it' }));
    expect(writes()).toEqual([]);
    await user.click(within(group('Crock')).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await user.type(await screen.findByLabelText(/^Why/), 'Timetable clash');
    await user.click(screen.getByText('They share what it handed in last, too'));
    await user.click(screen.getByRole('button', { name: 'Move, credit stays' }));
    await said('Ada moved to Carboy');
    expect(writes().map((write) => write.body)).toEqual([
      { moves: [move('Ada', 'Crock', 'Carboy')], why: 'Timetable clash', credit: 'joins' },
    ]);
    await user.keyboard('z');
    await waitFor(() =>
      expect(writes()[1]!.body).toEqual({ moves: [move('Ada', 'Carboy', 'Crock')], credit: 'taken-back' }),
    );
  });
});

describe('a student who chooses a place', () => {
  const signUpPath = `sets/${setId}/sign-up`;
  const aView = (more: Partial<SignUpView> = {}): SignUpView => ({
    set: { id: setId, name: 'Tasting panels', description: 'One taste each.', opens: null, closes: null },
    state: 'open',
    groups: [
      {
        id: id('Sour'),
        number: 1,
        name: 'Sour',
        members: 1,
        capacity: 2,
        isLocked: false,
        names: [{ name: 'Ben', reading: null, isYou: false }],
      },
      { id: id('Malt'), number: 2, name: 'Malt', members: 2, capacity: 2, isLocked: false, names: null },
    ],
    yours: null,
    bound: null,
    chosen: 3,
    students: 5,
    ...more,
  });
  const page = (view: SignUpView, more: object = {}) =>
    showPage(inCourse(`choose/${setId}`), { [`GET ${signUpPath}`]: view, ...more }, 'student');

  it('sees what is left and takes one, with the way back', async () => {
    const taken = aView({ yours: id('Sour') });
    const { user, writes } = page(aView(), { [`POST ${signUpPath}`]: taken });
    expect(await screen.findByText('3 of 5')).toBeInTheDocument();
    expect(within(screen.getByRole('listitem', { name: 'Malt' })).getByText('Full')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /in Malt/ })).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Take a place in Sour' }));
    await said('You are in Sour');
    expect(writes()[0]!.body).toEqual({ groupId: id('Sour') });
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes()[1]!.body).toEqual({ groupId: null }));
  });

  it('is told what is left when somebody was faster', async () => {
    const { user } = page(aView(), {
      [`POST ${signUpPath}`]: new Refusal(
        409,
        'stale-write',
        'Sour is full now. No group has a place left; your instructor will place you.',
      ),
    });
    await user.click(await screen.findByRole('button', { name: 'Take a place in Sour' }));
    expect(await screen.findByText(/Sour is full now/)).toBeInTheDocument();
  });

  it.each([
    [
      'before its time',
      aView({ state: 'not-open-yet', set: { ...aView().set, opens: '2026-11-12T08:00:00.000Z' } }),
      'choosing begins then',
    ],
    [
      'after its time',
      aView({ state: 'closed', set: { ...aView().set, closes: '2026-11-09T08:00:00.000Z' } }),
      'choosing ended then',
    ],
    ['once it is frozen', aView({ state: 'frozen', yours: id('Sour') }), 'by your instructor'],
    [
      'once handed in',
      aView({ bound: 'Your group has handed in already.', yours: id('Sour') }),
      'Your group has handed in already.',
    ],
  ])('has nothing to press %s', async (_when, view, says) => {
    page(view);
    expect(await screen.findByText(says)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Sour|Give it back/ })).not.toBeInTheDocument();
  });

  it('finds the choice among what is due, and nothing where there is none', async () => {
    const signUps = [
      { setId, name: 'Tasting panels', state: 'open', opens: null, closes: null, yours: null },
    ];
    showPage(
      inCourse('due'),
      {
        [`GET courses/${courseId}/rooms`]: { rooms: [], common: [], locked: [] },
        [`GET courses/${courseId}/sign-ups`]: { signUps },
      },
      'student',
    );
    expect(await screen.findByRole('link', { name: /Choose your group in Tasting panels/ })).toHaveAttribute(
      'href',
      expect.stringContaining(`choose/${setId}`),
    );
    cleanup();
    page(aView(), { [`GET ${signUpPath}`]: new Refusal(404, 'not-found', 'There is nothing here.') });
    expect(await screen.findByText('There is nothing to choose here')).toBeInTheDocument();
  });
});

import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { aPlaceResult, aBoard, boardAnswers, id } from '../test/data.js';
import { Refusal, showPage } from '../test/showPage.js';
import { path, placePath, tray, group, names, said, move } from '../test/onBoard.js';

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
    expect(sure(writes()[0]).body).toEqual({ moves: [move('Ada', null, 'Carboy')] });

    set(placePath, aPlaceResult(2));
    await user.keyboard('z');
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(sure(writes()[1]).body).toEqual({ moves: [move('Ada', 'Carboy', null)] });
    expect(names(await tray())).toContain('Ada');
  });

  it('shows a second act at once while the first is on its way, and keeps it when the first is refused', async () => {
    const { user, writes, set } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null, Cho: 'Crock' })),
    );
    let answer: (value: unknown) => void = () => undefined;
    set(placePath, () => new Promise((resolve) => (answer = resolve)));
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await user.click(within(await tray()).getByRole('row', { name: 'Ben' }));
    await user.keyboard('2');
    expect(names(group('Carboy'))).toEqual(['Ada', 'Ben']); // the first is not answered yet
    expect(screen.getByText('0 of 3 unplaced')).toBeInTheDocument();
    expect(writes()).toHaveLength(1);

    set(placePath, aPlaceResult(1));
    answer(new Refusal(503, 'unexpected', 'The room could not be reached. Try again.'));
    await said('Ben placed in Carboy');
    expect(names(group('Carboy'))).toEqual(['Ben']);
    expect(names(await tray())).toEqual(['Ada']);
    expect(screen.getByText('1 of 3 unplaced')).toBeInTheDocument();
  });

  it('takes two acts back when undo is pressed twice, however slow the answer is', async () => {
    const { user, writes, set } = showPage(
      path,
      boardAnswers(aBoard({ Ada: null, Ben: null, Cho: 'Crock' }), { [placePath]: aPlaceResult(1) }),
    );
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await said('Ada placed in Carboy');
    await user.click(within(await tray()).getByRole('row', { name: 'Ben' }));
    await user.keyboard('2');
    await said('Ben placed in Carboy');

    let answer: (value: unknown) => void = () => undefined;
    set(placePath, () => new Promise((resolve) => (answer = resolve)));
    await user.keyboard('z');
    await user.keyboard('z');
    await waitFor(() => expect(writes()).toHaveLength(3));
    set(placePath, aPlaceResult(3));
    answer(aPlaceResult(2));
    await waitFor(() => expect(writes()).toHaveLength(4));
    expect(writes().map((write) => (write.body as { moves: unknown[] }).moves)).toEqual([
      [move('Ada', null, 'Carboy')],
      [move('Ben', null, 'Carboy')],
      [move('Ben', 'Carboy', null)],
      [move('Ada', 'Carboy', null)],
    ]);
    expect(screen.getAllByRole('button', { name: 'Undo' })[0]).toBeDisabled();
  });

  it('says by how many a group is over and keeps it', async () => {
    const { user } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: 'Crock', Cho: 'Crock' })));
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('1');
    await said('Crock has 3 of 2. Move one student, or let Crock hold 3.');
    expect(screen.getByText('1 over')).toBeInTheDocument();
  });

  it('takes the move back and shows the Board as it is when someone else was first', async () => {
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
    expect(sure(writes()[0]).body).toEqual({
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

    const hits = within(screen.getByRole('region', { name: 'Found in groups' }));
    expect(hits.getAllByRole('button').map((each) => each.textContent)).toEqual(['Łukasz WisniewskiCrock']);
  });

  it('goes to the found student: the first with Enter, any other with a press, and says when there is no one', async () => {
    const { user } = showPage(path, boardAnswers(aBoard({ Ada: null, Ben: 'Crock', Bela: 'Carboy' })));
    await tray();
    await user.keyboard('/');
    await user.keyboard('be{Enter}');
    expect(await screen.findByText('1 selected.')).toBeInTheDocument();
    expect(within(group('Crock')).getByRole('row', { name: 'Ben' })).toHaveAttribute('aria-selected', 'true');
    await user.click(
      within(screen.getByRole('region', { name: 'Found in groups' })).getByRole('button', { name: /Bela/ }),
    );
    expect(within(group('Carboy')).getByRole('row', { name: 'Bela' })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await user.click(screen.getByPlaceholderText('Find a name'));
    await user.keyboard('nn');
    expect(await screen.findByText('No student has that name.')).toBeInTheDocument();
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
    await user.click(await screen.findByRole('menuitem', { name: 'Edit group…' }));
    const name = await screen.findByLabelText('Name, shown everywhere at once');
    await user.clear(name);
    await user.type(name, 'Tun');
    await user.click(screen.getByRole('button', { name: 'Save group' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('it is called Kvevri now');
    expect(name).toHaveValue('Tun');
    expect(sure(writes()[0]).body).toEqual({ name: 'Tun', capacity: null, isLocked: false, version: 1 });
  });

  it('says when and where a group meets, where students choose', async () => {
    const board = aBoard({ Ada: 'Crock' });
    const signUp = { opens: null, closes: null, showsNames: true };
    const { user, writes } = showPage(
      path,
      boardAnswers(
        { ...board, set: { ...board.set, signUp } },
        { [`PATCH groups/${id('Crock')}`]: sure(board.groups[0]) },
      ),
    );
    await tray();
    await user.click(screen.getByRole('button', { name: 'More of Crock' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Edit group…' }));
    await user.type(await screen.findByLabelText('Time'), 'Mon 14:00');
    await user.click(screen.getByRole('button', { name: /Half-day/ }));
    await user.click(await screen.findByRole('option', { name: 'Mon pm' }));
    await user.click(screen.getByRole('button', { name: 'Save group' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    expect(sure(writes()[0]).body).toMatchObject({
      details: { time: 'Mon 14:00', place: '', about: '', halfDay: 'Mon pm' },
    });
  });

  it('lets observers look and nothing else', async () => {
    const { user, writes } = showPage(path, boardAnswers(aBoard({ Ada: null })), 'observer');
    await user.click(within(await tray()).getByRole('row', { name: 'Ada' }));
    await user.keyboard('1');
    expect(writes()).toEqual([]);
    expect(screen.queryByRole('button', { name: 'More of Crock' })).not.toBeInTheDocument();
  });
});

describe('where they fit', () => {
  it('is told for those who are selected, with the reason, and a press places them', async () => {
    const view = aBoard({ Ada: null, Ben: 'Crock', Cho: 'Carboy', Dia: null });
    const lab: Readonly<Record<string, string>> = { Ada: 'none', Ben: 'none', Cho: 'some', Dia: 'some' };
    const known = {
      ...view,
      attributes: [{ name: 'Lab', kind: 'category' as const, isChosen: false }],
      students: view.students.map((each) => ({ ...each, attributes: { Lab: sure(lab[each.name]) } })),
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
    expect(sure(writes()[0]).body).toEqual({ moves: [move('Ada', null, 'Carboy')] });
  });
});

describe('moving after work began', () => {
  it('says first what happens to the work, and moves no one until it is read', async () => {
    const view = aBoard({ Ada: 'Crock', Ben: null });
    const worked = {
      ...view,
      students: view.students.map((student) =>
        student.name === 'Ada' ? { ...student, seats: [{ ...sure(student.seats[0]), handIns: 2 }] } : student,
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
    await user.click(dialog.getByRole('button', { name: 'Cancel' }));
    expect(writes()).toEqual([]);
    await user.click(within(group('Crock')).getByRole('row', { name: 'Ada' }));
    await user.keyboard('2');
    await user.type(await screen.findByLabelText(/^Reason/), 'Timetable clash');
    await user.click(screen.getByText('They share what it handed in last, too'));
    await user.click(screen.getByRole('button', { name: 'Move, credit stays' }));
    await said('Ada moved to Carboy');
    expect(writes().map((write) => write.body)).toEqual([
      { moves: [move('Ada', 'Crock', 'Carboy')], why: 'Timetable clash', credit: 'joins' },
    ]);
    await user.keyboard('z');
    await waitFor(() =>
      expect(sure(writes()[1]).body).toEqual({
        moves: [move('Ada', 'Carboy', 'Crock')],
        credit: 'taken-back',
      }),
    );
  });
});

import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { BoardView } from '@jigsaw/contract/placing';
import { noDetails } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aBoard, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { setId } from '../test/onBoard.js';

beforeEach(() => localStorage.clear()); // what was done on a Board is kept there

const table = (name: string, number: number, topic: number) => ({
  id: id<'group'>(name),
  number,
  name,
  capacity: null,
  isLocked: false,
  motto: '',
  details: noDetails,
  topic,
  leads: [],
  version: 1,
});

/** Home P sends Ada and Ben, Q sends Cho and Dia; Eva is in no home. */
function aRoom(seats: Readonly<Record<string, string | null>>): BoardView {
  const board = aBoard(Object.fromEntries(Object.keys(seats).map((name) => [name, null])));
  const homes = { Ada: 'P', Ben: 'P', Cho: 'Q', Dia: 'Q' } as const;
  return {
    ...board,
    set: {
      ...board.set,
      name: 'Expert tables',
      capacity: null,
      unplaced: Object.values(seats).filter((seat) => seat === null).length,
    },
    groups: [table('Salt', 1, 1), table('Gas', 2, 2)],
    topics: [
      { name: 'Salt', about: 'Brine strength' },
      { name: 'Gas', about: '' },
    ],
    homeSet: { id: id('homes'), name: 'Bench teams' },
    students: board.students.map((student) => {
      const seat = seats[student.name];
      return { ...student, seats: seat ? [{ groupId: id(seat), isLeader: false, handIns: 0 }] : [] };
    }),
    homes: Object.entries(homes)
      .filter(([name]) => name in seats)
      .map(([name, home]) => ({ enrolmentId: id(name), number: home === 'P' ? 1 : 2, name: home })),
  };
}
const even = { Ada: 'Salt', Ben: 'Gas', Cho: 'Salt', Dia: 'Gas' };
const placed = {
  unplaced: 0,
  toPlace: { unplaced: 0, choosing: 0 },
  credited: [],
};
const open = (board: BoardView, more: object = {}) =>
  showPage(inCourse(`groups/${setId}`), {
    [`GET sets/${setId}/board`]: board,
    [`POST sets/${setId}/place`]: placed,
    ...more,
  });

describe('expert tables on the Board', () => {
  it('stand under their topics, and say of each home what it learns', async () => {
    open(aRoom(even));
    const salt = within(await screen.findByRole('region', { name: 'Salt' }));
    expect(salt.getByText('Brine strength')).toBeInTheDocument();
    expect(salt.getByRole('row', { name: 'Ada' })).toBeInTheDocument();
    const homes = within(screen.getByRole('listbox', { name: 'Home groups' }));
    expect(homes.getByRole('option', { name: 'P: all covered. 1 at Salt, 1 at Gas' })).toBeInTheDocument();
    expect(screen.getByText('no gaps')).toBeInTheDocument();
  });

  it('show whom a topic lacks, and are evened out by one press with its way back', async () => {
    const { user, writes } = open(aRoom({ ...even, Ben: 'Salt' }));
    expect(await screen.findByText('1 gap', { selector: 'header *' })).toBeInTheDocument();
    expect(
      within(screen.getByRole('region', { name: 'Gas' })).getByText('No one from P'),
    ).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Rebalance' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    const { moves } = sure(writes()[0]).body as { moves: { student: string; to: string }[] };
    expect(moves).toHaveLength(1);
    expect(sure(moves[0]).to).toBe(id('Gas'));
    expect([id('Ada'), id('Ben')]).toContain(sure(moves[0]).student);
    expect(await screen.findByText('1 student moved to even out the tables')).toBeInTheDocument();
    expect(screen.getByText('no gaps')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /^Undo: 1 student/ }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(screen.getByText('No one from P')).toBeInTheDocument();
  });

  it('seat who has no table, of whatever home, and say where nothing is to be done', async () => {
    const { user, writes } = open(aRoom({ ...even, Eva: null }));
    await user.click(await screen.findByRole('button', { name: 'Rebalance' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    expect(sure(writes()[0]).body).toMatchObject({ moves: [{ student: id('Eva'), from: null }] });
    await user.click(screen.getByRole('button', { name: 'Rebalance' }));
    expect(
      await screen.findByText('The tables are as even as they can be. No one moved.'),
    ).toBeInTheDocument();
    expect(writes()).toHaveLength(1);
  });

  it('mark the people of the home that is picked', async () => {
    const { user } = open(aRoom(even));
    await user.click(await screen.findByRole('option', { name: /^P:/ }));
    const marked = () => [...document.querySelectorAll('[data-found]')].map((element) => element.textContent);
    expect(marked().sort()).toEqual(['Ada', 'Ben']);
    await user.keyboard('{Escape}');
    expect(marked()).toEqual([]);
  });

  it('keep the tray and the search one key away', async () => {
    const { user } = open(aRoom({ ...even, Eva: null }));
    await screen.findByRole('radio', { name: '1 unplaced' });
    await user.keyboard('/');
    expect(screen.getByPlaceholderText(/Find a name/)).toHaveFocus();
    expect(screen.getByRole('row', { name: 'Eva' })).toBeInTheDocument();
  });

  it('have topics that are edited as a whole, and what was written stays where it is refused', async () => {
    const { user, writes } = open(aRoom(even), {
      [`PUT sets/${setId}/topics`]: new Refusal(409, 'conflict', '1 student is in Gas. Remove them first.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Set' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Topics and tables…' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Topics of Expert tables' }));
    expect(sheet.getByRole('button', { name: 'Save topics' })).toBeDisabled();
    await user.click(sheet.getByRole('button', { name: 'Add a topic' }));
    expect(sheet.getByRole('button', { name: 'Save topics' })).toBeDisabled(); // it has no name yet
    await user.type(sheet.getByRole('textbox', { name: 'Name of topic C' }), 'Heat');
    const tables = sheet.getByRole('textbox', { name: 'Tables of topic C' });
    await user.clear(tables);
    expect(sheet.getByRole('button', { name: 'Save topics' })).toBeDisabled(); // nor any table
    await user.type(tables, '2');
    await user.click(sheet.getByRole('button', { name: 'Move Heat up' }));
    await user.click(sheet.getByRole('button', { name: 'Remove Gas' }));
    await user.click(sheet.getByRole('button', { name: 'Save topics' }));
    expect(await sheet.findByText('1 student is in Gas. Remove them first.')).toBeInTheDocument();
    expect(sure(writes()[0]).body).toEqual({
      topics: [
        { topic: 1, name: 'Salt', about: 'Brine strength', tables: 1 },
        { topic: null, name: 'Heat', about: '', tables: 2 },
      ],
      version: 1,
    });
    expect(sheet.getByRole('textbox', { name: 'Name of topic B' })).toHaveValue('Heat');
  });
});

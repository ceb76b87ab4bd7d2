import { describe, expect, it, jest } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { anEntry, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const names = ['Ada Abel', 'Bo Berg', 'Cho Chen', 'Dia Dorn', 'Eva Ek'];
const table = async (entries = names.map((name, at) => anEntry(name, { number: `fe-${9 - at}` }))) => {
  // jsdom paints nothing; what waits for a frame goes on at once.
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((then) => setTimeout(() => then(0), 0) as unknown as number);
  const page = showPage(inCourse('people'), {
    [`GET courses/${courseId}/roster`]: { entries, sets: [{ id: id('benches'), name: 'Bench teams', groups: [] }], syncedAt: null },
  });
  await screen.findByRole('row', { name: /Ada Abel/ });
  return page;
};
const row = (name: string) => screen.getByRole('row', { name: new RegExp(name) });
const chosen = () => screen.getAllByRole('row', { selected: true }).map((each) => each.querySelector('[role=rowheader]')!.textContent);

describe('the table of the roster', () => {
  it('is walked with arrows, one row at a time in the order of Tab', async () => {
    const { user } = await table();
    row('Ada Abel').focus();
    await user.keyboard('{ArrowDown}');
    await waitFor(() => expect(row('Bo Berg')).toHaveFocus());
    await user.keyboard('{End}');
    await waitFor(() => expect(row('Eva Ek')).toHaveFocus());
    await user.keyboard('{ArrowDown}');
    await waitFor(() => expect(row('Eva Ek')).toHaveFocus());
    expect(screen.getAllByRole('row').filter((each) => each.tabIndex === 0)).toEqual([row('Eva Ek')]);
  });

  it('is selected with Space, ranges with Shift, all with one key, and nobody with Escape', async () => {
    const { user } = await table();
    row('Bo Berg').focus();
    await user.keyboard(' ');
    expect(chosen()).toEqual(['Bo Berg']);
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    await waitFor(() => expect(row('Cho Chen')).toHaveFocus());
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(chosen()).toEqual(['Bo Berg', 'Cho Chen', 'Dia Dorn']);
    await user.keyboard('{Control>}a{/Control}');
    expect(chosen()).toHaveLength(5);
    expect(screen.getByRole('checkbox', { name: 'Select all' })).toBeChecked();
    await user.keyboard('{Escape}');
    expect(screen.queryAllByRole('row', { selected: true })).toHaveLength(0);
  });

  it('takes a range of boxes with the mouse', async () => {
    const { user } = await table();
    await user.click(screen.getByRole('checkbox', { name: 'Select Dia Dorn' }));
    await user.keyboard('{Shift>}');
    await user.click(screen.getByRole('checkbox', { name: 'Select Bo Berg' }));
    await user.keyboard('{/Shift}');
    expect(chosen()).toEqual(['Bo Berg', 'Cho Chen', 'Dia Dorn']);
    expect(screen.getByRole('checkbox', { name: 'Select all' })).toBePartiallyChecked();
  });

  it('is sorted by any column, either way, and says so', async () => {
    const { user } = await table();
    const order = () =>
      screen
        .getAllByRole('rowheader')
        .map((each) => each.textContent)
        .join();
    expect(order()).toBe('Ada Abel,Bo Berg,Cho Chen,Dia Dorn,Eva Ek');
    await user.click(screen.getByRole('button', { name: 'Number' }));
    expect(order()).toBe('Eva Ek,Dia Dorn,Cho Chen,Bo Berg,Ada Abel');
    expect(screen.getByRole('columnheader', { name: /Number/ })).toHaveAttribute('aria-sort', 'ascending');
    await user.click(screen.getByRole('button', { name: /Number/ }));
    expect(order()).toBe('Ada Abel,Bo Berg,Cho Chen,Dia Dorn,Eva Ek');
    expect(screen.getByRole('columnheader', { name: /Number/ })).toHaveAttribute('aria-sort', 'descending');
  });

  it('draws only the rows in view, and counts all of them', async () => {
    await table(Array.from({ length: 1000 }, (_, at) => anEntry(at === 0 ? 'Ada Abel' : `Person P${at}`, { enrolmentId: id(`${at}`) })));
    expect(screen.getAllByRole('row').length).toBeLessThan(80);
    expect(screen.getByRole('grid', { name: 'Roster' })).toHaveAttribute('aria-rowcount', '1001');
  });
});

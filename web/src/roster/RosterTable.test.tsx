import { describe, expect, it, jest } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { AttributeKind } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import { anEntry, attributesOf, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const names = ['Ada Abel', 'Bo Berg', 'Cho Chen', 'Dia Dorn', 'Eva Ek'];
type Kinds = Readonly<Record<string, AttributeKind>>;
const table = async (
  entries: ReturnType<typeof anEntry>[] = names.map((name, at) => anEntry(name, { number: `fe-${9 - at}` })),
  kinds: Kinds = {},
) => {
  // jsdom paints nothing; what waits for a frame goes on at once.
  jest
    .spyOn(globalThis, 'requestAnimationFrame')
    .mockImplementation((then) => setTimeout(() => then(0), 0) as unknown as number);
  const page = showPage(inCourse('people'), {
    [`GET courses/${courseId}/roster`]: {
      entries,
      sets: [{ id: id('benches'), name: 'Bench teams', isExclusive: true, groups: [] }],
      attributes: attributesOf(entries).map((each) => ({ ...each, kind: kinds[each.name] ?? each.kind })),
      syncedAt: null,
    },
    [`POST courses/${courseId}/roster/changes`]: { changeId: id('change'), people: 1, seated: 0 },
  });
  await screen.findByRole('row', { name: /Ada Abel/ });
  return page;
};
const row = (name: string) => screen.getByRole('row', { name: new RegExp(name) });
const chosen = () =>
  screen
    .getAllByRole('row', { selected: true })
    .map((each) => sure(each.querySelector('[role=rowheader]')).textContent);

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

  it('is selected with Space, ranges with Shift, all with one key, and no one with Escape', async () => {
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
    await table(
      Array.from({ length: 1000 }, (_, at) =>
        anEntry(at === 0 ? 'Ada Abel' : `Person P${at}`, { enrolmentId: id(`${at}`) }),
      ),
    );
    expect(screen.getAllByRole('row').length).toBeLessThan(80);
    expect(screen.getByRole('grid', { name: 'Roster' })).toHaveAttribute('aria-rowcount', '1001');
  });
});

describe('attributes in the table', () => {
  const people = () => [
    anEntry('Ada Abel', { attributes: { Lab: 'some', Hours: '3' } }),
    anEntry('Bo Berg', { attributes: { Lab: 'none', Hours: 'many' } }),
    anEntry('Cho Chen'),
  ];
  const cell = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name });
  const combo = (name: string) => screen.getByRole<HTMLInputElement>('combobox', { name });

  it('are changed cell by cell, down a column with Enter and along the row with Tab', async () => {
    const { user, writes } = await table(people(), { Hours: 'number' });
    row('Ada Abel').focus();
    await user.keyboard('{F2}');
    expect(combo('Lab of Ada Abel')).toHaveValue('some');
    await user.keyboard('plenty{Enter}');
    expect(combo('Lab of Bo Berg')).toHaveFocus();
    await user.keyboard('{Tab}');
    expect(cell('Hours of Bo Berg')).toHaveValue('many');
    await user.keyboard('{Escape}');
    await waitFor(() => expect(row('Bo Berg')).toHaveFocus());
    expect(writes().map((write) => write.body)).toEqual([
      {
        act: 'edit',
        edits: [
          {
            enrolmentId: anEntry('Ada Abel').enrolmentId,
            from: { attributes: { Lab: 'some' } },
            to: { attributes: { Lab: 'plenty' } },
          },
        ],
      },
    ]);
    expect(screen.getByText('Lab of Ada Abel: some → plenty')).toBeInTheDocument();
  });

  it('take only what they are, and mark what does not fit', async () => {
    const { user, writes } = await table(people(), { Hours: 'number' });
    expect(screen.getByText('many')).toHaveAttribute('title', 'not a number');
    await user.click(screen.getByText('many'));
    await user.keyboard('four{Enter}');
    expect(cell('Hours of Bo Berg')).toBeInvalid();
    await user.clear(cell('Hours of Bo Berg'));
    await user.keyboard('4{Enter}');
    expect(writes().map((write) => sure((write.body as { edits: { to: unknown }[] }).edits[0]).to)).toEqual([
      { attributes: { Hours: '4' } },
    ]);
  });

  it('are taken away by an empty cell', async () => {
    const { user, writes } = await table(people());
    await user.click(screen.getByText('some'));
    await user.keyboard('{Delete}{Enter}');
    expect(sure(writes()[0]).body).toMatchObject({ edits: [{ to: { attributes: { Lab: null } } }] });
  });

  it('show free half-days as the week in small, filled in by presses', async () => {
    const { user, writes } = await table([anEntry('Ada Abel', { attributes: { Free: 'Mon am, Tue' } })], {
      Free: 'half-days',
    });
    await user.click(screen.getByRole('img', { name: 'Mon am, Tue' }));
    await user.click(await screen.findByRole('button', { name: 'Mon am' }));
    await user.click(screen.getByRole('button', { name: 'Fri pm' }));
    await user.keyboard('{Escape}');
    await waitFor(() =>
      expect(sure(writes()[0]).body).toMatchObject({
        edits: [{ to: { attributes: { Free: 'Tue, Fri pm' } } }],
      }),
    );
  });
});

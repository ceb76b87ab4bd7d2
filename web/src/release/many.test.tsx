import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { activityId } from '../test/composer.js';
import { anActivity, aRelease, at, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { everything, wantedOf } from './activityList.js';
import type { Wanted } from './activityList.js';

const dated = (due: string | null) => ({ schedule: { opens: null, due, closes: null } });
const report = anActivity({
  title: 'Ferment report',
  release: aRelease(),
  updatedAt: '2026-11-03T10:00:00.000Z',
  ...dated('2026-11-12T17:00:00.000Z'),
});
const memo = anActivity({ id: id('memo'), title: 'Shelf life memo', updatedAt: '2026-11-04T10:00:00.000Z', ...dated(null) }); // prettier-ignore
const talk = anActivity({
  id: id('talk'),
  kind: 'discussion',
  title: 'Bench talk',
  updatedAt: '2026-11-01T10:00:00.000Z',
  release: aRelease({ setNames: [], audienceNames: ['Dairy'], state: { state: 'scheduled', at } }),
  ...dated('2026-11-30T17:00:00.000Z'),
});
const all = [report, memo, talk];

describe('which activities are shown', () => {
  const shown = (wanted: Partial<Wanted>) =>
    wantedOf(all, { ...everything, ...wanted }, Date.parse('2026-11-10T10:00:00Z')).map(
      ({ title }) => title.split(' ')[0],
    );

  it('is all of them, the last edited first', () => expect(shown({})).toEqual(['Shelf', 'Ferment', 'Bench']));

  it.each<[string, Partial<Wanted>, string[]]>([
    ['words', { words: ' REPORT fer' }, ['Ferment']],
    ['words that none has', { words: 'zymurgy' }, []],
    ['a kind', { kind: 'discussion' }, ['Bench']],
    ['a state', { state: 'draft' }, ['Shelf']],
    ['a set', { to: 'Bench teams' }, ['Ferment']],
    ['a saved audience', { to: 'Dairy' }, ['Bench']],
    ['what is due in 7 days', { due: 'soon' }, ['Ferment']],
    ['what has no date', { due: 'none' }, ['Shelf']],
    ['what is past due', { due: 'past' }, []],
    ['an order by date, what has none last', { order: 'due' }, ['Ferment', 'Bench', 'Shelf']],
    ['an order by title', { order: 'title' }, ['Bench', 'Ferment', 'Shelf']],
  ])('can be %s', (_what, wanted, titles) => expect(shown(wanted)).toEqual(titles));
});

describe('several activities at once', () => {
  const list = (more: Record<string, unknown> = {}) =>
    showPage(inCourse('release'), {
      [`GET courses/${courseId}/activities`]: { activities: all },
      ...more,
    });
  const many = `POST courses/${courseId}/activities/many`;
  const choose = async (user: ReturnType<typeof list>['user'], ...titles: string[]) => {
    for (const title of titles)
      await user.click(await screen.findByRole('checkbox', { name: `Select ${title}` }));
  };
  const seen = ({ id: of, version }: ActivityView) => ({ id: of, version });

  it('are found and narrowed, and acts say to how many they apply', async () => {
    const { user } = list();
    await choose(user, 'Ferment report', 'Shelf life memo');
    expect(screen.getByText('2 selected')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Withdraw 1' })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Delete 1 draft' })).toBeInTheDocument();
    await user.type(screen.getByRole('searchbox', { name: 'Find an activity' }), 'memo');
    expect(await screen.findByText('1 of 3')).toBeInTheDocument();
    // What is not shown is not acted on.
    expect(screen.getByText('1 selected')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Show all' }));
    expect(await screen.findByText('2 selected')).toBeInTheDocument();
  });

  it('move by days that are shown first, and come back by one press', async () => {
    const later = { ...report, version: 4, ...dated('2026-11-19T17:00:00.000Z') };
    const { user, writes } = list({ [many]: { activities: [later], deleted: [] } });
    await choose(user, 'Ferment report', 'Shelf life memo');
    await user.click(screen.getByRole('button', { name: 'Move dates of 1…' }));
    const sheet = await screen.findByRole('dialog');
    expect(within(sheet).getByText('due Thu 12 Nov, 17:00 → Thu 19 Nov, 17:00')).toBeInTheDocument();
    const field = within(sheet).getByLabelText('Days later');
    await user.clear(field);
    await user.type(field, '1.5');
    expect(within(sheet).getByText(/^Write a whole number of days/)).toBeInTheDocument();
    expect(within(sheet).getByRole('button', { name: 'Move' })).toBeDisabled();
    await user.click(within(sheet).getByRole('button', { name: '1 week later' }));
    await user.click(within(sheet).getByRole('button', { name: 'Move by 7 days' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(writes().map((write) => write.body)).toEqual([
      { activities: [seen(report)], act: { kind: 'move', days: 7 } },
      { activities: [{ id: activityId, version: 4 }], act: { kind: 'move', days: -7 } },
    ]);
    expect(screen.queryByText('2 selected')).not.toBeInTheDocument();
  });

  it('are deleted and restored by what the answer names', async () => {
    const { user, writes } = list({ [many]: { activities: [], deleted: [seen(memo)] } });
    await choose(user, 'Shelf life memo');
    await user.click(screen.getByRole('button', { name: 'Delete 1 draft' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(sure(writes()[1]).body).toEqual({ activities: [seen(memo)], act: { kind: 'restore' } });
  });
});

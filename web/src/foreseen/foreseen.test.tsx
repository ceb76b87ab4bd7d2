import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { Foreseen } from '@jigsaw/contract/foreseen';
import { composer } from '../test/composer.js';
import { aBoard, aPlaceResult, boardAnswers, courseId, id } from '../test/data.js';
import { path, placePath, setId } from '../test/onBoard.js';
import { anActivity, aRelease } from '../test/releases.js';
import { Refusal, showPage } from '../test/showPage.js';

const at = `POST courses/${courseId}/foreseen`;
const held = (access: 'open' | 'hidden', ...groups: string[]) => ({ access, own: groups.map((name) => ({ groupId: id<'group'>(name), due: null })), reads: 0 }); // prettier-ignore
const change = (title: string, names: string[], before: object, after: object, count = names.length) => ({ activityId: id<'activity'>(title), title, students: { count, named: names.map((name) => ({ name, reading: null })) }, eachOf: null, before, after }); // prettier-ignore
const groups = ['Crock', 'Carboy'].map((name, index) => ({ groupId: id<'group'>(name), number: index + 1, name })); // prettier-ignore

describe('what would change', () => {
  it('of a move is read from the menu of the Board, for the chosen group, and done from there', async () => {
    const { user, asked, writes } = showPage(
      path,
      boardAnswers(aBoard({ Ada: 'Crock', Ben: null, Cho: null }), {
        [at]: { changes: [change('Report', ['Ada'], held('open', 'Crock'), held('open', 'Carboy'))], groups } as unknown as Foreseen, // prettier-ignore
        [placePath]: aPlaceResult(0),
      }),
    );
    const crock = await screen.findByRole('grid', { name: /^Crock, group/ });
    await user.pointer({ keys: '[MouseRight]', target: within(crock).getByRole('row', { name: 'Ada' }) });
    await user.click(await screen.findByRole('menuitem', { name: 'Show what a move changes…' }));
    const sheet = await screen.findByRole('dialog', { name: 'If Ada moved' });
    expect(within(sheet).getByRole('button', { name: 'Move' })).toBeDisabled();
    await user.click(within(sheet).getByRole('button', { name: /To/ }));
    await user.click(await screen.findByRole('option', { name: 'Carboy' }));
    expect(await screen.findByText(/goes from Crock’s copy to Carboy’s copy/)).toBeInTheDocument();
    const move = { student: id('Ada'), from: id('Crock'), to: id('Carboy') };
    expect(asked.find((each) => each.path.endsWith('foreseen'))?.body).toMatchObject({ act: 'place', setId, moves: [move] }); // prettier-ignore
    await user.click(within(sheet).getByRole('button', { name: 'Move to Carboy' }));
    await waitFor(() => expect(writes().at(-1)?.body).toMatchObject({ moves: [move] }));
  });

  it('of other readers is asked of those who are chosen; of no one there is nothing to ask', async () => {
    const { user, asked } = composer(anActivity({ release: aRelease() }), {
      [at]: { changes: [], groups: [] },
    });
    const button = () => screen.queryByRole('button', { name: 'Show what changes…' });
    await waitFor(() => expect(button()).toBeInTheDocument());
    const cards = within(await screen.findByRole('group', { name: 'Released to' }));
    await user.click(await cards.findByRole('checkbox', { checked: true }));
    await waitFor(() => expect(button()).toBeNull());
    expect(asked.filter(({ path: to }) => to.endsWith('foreseen'))).toEqual([]);
  });

  it('of a withdrawal is counted, named where few, and says so where nothing does', async () => {
    const changes = [
      change('Report', ['Ada', 'Ben'], held('open', 'Crock'), held('hidden')),
      change('Report', [], held('open', 'Carboy'), held('hidden'), 12),
      change('Memo', ['Ada', 'Ben'], held('open', 'Crock'), held('hidden')),
      { ...change('Memo', [], held('open', 'Carboy'), held('hidden'), 640), eachOf: 160 },
    ];
    const { user, set } = composer(anActivity({ release: aRelease() }), { [at]: { changes, groups } });
    const open = async () => user.click(await screen.findByRole('button', { name: 'Show what changes…' }));
    await open();
    const sheet = await screen.findByRole('dialog', { name: 'Withdraw: what changes' });
    const list = within(sheet).findByRole('list', { name: 'What would change' });
    expect(within(await list).getAllByRole('listitem').map((each) => each.textContent)).toEqual([
      'Ada and Ben lose Crock’s copyReport\u00a0· Memo',
      '12 students lose Carboy’s copyReport',
      '640 students in 160 groups lose their group’s copyMemo',
    ]); // prettier-ignore
    await user.click(within(sheet).getByRole('button', { name: 'Keep as it is' }));
    set(at, { changes: [], groups: [] });
    await open();
    expect(await screen.findByText('No one would see anything different.')).toBeInTheDocument();
    await user.keyboard('{Escape}');
    set(at, new Refusal(409, 'conflict', '“Report” was withdrawn already.'));
    await open();
    expect(await screen.findByText('“Report” was withdrawn already.')).toBeInTheDocument();
  });
});

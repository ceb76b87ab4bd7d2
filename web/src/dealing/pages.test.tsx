import { beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type { DealRule } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { given, labs, person, setId } from '../test/aDeal.js';
import { type aBoard, boardAnswers, courseId } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const path = inCourse(`groups/${setId}/deal`);
function open(rules: DealRule[] = [], more: object = {}, seats?: Parameters<typeof aBoard>[0]) {
  const { board, roster } = given(rules, seats);
  return showPage(path, {
    ...boardAnswers(board),
    [`GET courses/${courseId}/roster`]: roster,
    [`PUT sets/${setId}/rules`]: board.set,
    ...more,
  });
}
const spread: DealRule = { kind: 'spread', attribute: 'Lab', as: 'category' };
const inGroup = (name: string) => within(screen.getByRole('region', { name: new RegExp(name) }));

beforeEach(() => localStorage.clear());

describe('dealing by rules', () => {
  it('is a proposal that says what it reached, and moves people only when it is accepted', async () => {
    const { user, writes } = open([spread]);
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByText('2 of 2 groups mixed')).toBeInTheDocument();
    expect(screen.getByText('This is the best possible deal for these rules.')).toBeInTheDocument();
    expect(screen.getByText('4 moved')).toBeInTheDocument();
    expect(inGroup('Crock').getByText('1 plenty, 1 none')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Proof…' }));
    expect(screen.getByRole('dialog', { name: 'Proof' })).toHaveTextContent(
      'Proven: no deal meets these rules better.2 of 2 groups mixed: no deal does better',
    );
    await user.keyboard('{Escape}');
    expect(writes()).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Accept for 4 students' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    const { moves } = sure(writes()[0]).body as { moves: { student: string; to: string }[] };
    const plenty = moves.filter((move) => [person('Ada'), person('Ben')].includes(move.student as never));
    expect(new Set(plenty.map((move) => move.to)).size).toBe(2);
    expect(
      await screen.findByRole('button', { name: /^Undo: 4 students dealt by 1 rule/ }),
    ).toBeInTheDocument();
  });

  it('keeps whoever is pinned when it deals again', async () => {
    const { user } = open([spread]);
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    const ada = sure(
      sure((await screen.findByRole('button', { name: /^Ada/ })).closest('section')).getAttribute(
        'aria-label',
      ),
    );
    await user.click(screen.getByRole('button', { name: /^Ada/ }));
    expect(screen.getByRole('button', { name: /^Ada/ })).toHaveAttribute('aria-pressed', 'true');
    for (let again = 0; again < 3; again += 1) {
      await user.click(screen.getByRole('button', { name: 'Deal again, keeps 1 pinned' }));
      expect(inGroup(ada).getByRole('button', { name: /^Ada/ })).toBeInTheDocument();
    }
    await user.click(screen.getByRole('button', { name: 'Earlier 1' }));
    await user.click(screen.getByRole('menuitem', { name: /^Deal 1/ }));
    for (const number of [1, 4, 3, 2])
      await user.click(screen.getByRole('button', { name: `Discard Deal ${number}` }));
    expect(screen.queryByRole('button', { name: /^Accept/ })).toBeNull();
  });

  it('keeps deals over a reload, and holds two of them side by side', async () => {
    const first = open([spread]);
    await first.user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByRole('radio', { name: 'Deal 1' })).toBeChecked();
    cleanup();
    const { user } = open([spread]);
    expect(await screen.findByRole('radio', { name: 'Deal 1' })).toBeChecked();
    await user.click(screen.getByRole('button', { name: /Compare with another deal/ }));
    await user.click(await screen.findByRole('option', { name: 'beside the Board now' }));
    const both = within(screen.getByRole('region', { name: 'Deal 1 beside Board now' }));
    expect(both.getByRole('row', { name: /Crock/ })).toBeInTheDocument();
    expect(both.getAllByRole('columnheader').map((each) => each.textContent)).toEqual([
      'Group',
      'Deal 1',
      'Board now',
    ]);
    expect(screen.getByText('Alike on every rule')).toBeInTheDocument();
  });

  it('deals the same again by its seed', async () => {
    const { user } = open([spread]);
    const seats = () =>
      ['Ada', 'Ben', 'Cho', 'Dia'].map(
        (name) =>
          sure(screen.getByRole('button', { name: new RegExp(`^${name}`) }).closest('section')).ariaLabel,
      );
    const dealt: (string | null)[][] = [];
    for (let turn = 0; turn < 2; turn += 1) {
      await user.click(await screen.findByRole('button', { name: 'Seed…' }));
      await user.type(screen.getByRole('textbox', { name: 'Seed' }), '41a27');
      await user.click(screen.getByRole('button', { name: 'Deal with this seed' }));
      expect(await screen.findByText('Seed 4127')).toBeInTheDocument();
      dealt.push(seats());
    }
    expect(dealt[1]).toEqual(dealt[0]);
    expect(screen.getByRole('radio', { name: 'Deal 2' })).toBeChecked();
  });

  it('says what stands in the way of a rule, and deals again as is chosen', async () => {
    const company: DealRule = { kind: 'nobody-alone', attribute: 'Lab' };
    const { user, writes } = open([spread, company]);
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByText('0 of 4 have company')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Why rule 2 is not fully met' }));
    expect(await screen.findByText(/is in its way: without it, 4 of 4 have company/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Put rule 2 above 1' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [company, spread], version: 1 }));
    expect(await screen.findByText('4 of 4 have company')).toBeInTheDocument();
    expect(screen.getByText('Rule 2 put above 1 and dealt again')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [spread, company], version: 1 }));
  });

  it('takes over the rules of another set, but for those that are here and for its own teammates', async () => {
    const theirs: DealRule[] = [
      spread,
      { kind: 'fresh', setIds: [setId] },
      { kind: 'nobody-alone', attribute: 'Lab' },
    ];
    const { user, writes } = open([spread], {
      [`GET sets/${labs.id}/board`]: { ...given(theirs).board, set: { ...given().board.set, name: 'Labs' } },
    });
    await user.click(await screen.findByRole('button', { name: 'Copy rules…' }));
    await user.click(screen.getByRole('menuitem', { name: 'Labs' }));
    expect(await screen.findByText('1 rule copied from Labs')).toBeInTheDocument();
    await waitFor(() =>
      expect(sure(writes().at(-1)).body).toEqual({ rules: [spread, theirs[2]], version: 1 }),
    );
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [spread], version: 1 }));
  });

  it('lets the size of the groups be chosen, in one act with its way back', async () => {
    const editPath = `PUT sets/${setId}/groups`;
    const { board } = given();
    const answer = (isLocked: boolean) => ({
      groups: board.groups.map((group, at) => ({ ...group, version: 2, isLocked: at === 1 && isLocked })),
    });
    const { user, writes, set } = open([], { [editPath]: answer(true) });
    await user.click(await screen.findByRole('button', { name: '2 groups of 2…' }));
    const size = await screen.findByRole('textbox', { name: 'Students per group' });
    await user.clear(size);
    await user.type(size, '1');
    expect(screen.getByText('4 groups of 1. 2 groups are added.')).toBeInTheDocument();
    await user.clear(size);
    await user.type(size, '4');
    expect(
      screen.getByText('1 group of 4. 1 empty group is locked, so no one is dealt into it.'),
    ).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Use groups of 4' }));
    await waitFor(() => expect(writes()).toHaveLength(1));
    expect(writes()[0]).toMatchObject({
      body: { capacity: 4, removed: [], groups: [{ isLocked: false }, { isLocked: true, version: 1 }] },
    });
    set(editPath, answer(false));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes()).toHaveLength(2));
    expect(writes()[1]).toMatchObject({
      body: { capacity: 2, removed: [], groups: [{ isLocked: false }, { isLocked: false, version: 2 }] },
    });
  });

  it('says the sizes, and who finds no place', async () => {
    const { board } = given([spread]);
    const small = {
      ...board,
      set: { ...board.set, capacity: 1 },
      groups: board.groups.map((group) => ({ ...group, capacity: 1 })),
    };
    const { user } = open([spread], { [`GET sets/${setId}/board`]: small });
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByText('2 groups of 1; 2 without a place')).toBeInTheDocument();
    expect(within(screen.getByRole('region', { name: 'In no group' })).getAllByRole('listitem')).toHaveLength(
      2,
    );
  });

  it('says with names why rules cannot all hold', async () => {
    const together: DealRule = { kind: 'together', students: [person('Ada'), person('Ben')] };
    const { user } = open([together, { kind: 'apart', students: [person('Ben'), person('Ada')] }]);
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByText(/Ada and Ben must be together and apart at once/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Accept/ })).toBeNull();
  });

  it('is not taken where it breaks a rule without exception that came after it', async () => {
    const { user } = open([spread]);
    await user.click(await screen.findByRole('button', { name: 'Deal 4 students' }));
    expect(await screen.findByRole('button', { name: 'Accept for 4 students' })).toBeEnabled();
    const crock = inGroup('Crock').getAllByRole('button', { name: /^(Ada|Ben|Cho|Dia)/ });
    const [one, other] = crock.map(
      (each) => /Ada|Ben|Cho|Dia/.exec(each.getAttribute('aria-label') ?? each.textContent)?.[0],
    );
    await user.click(screen.getByRole('button', { name: 'Add a rule' }));
    await user.click(screen.getByRole('menuitem', { name: 'Keep people apart' }));
    for (const name of [sure(one), sure(other)]) {
      await user.type(screen.getByRole('combobox', { name: 'Someone more' }), name);
      await user.click(await screen.findByRole('option', { name: new RegExp(name) }));
    }
    expect(await screen.findByText('This deal breaks rule 2. Deal again.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Accept for 4 students' })).toBeDisabled();
  });

  it('keeps rules with the set as they are filled in, once they are whole', async () => {
    const { user, writes } = open();
    await user.click(await screen.findByRole('button', { name: 'Add a rule' }));
    await user.click(screen.getByRole('menuitem', { name: 'Spread an attribute evenly' }));
    await waitFor(() => expect(sure(writes()[0]).body).toEqual({ rules: [spread], version: 1 }));
    await user.click(screen.getByRole('button', { name: 'Add a rule' }));
    await user.click(screen.getByRole('menuitem', { name: 'Keep people apart' }));
    for (const name of ['Ada', 'Cho']) {
      await user.type(screen.getByRole('combobox', { name: 'Someone more' }), name);
      await user.click(await screen.findByRole('option', { name: new RegExp(name) }));
    }
    const apart = { kind: 'apart', students: [person('Ada'), person('Cho')] };
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [spread, apart], version: 1 }));
    await user.click(screen.getByRole('button', { name: 'Rule 2 matters more' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [apart, spread], version: 1 }));
    await user.click(screen.getByRole('button', { name: 'Remove rule 1' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ rules: [spread], version: 1 }));
  });

  it('tells two of one name apart by their numbers', async () => {
    const { board } = given([{ kind: 'apart', students: [person('Cho'), person('Dia')] }]);
    const twins = {
      ...board,
      students: board.students.map((student, at) =>
        at < 2 ? { ...student, name: 'Siobhán', number: `fe-${at}` } : student,
      ),
    };
    const { user } = open([], { [`GET sets/${setId}/board`]: twins });
    await user.type(await screen.findByRole('combobox', { name: 'Someone more' }), 'sio');
    expect((await screen.findAllByRole('option')).map((option) => option.textContent)).toEqual([
      'Siobhán fe-0',
      'Siobhán fe-1',
    ]);
  });

  it('says when someone else changed the set meanwhile', async () => {
    const { user } = open([spread], {
      [`PUT sets/${setId}/rules`]: new Refusal(409, 'stale-write', 'Someone changed this set meanwhile.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Remove rule 1' }));
    expect(await screen.findByText('Someone changed this set meanwhile.')).toBeInTheDocument();
  });
});

import { describe, expect, it } from '@jest/globals';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { outcomesOf } from './index.js';
import type { Deal, DealProblem, Rule } from './index.js';

const id = (name: string) => name as EnrolmentId;
const names = ['Ada', 'Ben', 'Cho', 'Dia'];
/** Ada and Ben in the first group, Cho and Dia in the second. */
function outcome(rule: Rule, values: readonly string[] = [], attribute = 'Lab', cost = 1) {
  const students = names.map((name, at) => ({
    id: id(name),
    name,
    fixedIn: null,
    attributes: values[at] === undefined ? {} : { [attribute]: values[at] },
  }));
  const groups = [0, 1].map((at) => ({
    id: `g${at}` as GroupId,
    name: `G${at}`,
    capacity: 2,
    isLocked: false,
  }));
  const problem: DealProblem = { students, groups, rules: [rule], seed: 1 };
  const seats = new Map(names.map((name, at) => [id(name), sure(groups[at < 2 ? 0 : 1]).id]));
  const deal: Deal = {
    seats,
    reached: rule.kind === 'apart' ? [] : [{ rule: 0, cost, bound: 0, byChance: 2, usual: 2 }],
    objective: 1,
    bound: 0,
  };
  return sure(outcomesOf(problem, deal)[0]);
}

describe('what a deal made of a rule', () => {
  it('is counted in groups that are mixed', () => {
    const rule: Rule = { kind: 'spread', attribute: 'Lab', as: 'category' };
    expect(outcome(rule, ['some', 'none', 'some', 'none'])).toEqual({
      says: '2 of 2 groups mixed',
      met: 2,
      of: 2,
      gap: 0.5,
      most: null,
      part: 1,
      isBest: true,
      concerned: [],
    });
    expect(outcome(rule, ['some', 'some', 'none', 'none'])).toMatchObject({
      says: '0 of 2 groups mixed',
      part: 0,
      isBest: false,
      concerned: names,
    });
  });

  it('is the best there is where the bound says so, though not all is reached', () => {
    expect(
      outcome(
        { kind: 'spread', attribute: 'Lab', as: 'category' },
        ['some', 'some', 'none', 'none'],
        'Lab',
        0,
      ).isBest,
    ).toBe(true);
  });

  it('is counted in groups near the mean, alike, or with time in common', () => {
    expect(outcome({ kind: 'spread', attribute: 'Lab', as: 'number' }, ['1', '3', '2', '2']).says).toBe(
      '2 of 2 groups near the class’s mean',
    );
    expect(
      outcome({ kind: 'spread', attribute: 'Lab', as: 'number' }, ['1', '1', '3', '3']).concerned,
    ).toEqual(names);
    expect(outcome({ kind: 'alike', attribute: 'Lab', as: 'category' }, ['a', 'a', 'a', 'b'])).toMatchObject({
      says: '1 of 2 groups of one kind',
      part: 0.5,
      concerned: ['Cho', 'Dia'],
    });
    const time: Rule = { kind: 'common-time', attribute: 'Free', wanted: 2 };
    expect(outcome(time, ['Mon', 'Mon, Tue', 'Wed am', 'Wed'], 'Free')).toMatchObject({
      says: '1 of 2 groups share 2 or more',
      concerned: ['Cho', 'Dia'],
    });
  });

  it('is counted in people who have company, of those who could', () => {
    const alone = outcome({ kind: 'nobody-alone', attribute: 'Lab' }, ['Twi', 'Twi', 'Thai', 'Dutch']);
    expect(alone).toMatchObject({ says: '2 of 2 have company', part: 1, concerned: [] });
    expect(
      outcome({ kind: 'nobody-alone', attribute: 'Lab' }, ['Twi', 'Thai', 'Twi', 'Dutch']),
    ).toMatchObject({
      says: '0 of 2 have company',
      concerned: ['Ada', 'Cho'],
    });
  });

  it('is counted in pairs that are new', () => {
    const fresh = (...groups: string[][]): Rule => ({
      kind: 'fresh',
      sets: [{ name: 'Before', groups: groups.map((members) => members.map(id)) }],
    });
    expect(outcome(fresh(['Ada', 'Cho']), [], 'Lab', 0)).toMatchObject({
      says: 'all 2 pairs are new',
      isBest: true,
    });
    expect(outcome(fresh(['Ada', 'Ben']))).toMatchObject({
      says: '1 of 2 pairs are new',
      concerned: ['Ada', 'Ben'],
      isBest: false,
      gap: 0.5,
      most: 2,
    });
    expect(outcome({ kind: 'apart', students: [id('Ada'), id('Cho'), id('gone')] })).toMatchObject({
      says: '1 of 1 pair',
      gap: null,
      most: null,
    });
  });
});

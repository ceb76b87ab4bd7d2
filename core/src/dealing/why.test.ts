import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { askWhy, dealAll, judge, outcomesOf } from './index.js';
import type { DealProblem, Rule, Why } from './index.js';

const names = ['Han', 'Park', 'Ada', 'Ben', 'Cho', 'Dia'];
const id = (name: string) => name as EnrolmentId;
const groups = [0, 1, 2].map((at) => ({
  id: `g${at}` as GroupId,
  name: `G${at}`,
  capacity: 2,
  isLocked: false,
}));
/** Han and Park alone speak Korean; three groups of two. */
const given = (rules: Rule[], fixed: Record<string, GroupId> = {}): DealProblem => ({
  students: names.map((name, at) => ({
    id: id(name),
    name,
    attributes: { Language: sure(['Korean', 'Korean', 'Twi', 'Twi', 'Thai', 'Thai'][at]) },
    fixedIn: fixed[name] ?? null,
  })),
  groups,
  rules,
  seed: 7,
});
const company: Rule = { kind: 'nobody-alone', attribute: 'Language' };
const met: Rule = { kind: 'fresh', sets: [{ name: 'Starter pairs', groups: [[id('Han'), id('Park')]] }] };
const apart: Rule = { kind: 'apart', students: [id('Han'), id('Park')] };

function why(problem: DealProblem, rule: number): Why {
  const dealt = dealAll(problem);
  if (!dealt.ok) throw new Error('no deal');
  const run = askWhy(problem, dealt.deal, rule);
  let last = 0;
  for (;;) {
    const next = run.next();
    if (next.done) return next.value;
    expect(next.value.part).toBeGreaterThanOrEqual(last);
    last = next.value.part;
  }
}

describe('why a rule is not fully met', () => {
  it('names the wish that matters more, what would be reached without it, and for whom', () => {
    const answer = why(given([met, company]), 1);
    expect(answer.alone.says).toBe('6 of 6 have company');
    expect(answer.hindrances).toHaveLength(1);
    expect(answer.hindrances[0]).toMatchObject({ by: 0, outcome: { says: '6 of 6 have company' } });
    expect(sure(answer.hindrances[0]).spared.slice(0, 2)).toEqual([id('Han'), id('Park')]);
  });

  it('names a rule that must hold', () => {
    expect(why(given([company, apart]), 0).hindrances.map((each) => each.by)).toEqual([1]);
  });

  it('names two rules that are in its way only together', () => {
    const metToo: Rule = { ...met, sets: [{ name: 'Labs', groups: [[id('Park'), id('Han')]] }] };
    const answer = why(given([met, metToo, company]), 2);
    expect(answer.hindrances).toMatchObject([{ by: [0, 1], outcome: { says: '6 of 6 have company' } }]);
    expect(why(given([apart, { ...apart }, company]), 2).hindrances).toMatchObject([{ by: [0, 1] }]);
  });

  it('misses no gain, however small a part of the whole it is', () => {
    const class150 = Array.from({ length: 150 }, (_, at) => `S${at}`);
    const [one, two] = class150.slice(0, 2).map(id);
    const pair = [sure(one), sure(two)];
    const problem: DealProblem = {
      students: class150.map((name) => ({ id: id(name), name, attributes: {}, fixedIn: null })),
      groups: Array.from({ length: 30 }, (_, at) => ({
        id: `g${at}` as GroupId,
        name: `G${at}`,
        capacity: 5,
        isLocked: false,
      })),
      rules: [
        { kind: 'together', students: pair },
        { kind: 'fresh', sets: [{ name: 'Labs', groups: [pair] }] },
      ],
      seed: 3,
    };
    expect(why(problem, 1).hindrances).toMatchObject([{ by: 0, outcome: { says: 'all 300 pairs are new' } }]);
  });

  it('takes for no hindrance what dealing on finds with all rules', () => {
    const rules: Rule[] = [company, { kind: 'spread', attribute: 'Other', as: 'category' }];
    const problem = given(rules);
    const poor = judge(problem, new Map(names.map((name, at) => [id(name), sure(groups[at % 3]).id])));
    const run = askWhy(problem, poor, 0);
    let next = run.next();
    while (!next.done) next = run.next();
    expect(next.value.hindrances).toEqual([]);
  });

  it('names the pins', () => {
    const answer = why(given([company], { Han: sure(groups[0]).id, Park: sure(groups[1]).id }), 0);
    expect(answer.hindrances.map((each) => each.by)).toEqual(['pins']);
  });

  it('names locked groups apart from pins', () => {
    const [one, two, three] = groups;
    const held = given([company], { Han: sure(one).id, Ada: sure(one).id, Park: sure(two).id });
    const problem = { ...held, groups: [{ ...sure(one), isLocked: true }, sure(two), sure(three)] };
    const answer = why(problem, 0);
    expect(answer.hindrances.map((each) => each.by)).toContain('locks');
    expect(answer.hindrances[0]).toMatchObject({ by: 'locks', outcome: { says: '6 of 6 have company' } });
    expect(why(held, 0).hindrances.map((each) => each.by)).toEqual(['pins']);
  });

  it('names locked groups where only one more in them would help', () => {
    const [one, two] = groups.map((group) => ({ ...group, capacity: 3 }));
    const kinds: Record<string, [kind: string, fixedIn: GroupId | null]> = {
      A1: ['A', sure(one).id],
      A2: ['A', sure(one).id],
      A3: ['A', null],
      B1: ['B', sure(two).id],
      B2: ['B', null],
    };
    const problem: DealProblem = {
      students: Object.entries(kinds).map(([name, [kind, fixedIn]]) => ({
        id: id(name),
        name,
        attributes: { Language: kind },
        fixedIn,
      })),
      groups: [{ ...sure(one), isLocked: true }, sure(two)],
      rules: [company],
      seed: 1,
    };
    expect(why(problem, 0).hindrances).toMatchObject([
      { by: 'locks', outcome: { says: '5 of 5 have company' }, spared: [id('A3')] },
    ]);
  });

  it('names nothing where nothing stands in its way', () => {
    const three: Rule = { kind: 'fresh', sets: [{ name: 'All', groups: [names.map(id)] }] };
    const answer = why(given([three, { kind: 'spread', attribute: 'Language', as: 'category' }]), 0);
    expect(answer).toMatchObject({ hindrances: [], alone: { says: '0 of 3 pairs are new' } });
  });
});

describe('a seating judged by rules that it was not dealt by', () => {
  it('is worth what the deal said, for the deal’s own seats', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([met, company, apart], { minLength: 1 }), fc.nat(50), (rules, seed) => {
        const problem = { ...given(rules), seed };
        const dealt = dealAll(problem);
        if (!dealt.ok) throw new Error('no deal');
        const judged = judge(problem, dealt.deal.seats);
        expect(judged.seats).toEqual(dealt.deal.seats);
        expect(judged.objective).toBeCloseTo(dealt.deal.objective);
        expect(judged.bound).toBeCloseTo(dealt.deal.bound);
        expect(outcomesOf(problem, judged)).toEqual(outcomesOf(problem, dealt.deal));
      }),
      { numRuns: 30 },
    );
  });

  it('says which pairs it does not keep, and seats no one in a group that is gone', () => {
    const problem = given([apart, { kind: 'together', students: [id('Ada'), id('Cho'), id('Dia')] }]);
    const seats = new Map([
      ...['Han', 'Park'].map((name) => [id(name), sure(groups[0]).id] as const),
      ...['Ada', 'Cho'].map((name) => [id(name), sure(groups[1]).id] as const),
      [id('Dia'), 'gone' as GroupId] as const,
    ]);
    const judged = judge(problem, seats);
    expect(judged.seats.get(id('Dia'))).toBeNull();
    expect(outcomesOf(problem, judged)).toMatchObject([
      { says: '0 of 1 pair', isBest: false, concerned: ['Han', 'Park'] },
      { says: '1 of 3 pairs', isBest: false, concerned: ['Ada', 'Dia', 'Cho'] },
    ]);
  });
});

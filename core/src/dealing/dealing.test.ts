import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { dealAll, dealing, isWish, sayClash } from './index.js';
import type { Deal, DealProblem, DealtInto, DealtStudent, Rule } from './index.js';
import { measure } from './wishes.js';

const id = (at: number) => `s${at}` as EnrolmentId;
const ids = (...at: number[]) => at.map(id);
const student = (
  at: number,
  attributes: Record<string, string> = {},
  fixedIn: string | null = null,
): DealtStudent => ({
  id: id(at),
  name: `S${at}`,
  attributes,
  fixedIn: fixedIn as GroupId | null,
});
const group = (at: number, capacity: number | null = null, isLocked = false): DealtInto => ({
  id: `g${at}` as GroupId,
  name: `G${at}`,
  capacity,
  isLocked,
});
const aProblem = (
  students: DealtStudent[],
  groups: DealtInto[],
  rules: Rule[] = [],
  seed = 1,
): DealProblem => ({ students, groups, rules, seed });
const people = (count: number) => Array.from({ length: count }, (_, at) => student(at));
const dealt = (problem: DealProblem): Deal => {
  const result = dealAll(problem);
  if (!result.ok) throw new Error(sayClash(result.clash));
  return result.deal;
};
const membersOf = (deal: Deal, problem: DealProblem) =>
  problem.groups.map((each) =>
    problem.students.filter((one) => deal.seats.get(one.id) === each.id).map((one) => one.id),
  );

const kinds = {
  lab: ['none', 'some', 'plenty'],
  time: ['day', 'evening'],
  hours: ['2', '4', '6,5'],
  free: ['Mon am', 'Mon am, Tue', 'Wed', 'none'],
};
const someAttributes = fc.record(
  {
    lab: fc.constantFrom(...kinds.lab),
    time: fc.constantFrom(...kinds.time),
    hours: fc.constantFrom(...kinds.hours),
    free: fc.constantFrom(...kinds.free),
  },
  { requiredKeys: [] },
);
const aWish = (count: number): fc.Arbitrary<Rule> =>
  fc.oneof(
    fc.constantFrom<Rule>(
      { kind: 'spread', attribute: 'lab', as: 'category' },
      { kind: 'spread', attribute: 'hours', as: 'number' },
      { kind: 'alike', attribute: 'time', as: 'category' },
      { kind: 'alike', attribute: 'hours', as: 'number' },
      { kind: 'nobody-alone', attribute: 'lab' },
      { kind: 'common-time', attribute: 'free', wanted: 2 },
    ),
    fc.array(fc.nat(2), { minLength: count, maxLength: count }).map((at): Rule => ({
      kind: 'fresh',
      sets: [
        {
          name: 'Before',
          groups: [0, 1, 2].map((group) => at.flatMap((own, index) => (own === group ? [id(index)] : []))),
        },
      ],
    })),
  );
const aHardRule = (count: number): fc.Arbitrary<Rule> =>
  fc.record({
    kind: fc.constantFrom('together' as const, 'apart' as const),
    students: fc.uniqueArray(fc.nat(count - 1).map(id), { minLength: 2, maxLength: 3 }),
  });
const anyProblem = (most: number): fc.Arbitrary<DealProblem> =>
  fc.integer({ min: 2, max: most }).chain((count) =>
    fc
      .record({
        attributes: fc.array(someAttributes, { minLength: count, maxLength: count }),
        pins: fc.array(fc.option(fc.nat(2), { freq: 6 }), { minLength: count, maxLength: count }),
        capacities: fc.array(fc.option(fc.integer({ min: 1, max: 6 })), { minLength: 2, maxLength: 5 }),
        locked: fc.option(fc.nat(4), { freq: 5 }),
        wishes: fc.array(aWish(count), { maxLength: 3 }),
        hard: fc.array(aHardRule(count), { maxLength: 3 }),
        seed: fc.nat(1000),
      })
      .map(({ attributes, pins, capacities, locked, wishes, hard, seed }) => {
        const groups = capacities.map((capacity, at) => group(at, capacity, at === locked));
        const students = attributes.map((own, at) =>
          student(
            at,
            own as Record<string, string>,
            pins[at] == null || !groups[pins[at]!] ? null : groups[pins[at]!]!.id,
          ),
        );
        return aProblem(students, groups, [...wishes, ...hard], seed);
      }),
  );

describe('a deal', () => {
  it('seats everybody once, keeps places, pins and locks, and breaks no rule that holds without exception', () =>
    fc.assert(
      fc.property(anyProblem(14), (problem) => {
        const result = dealAll({ ...problem, effort: 0.1 });
        if (!result.ok) return expect(sayClash(result.clash)).toMatch(/\.$/);
        const { seats } = result.deal;
        expect([...seats.keys()]).toEqual(problem.students.map((one) => one.id));
        for (const one of problem.students)
          if (one.fixedIn !== null) expect(seats.get(one.id)).toBe(one.fixedIn);
        for (const [at, members] of membersOf(result.deal, problem).entries()) {
          const { capacity, isLocked, id: groupId } = problem.groups[at]!;
          const pinned = problem.students.filter((one) => one.fixedIn === groupId).length;
          if (isLocked) expect(members.length).toBe(pinned);
          else if (capacity !== null) expect(members.length).toBeLessThanOrEqual(Math.max(capacity, pinned));
        }
        for (const rule of problem.rules) {
          if (isWish(rule)) continue;
          const at = rule.students.map((each) => seats.get(each)!).filter((each) => each !== null);
          if (rule.kind === 'together')
            expect(new Set(rule.students.map((each) => seats.get(each))).size).toBe(1);
          else expect(new Set(at).size).toBe(at.length);
        }
      }),
      { numRuns: 300 },
    ));

  it('costs what it says, never less than its bound, and is the same for the same seed', () =>
    fc.assert(
      fc.property(anyProblem(12), (problem) => {
        const result = dealAll({ ...problem, effort: 0.2 });
        expect(dealAll({ ...problem, effort: 0.2 })).toEqual(result);
        if (!result.ok) return;
        const seated = membersOf(result.deal, problem).map((members) =>
          members.map((one) => problem.students.findIndex((each) => each.id === one)),
        );
        for (const { rule, cost, bound } of result.deal.reached) {
          const wish = problem.rules[rule]!;
          if (!isWish(wish)) throw new Error('only wishes are measured');
          const { cost: costOf } = measure(wish, problem.students);
          expect(
            seated.reduce((sum, members) => sum + costOf(Int32Array.from(members), 0, members.length), 0),
          ).toBeCloseTo(cost, 6);
          expect(cost).toBeGreaterThanOrEqual(bound - 1e-6);
        }
        expect(result.deal.objective).toBeGreaterThanOrEqual(result.deal.bound - 1e-6);
      }),
      { numRuns: 150 },
    ));

  it('leaves unplaced only those for whom there is no room', () => {
    const problem = aProblem(people(7), [group(0, 2), group(1, 3), group(2, null, true)]);
    const { seats } = dealt(problem);
    expect([...seats.values()].filter((seat) => seat === null)).toHaveLength(2);
  });

  it('moves nobody where the class sits well already, and few where it nearly does', () => {
    const seated = (at: number) => `g${at % 4}` as GroupId;
    const sitting = (swapped: boolean) =>
      Array.from({ length: 12 }, (_, at) => {
        const own = swapped && at < 2 ? 1 - at : at;
        return { ...student(at, { lab: kinds.lab[Math.floor(at / 4)]! }), sitsIn: seated(own) };
      });
    const groups = [0, 1, 2, 3].map((at) => group(at, 3));
    const rules: Rule[] = [
      { kind: 'spread', attribute: 'lab', as: 'category' },
      ...[0, 1, 2, 3].map((at): Rule => ({ kind: 'together', students: ids(at, at + 4, at + 8) })),
    ];
    const movedBy = (students: DealtStudent[]) => {
      const { seats } = dealt(aProblem(students, groups, rules));
      return students.filter((one) => seats.get(one.id) !== one.sitsIn).length;
    };
    expect([movedBy(sitting(false)), movedBy(sitting(true))]).toEqual([0, 2]);
  });

  it('can be stopped with the best so far', () => {
    const students = Array.from({ length: 24 }, (_, at) =>
      student(at, { lab: kinds.lab[(at * 5) % 3]!, hours: String((at * 7) % 5) }),
    );
    const rules: Rule[] = [
      { kind: 'spread', attribute: 'hours', as: 'number' },
      { kind: 'spread', attribute: 'lab', as: 'category' },
    ];
    const run = dealing(
      aProblem(
        students,
        [0, 1, 2, 3].map((at) => group(at)),
        rules,
      ),
    );
    const first = run.next();
    if (first.done) throw new Error('it goes on for a while');
    expect(first.value.part).toBeCloseTo(0.02);
    expect([...first.value.best.seats.values()].filter((seat) => seat !== null)).toHaveLength(24);
  });
});

describe('how good a deal is', () => {
  /** Every way to seat people in groups of these sizes. */
  function* partitions(left: readonly number[], sizes: readonly number[]): Generator<number[][]> {
    const [size, ...more] = sizes;
    if (size === undefined) return yield [];
    const choose = function* (from: readonly number[], count: number): Generator<number[]> {
      if (count === 0) return yield [];
      for (const [at, one] of from.entries())
        for (const rest of choose(from.slice(at + 1), count - 1)) yield [one, ...rest];
    };
    for (const chosen of choose(left, size))
      for (const rest of partitions(
        left.filter((one) => !chosen.includes(one)),
        more,
      ))
        yield [chosen, ...rest];
  }

  it('is the best there is, in thirty small classes held against every possible deal', () => {
    let tried = 0;
    fc.assert(
      fc.property(
        fc.constantFrom([3, 3], [2, 2, 2], [3, 2, 2], [4, 4], [3, 3, 2]).chain((sizes) => {
          const count = sizes.reduce((sum, size) => sum + size, 0);
          return fc.record({
            sizes: fc.constant(sizes),
            attributes: fc.array(
              fc.record({
                lab: fc.constantFrom(...kinds.lab),
                hours: fc.constantFrom(...kinds.hours),
                free: fc.constantFrom(...kinds.free),
              }),
              { minLength: count, maxLength: count },
            ),
            wishes: fc.array(aWish(count), { minLength: 1, maxLength: 3 }),
            apart: fc.option(fc.uniqueArray(fc.nat(count - 1).map(id), { minLength: 2, maxLength: 2 })),
          });
        }),
        ({ sizes, attributes, wishes, apart }) => {
          tried += 1;
          const students = attributes.map((own, at) => student(at, own));
          const rules: Rule[] = [...wishes, ...(apart ? [{ kind: 'apart' as const, students: apart }] : [])];
          const problem = aProblem(
            students,
            sizes.map((size, at) => group(at, size)),
            rules,
          );
          const deal = dealt(problem);
          // The objective is a weighed sum: the weights are what the deal's own figures say.
          const measured = wishes.flatMap((wish) => (isWish(wish) ? [measure(wish, students)] : []));
          const weight = (at: number) => {
            const { bound, byChance } = deal.reached[at]!;
            const all = wishes.reduce((sum, _, index) => sum + 2 ** -index, 0);
            return 2 ** -at / all / Math.max(1e-9, byChance - bound);
          };
          let best = Infinity;
          for (const groups of partitions([...students.keys()], sizes)) {
            if (
              apart &&
              groups.some((members) => apart.every((one) => members.some((at) => students[at]!.id === one)))
            )
              continue;
            const cost = measured.reduce(
              (sum, { cost: costOf }, at) =>
                sum +
                weight(at) *
                  groups.reduce(
                    (all, members) => all + costOf(Int32Array.from(members), 0, members.length),
                    0,
                  ),
              0,
            );
            best = Math.min(best, cost);
          }
          expect(deal.objective).toBeCloseTo(best, 6);
        },
      ),
      { numRuns: 30, seed: 20261125 },
    );
    expect(tried).toBeGreaterThanOrEqual(30);
  });

  it('is never worse than the best of 1,000 random deals', () =>
    fc.assert(
      fc.property(anyProblem(20), (problem) => {
        const ours = dealAll(problem);
        // Who finds no place where there are too few is drawn by lot, and by no wish: such deals are not compared.
        if (!ours.ok || [...ours.deal.seats.values()].includes(null)) return;
        for (let seed = 1; seed <= 1000; seed += 1) {
          const theirs = dealAll({ ...problem, seed, effort: 0 });
          if (theirs.ok) expect(ours.deal.objective).toBeLessThanOrEqual(theirs.deal.objective + 1e-6);
        }
      }),
      { numRuns: 12 },
    ));

  it('is proven where the bound is reached: 48 students, three attributes', () => {
    const students = Array.from({ length: 48 }, (_, at) =>
      student(at, { lab: kinds.lab[at % 3]!, time: kinds.time[(at >> 1) % 2]! }),
    );
    const rules: Rule[] = [
      { kind: 'spread', attribute: 'lab', as: 'category' },
      { kind: 'spread', attribute: 'time', as: 'category' },
    ];
    const { reached } = dealt(
      aProblem(
        students,
        Array.from({ length: 12 }, (_, at) => group(at, 4)),
        rules,
      ),
    );
    for (const { cost, bound } of reached) expect(cost).toBeCloseTo(bound, 6);
  });
});

describe('rules that cannot all hold', () => {
  const groups = [group(0, 3), group(1, 3)];
  const cases: [string, DealProblem, RegExp][] = [
    [
      'a pair together and apart',
      aProblem(people(6), groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 0) },
      ]),
      /S0 and S1 are to sit together and apart at once/,
    ],
    [
      'apart through a third',
      aProblem(people(6), groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'together', students: ids(1, 2) },
        { kind: 'apart', students: ids(0, 2) },
      ]),
      /S0 and S2 are to sit together and apart/,
    ],
    [
      'together, pinned apart',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g1'), ...people(6).slice(2)], groups, [
        { kind: 'together', students: ids(0, 1) },
      ]),
      /one stays in G0 and the other in G1/,
    ],
    [
      'apart, pinned together',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g0'), ...people(6).slice(2)], groups, [
        { kind: 'apart', students: ids(0, 1) },
      ]),
      /both stay in G0/,
    ],
    [
      'more together than a group holds',
      aProblem(people(6), groups, [{ kind: 'together', students: ids(0, 1, 2, 3) }]),
      /S0, S1, S2 and S3 .* 4 people, and no group holds more than 3/,
    ],
    [
      'more apart than groups',
      aProblem(people(6), groups, [{ kind: 'apart', students: ids(0, 1, 2) }]),
      /each of these 3 is to sit apart from all the others, and there are 2 groups/,
    ],
    [
      'apart by three rules',
      aProblem(people(6), groups, [
        { kind: 'apart', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 2) },
        { kind: 'apart', students: ids(0, 2) },
      ]),
      /each of these 3/,
    ],
    [
      'with somebody in a full group',
      aProblem([...[0, 1, 2].map((at) => student(at, {}, 'g0')), ...people(6).slice(3)], groups, [
        { kind: 'together', students: ids(0, 3) },
      ]),
      /in G0, which has no place/,
    ],
    [
      'with somebody in a locked group',
      aProblem(
        [student(0, {}, 'g0'), ...people(6).slice(1)],
        [group(0, 3, true), group(1, 6)],
        [{ kind: 'together', students: ids(0, 1) }],
      ),
      /in G0, which has no place/,
    ],
    [
      'apart from somebody in every group',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g1'), ...people(6).slice(2)], groups, [
        { kind: 'apart', students: ids(2, 0) },
        { kind: 'apart', students: ids(2, 1) },
      ]),
      /S2 finds no group without S0 and S1/,
    ],
    [
      'two pairs of three for two groups of three',
      aProblem(
        people(6),
        [group(0, 2), group(1, 2), group(2, 2)],
        [{ kind: 'together', students: ids(0, 1, 2) }],
      ),
      /no group holds more than 2/,
    ],
    [
      'together with somebody whose neighbour is shunned',
      aProblem([student(0, {}, 'g0'), ...people(6).slice(1)], groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 2) },
        { kind: 'together', students: ids(2, 0) },
      ]),
      /S[0-2] and S[0-2] are to sit together and apart/,
    ],
    [
      'trios that leave one over',
      aProblem(
        people(8),
        [group(0, 4), group(1, 4)],
        [
          { kind: 'together', students: ids(0, 1, 2) },
          { kind: 'together', students: ids(3, 4, 5) },
          { kind: 'together', students: ids(6, 7) },
        ],
      ),
      /S[67] and S[67] are to sit together, but the other rules leave no group/,
    ],
  ];

  it.each(cases)('are explained with names: %s', (_what, problem, sentence) => {
    const result = dealAll(problem);
    if (result.ok) throw new Error('it was dealt');
    expect(sayClash(result.clash)).toMatch(sentence);
  });

  it('are never dropped in silence: one rule more holds or is told', () =>
    fc.assert(
      fc.property(
        anyProblem(10),
        fc.uniqueArray(fc.nat(9).map(id), { minLength: 2, maxLength: 4 }),
        (problem, students) => {
          const result = dealAll({
            ...problem,
            rules: [...problem.rules, { kind: 'apart', students }],
            effort: 0.1,
          });
          if (!result.ok) return expect(sayClash(result.clash).length).toBeGreaterThan(20);
          const at = students.flatMap((one) => result.deal.seats.get(one) ?? []);
          expect(new Set(at).size).toBe(at.length);
        },
      ),
      { numRuns: 200 },
    ));
});

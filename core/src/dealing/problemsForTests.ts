import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { dealAll, sayClash } from './index.js';
import type { Deal, DealProblem, DealtInto, DealtStudent, Rule } from './index.js';

export const id = (at: number) => `s${at}` as EnrolmentId;

export const ids = (...at: number[]) => at.map(id);

export const student = (
  at: number,
  attributes: Record<string, string> = {},
  fixedIn: string | null = null,
): DealtStudent => ({
  id: id(at),
  name: `S${at}`,
  attributes,
  fixedIn: fixedIn as GroupId | null,
});

export const group = (at: number, capacity: number | null = null, isLocked = false): DealtInto => ({
  id: `g${at}` as GroupId,
  name: `G${at}`,
  capacity,
  isLocked,
});

export const aProblem = (
  students: DealtStudent[],
  groups: DealtInto[],
  rules: Rule[] = [],
  seed = 1,
): DealProblem => ({ students, groups, rules, seed });

export const people = (count: number) => Array.from({ length: count }, (_, at) => student(at));

export const dealt = (problem: DealProblem): Deal => {
  const result = dealAll(problem);
  if (!result.ok) throw new Error(sayClash(result.clash));
  return result.deal;
};

export const membersOf = (deal: Deal, problem: DealProblem) =>
  problem.groups.map((each) =>
    problem.students.filter((one) => deal.seats.get(one.id) === each.id).map((one) => one.id),
  );

export const kinds = {
  lab: ['none', 'some', 'plenty'],
  time: ['day', 'evening'],
  hours: ['2', '4', '6,5'],
  free: ['Mon am', 'Mon am, Tue', 'Wed', 'none'],
};

export const someAttributes = fc.record(
  {
    lab: fc.constantFrom(...kinds.lab),
    time: fc.constantFrom(...kinds.time),
    hours: fc.constantFrom(...kinds.hours),
    free: fc.constantFrom(...kinds.free),
  },
  { requiredKeys: [] },
);

export const aWish = (count: number): fc.Arbitrary<Rule> =>
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

export const aHardRule = (count: number): fc.Arbitrary<Rule> =>
  fc.record({
    kind: fc.constantFrom('together' as const, 'apart' as const),
    students: fc.uniqueArray(fc.nat(count - 1).map(id), { minLength: 2, maxLength: 3 }),
  });

export const anyProblem = (most: number): fc.Arbitrary<DealProblem> =>
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
            pins[at] == null || !groups[pins[at]] ? null : sure(groups[pins[at]]).id,
          ),
        );
        return aProblem(students, groups, [...wishes, ...hard], seed);
      }),
  );

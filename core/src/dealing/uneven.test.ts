import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import { dealAll, sayClash } from './index.js';
import type { Rule } from './index.js';
import { aProblem, dealt, group, id, ids, membersOf, student } from './problemsForTests.js';

const apart = (...at: number[]): Rule => ({ kind: 'apart', students: ids(...at) });

describe('rules that do not let groups be even', () => {
  it('are kept in uneven ones: three apart from each of three who may sit together', () => {
    const rules = [0, 1, 2].flatMap((one) => [3, 4, 5, 6].map((other) => apart(one, other)));
    const problem = aProblem(
      [0, 1, 2, 3, 4, 5, 6].map((at) => student(at)),
      [group(0), group(1)],
      rules,
    );
    const sizes = membersOf(dealt(problem), problem).map((members) => members.length);
    expect(sizes.toSorted()).toEqual([3, 4]);
    const lone = aProblem(
      [0, 1, 2, 3, 4].map((at) => student(at)),
      [group(0), group(1)],
      [1, 2, 3, 4].map((other) => apart(0, other)),
    );
    expect(
      membersOf(dealt(lone), lone)
        .map((members) => members.length)
        .toSorted(),
    ).toEqual([1, 4]);
  });

  it('that nothing can keep are told to be proven, and what to do', () => {
    const ring = [0, 1, 2, 3, 4].map((at) => apart(at, (at + 1) % 5)); // an odd ring in two groups
    const result = dealAll(
      aProblem(
        [0, 1, 2, 3, 4].map((at) => student(at)),
        [group(0), group(1)],
        ring,
      ),
    );
    expect(result).toMatchObject({ ok: false, clash: { code: 'not-found', isProven: true } });
    expect(!result.ok && sayClash(result.clash)).toMatch(
      /^These cannot all be kept apart in these groups: S\d and S\d\. Let some/,
    );
  });

  it('clash only where no seating of any sizes would do, in 500 small classes held against all seatings', () => {
    let clashes = 0;
    fc.assert(
      fc.property(
        fc
          .record({ count: fc.integer({ min: 3, max: 7 }), groups: fc.integer({ min: 2, max: 3 }) })
          .chain(({ count, groups }) => {
            const pair = fc.uniqueArray(fc.nat(count - 1), { minLength: 2, maxLength: 2 });
            return fc.record({
              count: fc.constant(count),
              capacities: fc.array(fc.option(fc.integer({ min: 2, max: 7 })), {
                minLength: groups,
                maxLength: groups,
              }),
              apartPairs: fc.array(pair, { maxLength: 7 }),
              togetherPairs: fc.array(pair, { maxLength: 2 }),
              pin: fc.option(fc.nat(count - 1)),
            });
          }),
        ({ count, capacities, apartPairs, togetherPairs, pin }) => {
          const room = capacities.reduce<number>((sum, capacity) => sum + (capacity ?? count), 0);
          fc.pre(room >= count);
          const problem = aProblem(
            Array.from({ length: count }, (_, at) => student(at, {}, at === pin ? 'g0' : null)),
            capacities.map((capacity, at) => group(at, capacity)),
            [
              ...apartPairs.map((pair): Rule => ({ kind: 'apart', students: pair.map(id) })),
              ...togetherPairs.map((pair): Rule => ({ kind: 'together', students: pair.map(id) })),
            ],
          );
          const isSound = (seats: readonly number[]) =>
            capacities.every(
              (capacity, at) => seats.filter((seat) => seat === at).length <= (capacity ?? count),
            ) &&
            apartPairs.every(([one, other]) => seats[sure(one)] !== seats[sure(other)]) &&
            togetherPairs.every(([one, other]) => seats[sure(one)] === seats[sure(other)]) &&
            (pin === null || seats[pin] === 0);
          const result = dealAll(problem);
          if (result.ok) {
            const { deal } = result;
            expect(
              isSound(
                problem.students.map((each) =>
                  problem.groups.findIndex((own) => own.id === deal.seats.get(each.id)),
                ),
              ),
            ).toBe(true);
            return;
          }
          clashes += 1;
          const all = capacities.length ** count;
          for (let seating = 0; seating < all; seating += 1)
            expect(
              isSound(
                Array.from(
                  { length: count },
                  (_, at) => Math.floor(seating / capacities.length ** at) % capacities.length,
                ),
              ),
            ).toBe(false);
        },
      ),
      { numRuns: 500, seed: 20261128 },
    );
    expect(clashes).toBeGreaterThan(50);
  });
});

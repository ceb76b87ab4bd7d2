import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { dealAll, dealing, isWish, sayClash } from './index.js';
import type { DealtStudent, Rule } from './index.js';
import { measure } from './wishes.js';
import {
  ids,
  student,
  group,
  aProblem,
  people,
  dealt,
  membersOf,
  kinds,
  anyProblem,
} from './problemsForTests.js';

describe('a deal', () => {
  it('seats everyone once, keeps places, pins and locks, and breaks no rule that holds without exception', () =>
    fc.assert(
      fc.property(anyProblem(14), (problem) => {
        const result = dealAll({ ...problem, effort: 0.1 });
        if (!result.ok) return expect(sayClash(result.clash)).toMatch(/\.$/);
        const { seats } = result.deal;
        expect([...seats.keys()]).toEqual(problem.students.map((one) => one.id));
        for (const one of problem.students)
          if (one.fixedIn !== null) expect(seats.get(one.id)).toBe(one.fixedIn);
        for (const [at, members] of membersOf(result.deal, problem).entries()) {
          const { capacity, isLocked, id: groupId } = sure(problem.groups[at]);
          const pinned = problem.students.filter((one) => one.fixedIn === groupId).length;
          if (isLocked) expect(members.length).toBe(pinned);
          else if (capacity !== null) expect(members.length).toBeLessThanOrEqual(Math.max(capacity, pinned));
        }
        for (const rule of problem.rules) {
          if (isWish(rule)) continue;
          const at = rule.students.map((each) => seats.get(each) ?? null).filter((each) => each !== null);
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
          const wish = sure(problem.rules[rule]);
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

  it('moves no one where the class sits well already, and few where it nearly does', () => {
    const seated = (at: number) => `g${at % 4}` as GroupId;
    const sitting = (swapped: boolean) =>
      Array.from({ length: 12 }, (_, at) => {
        const own = swapped && at < 2 ? 1 - at : at;
        return { ...student(at, { lab: sure(kinds.lab[Math.floor(at / 4)]) }), sitsIn: seated(own) };
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
      student(at, { lab: sure(kinds.lab[(at * 5) % 3]), hours: String((at * 7) % 5) }),
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
    expect(first.value.part).toBe(0); // before it has looked for anything better
    expect([...first.value.best.seats.values()].filter((seat) => seat !== null)).toHaveLength(24);
  });
});

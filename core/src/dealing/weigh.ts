import type { EnrolmentId, GroupId } from '../ids/index.js';
import type { DealProblem } from './problem.js';
import { randomFrom, shuffle } from '../random/index.js';
import { Table } from './table.js';
import { compile } from './units.js';
import { isWish, measure } from './wishes.js';
import type { Measured } from './wishes.js';

/** How a wish came out; costs and bounds in the wish's own unit (CALC §2). */
export interface Reached {
  /** Its place among the rules. */
  readonly rule: number;
  readonly cost: number;
  /** No deal into groups of these sizes costs less. */
  readonly bound: number;
  /** What it costs on average when dealt at random: by this wishes of different units are weighed. */
  readonly byChance: number;
}

export interface Deal {
  /** null: no group has room for them. */
  readonly seats: ReadonlyMap<EnrolmentId, GroupId | null>;
  readonly reached: readonly Reached[];
  /** All wishes, weighed: 0 is all of them whole, 1 about what chance gives. */
  readonly objective: number;
  readonly bound: number;
}

const chances = 12;

export interface Weighed {
  readonly rule: number;
  readonly measured: Measured;
  readonly byChance: number;
  readonly bound: number;
  /** Of its cost in the objective. */
  readonly weight: number;
}

/** The first wish counts twice the second, and so on; each by what it costs more than it must when dealt at random, so that their units do not matter. The weights add up to 1. */
export function weigh({ rules, students }: DealProblem, table: Table): Weighed[] {
  const wishes = rules.flatMap((rule, at) =>
    isWish(rule) ? [{ at, measured: measure(rule, students) }] : [],
  );
  const random = randomFrom(1); // not the deal's own, so that two deals are weighed alike

  const sizes = [...table.sizes];
  const seated = [...table.groupOf.keys()].filter((student) => table.groupOf[student]! >= 0);
  const costs = wishes.map(() => 0);
  for (let chance = 0; chance < chances; chance += 1) {
    const mixed = Int32Array.from(shuffle([...seated], random));
    let from = 0;
    for (const size of sizes) {
      wishes.forEach(({ measured }, at) => (costs[at]! += measured.cost(mixed, from, size)));
      from += size;
    }
  }
  const all = wishes.reduce((sum, _, at) => sum + 2 ** -at, 0);
  return wishes.map(({ at: rule, measured }, at) => {
    const byChance = costs[at]! / chances;
    const bound = measured.bound(sizes);
    return { rule, measured, byChance, bound, weight: 2 ** -at / all / Math.max(1e-9, byChance - bound) };
  });
}

/** What a table comes to. */
export function worth(table: Table, wishes: readonly Weighed[]): Omit<Deal, 'seats'> {
  const reached = wishes.map(({ rule, measured, bound, byChance }): Reached => {
    let cost = 0;
    for (let group = 0; group < table.groupCount; group += 1)
      cost += measured.cost(table.members, group * table.width, table.sizes[group]!);
    return { rule, cost, bound, byChance };
  });
  const sum = (of: (each: Reached, at: number) => number) =>
    reached.reduce((total, each, at) => total + of(each, at), 0);
  return {
    reached,
    objective: sum((each, at) => each.cost * wishes[at]!.weight),
    bound: sum((each, at) => each.bound * wishes[at]!.weight),
  };
}

/** Any seating, judged by these rules as if it had been dealt by them: an earlier deal, or how it is now. Whoever has no seat in it, or in a group that is gone,
 * has none. */
export function judge(problem: DealProblem, seats: ReadonlyMap<EnrolmentId, GroupId | null>): Deal {
  const { students, groups } = problem;
  const { groupIndexOf } = compile(problem);
  const rowOf = students.map(({ id }) => groupIndexOf.get(seats.get(id) as GroupId) ?? -1);
  const sizes = groups.map((_, group) => rowOf.filter((row) => row === group).length);
  const table = new Table(groups.length, students.length, Math.max(1, ...sizes));
  rowOf.forEach((row, student) => row >= 0 && table.add(student, row));
  return {
    seats: new Map(students.map(({ id }, at) => [id, groups[rowOf[at]!]?.id ?? null])),
    ...worth(table, weigh(problem, table)),
  };
}

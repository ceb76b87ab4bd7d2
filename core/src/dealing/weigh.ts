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
  /** What it costs on average when dealt at random. */
  readonly byChance: number;
  /** What is usual to lose of it, by which wishes of different units are weighed: what chance costs more than the bound, or what one change of places
   * makes of it where chance reaches the bound. 0: nothing changes it. */
  readonly usual: number;
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
  readonly usual: number;
  /** Of its cost in the objective. */
  readonly weight: number;
}

/** The first wish counts twice the second, and so on; each by what it costs more than it must when dealt at random, so that their units do not matter. The
 * weights are bounded: where chance gives what no deal betters, a wish is weighed by what one change of places makes of it, and one that nothing changes
 * (an attribute that all have alike) weighs nothing. */
export function weigh({ rules, students }: DealProblem, table: Table): Weighed[] {
  const wishes = rules.flatMap((rule, at) =>
    isWish(rule) ? [{ at, measured: measure(rule, students) }] : [],
  );
  const random = randomFrom(1); // not the deal's own, so that two deals are weighed alike
  const sizes = [...table.sizes].sort((a, b) => b - a); // which of the groups are the larger ones makes no difference
  const seated = [...table.groupOf.keys()].filter((student) => table.groupOf[student]! >= 0);
  const costs = wishes.map(() => 0);
  let mixed = Int32Array.from(seated);
  for (let chance = 0; chance < chances; chance += 1) {
    mixed = Int32Array.from(shuffle([...seated], random));
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
    const least = leastThatCounts * Math.max(1, byChance);
    const gap = byChance - bound;
    const change = gap > least ? gap : largestChange(measured, mixed, sizes, random);
    const usual = change > least ? change : 0;
    return { rule, measured, byChance, bound, usual, weight: usual > 0 ? 2 ** -at / all / usual : 0 };
  });
}

/** What is less of a wish's cost than this is what sums round. */
const leastThatCounts = 1e-6;
const changesTried = 300;

/** The most that two people who change places make of a wish's cost, from a sample. */
function largestChange(
  measured: Measured,
  seats: Int32Array,
  sizes: readonly number[],
  random: () => number,
): number {
  const starts = sizes.map((_, group) => sizes.slice(0, group).reduce((sum, size) => sum + size, 0));
  const groupAt = sizes.flatMap((size, group) => Array<number>(size).fill(group));
  const costOf = (group: number) => measured.cost(seats, starts[group]!, sizes[group]!);
  let largest = 0;
  for (let change = 0; change < changesTried && seats.length > 1; change += 1) {
    const [one, other] = [Math.floor(random() * seats.length), Math.floor(random() * seats.length)];
    const [here, there] = [groupAt[one]!, groupAt[other]!];
    if (here === there) continue;
    const before = costOf(here) + costOf(there);
    [seats[one], seats[other]] = [seats[other]!, seats[one]!];
    largest = Math.max(largest, Math.abs(costOf(here) + costOf(there) - before));
  }
  return largest;
}

/** What a table comes to. */
export function worth(table: Table, wishes: readonly Weighed[]): Omit<Deal, 'seats'> {
  const reached = wishes.map(({ rule, measured, bound, byChance, usual }): Reached => {
    let cost = 0;
    for (let group = 0; group < table.groupCount; group += 1)
      cost += measured.cost(table.members, group * table.width, table.sizes[group]!);
    return { rule, cost, bound, byChance, usual };
  });
  const sum = (of: (each: Reached, at: number) => number) =>
    reached.reduce((total, each, at) => total + of(each, at), 0);
  return {
    reached,
    objective: sum((each, at) => each.cost * wishes[at]!.weight),
    bound: sum((each, at) => each.bound * wishes[at]!.weight),
  };
}

/** Any seating, judged by these rules as if it had been dealt by them: an earlier deal, or how it is now. Anyone who has no seat in it, or in a group that is gone,
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

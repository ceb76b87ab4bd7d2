import type { EnrolmentId, GroupId } from '../ids/index.js';
import { fillRoom } from '../groups/index.js';
import type { Clash } from './clash.js';
import { clashIn } from './clash.js';
import type { DealProblem } from './problem.js';
import { isWish } from './problem.js';
import { randomFrom, shuffle } from './random.js';
import { compile } from './units.js';
import type { Compiled } from './units.js';
import { measure } from './wishes.js';
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

export type Dealing =
  /** `part` of the work is done; a caller who has enough takes the best so far. */
  { readonly part: number; readonly best: Deal };
export type Dealt = { readonly ok: true; readonly deal: Deal } | { readonly ok: false; readonly clash: Clash };

const stepsPerStudent = 800;
const mostSteps = 900_000;
const reports = 50;
const chances = 12;

/** Deals everybody a place: rules that hold without exception hold, wishes are met as well as can be found. A generator, so that whoever runs it can
 * show how far it is and stop it. The number of steps hangs on the problem alone, never on a clock. */
export function* dealing(problem: DealProblem): Generator<Dealing, Dealt> {
  const compiled = compile(problem);
  const clash = clashIn(problem, compiled);
  if (clash) return { ok: false, clash };
  const random = randomFrom(problem.seed);
  const start = seatEveryone(problem, compiled, random);
  if (!start.ok) return start;
  const { table } = start;
  const wishes = problem.rules.flatMap((rule, at) => (isWish(rule) ? [{ at, measured: measure(rule, problem.students) }] : []));
  const weighed = weigh(wishes, table);
  const search = new Search(compiled, table, weighed, random);
  const steps = Math.round(Math.min(mostSteps, Math.max(15_000, compiled.count * stepsPerStudent)) * (problem.effort ?? 1));
  const deal = () => toDeal(problem, compiled, search.best, weighed);
  if (steps > 0 && weighed.length > 0 && search.canMove) {
    for (let report = 0; report < reports; report += 1) {
      search.run(Math.round(steps / reports), 1 - report / reports, 1 - (report + 1) / reports);
      if (search.isPerfect) break;
      yield { part: (report + 1) / reports, best: deal() };
    }
    search.polish();
  }
  return { ok: true, deal: deal() };
}

/** The whole of it at once. */
export function dealAll(problem: DealProblem): Dealt {
  const run = dealing(problem);
  for (;;) {
    const next = run.next();
    if (next.done) return next.value;
  }
}

/** Who sits where: the members of each group in a row of their own, and each student's group (-1: none) and place in its row. */
class Table {
  readonly width: number;
  readonly members: Int32Array;
  readonly sizes: Int32Array;
  readonly groupOf: Int32Array;
  private readonly placeOf: Int32Array;

  constructor(
    readonly groupCount: number,
    count: number,
    width: number,
  ) {
    this.width = width;
    this.members = new Int32Array(groupCount * width);
    this.sizes = new Int32Array(groupCount);
    this.groupOf = new Int32Array(count).fill(-1);
    this.placeOf = new Int32Array(count);
  }

  add(student: number, group: number): void {
    const place = group * this.width + this.sizes[group]!;
    this.members[place] = student;
    this.placeOf[student] = place;
    this.groupOf[student] = group;
    this.sizes[group]! += 1;
  }

  take(student: number): void {
    const group = this.groupOf[student]!;
    const last = group * this.width + this.sizes[group]! - 1;
    const moved = this.members[last]!;
    this.members[this.placeOf[student]!] = moved;
    this.placeOf[moved] = this.placeOf[student]!;
    this.sizes[group]! -= 1;
    this.groupOf[student] = -1;
  }

  copy(): Table {
    const next = new Table(this.groupCount, this.groupOf.length, this.width);
    next.members.set(this.members);
    next.sizes.set(this.sizes);
    next.groupOf.set(this.groupOf);
    next.placeOf.set(this.placeOf);
    return next;
  }
}

/** Everybody into groups of the sizes that the forecast tells, the largest units and those with most to be apart from first; then those who sit with somebody
 * they are to be apart from are swapped until nobody does. */
function seatEveryone(problem: DealProblem, compiled: Compiled, random: () => number): { ok: true; table: Table } | { ok: false; clash: Clash } {
  const { units, fixed, apart, capacity, isLocked, count, groupCount } = compiled;
  const fixedSize = new Int32Array(groupCount);
  units.forEach((unit, at) => fixed[at]! >= 0 && (fixedSize[fixed[at]!]! += unit.length));
  const free = units.flatMap((unit, at) => (fixed[at]! < 0 ? [{ unit, at }] : []));
  const newcomers = free.reduce((sum, { unit }) => sum + unit.length, 0);
  const { sizes } = fillRoom(
    [...fixedSize].map((members, at) => ({ members, capacity: isLocked[at] ? members : Number.isFinite(capacity[at]) ? capacity[at]! : null })),
    newcomers,
  );
  const table = new Table(groupCount, count, Math.max(1, ...sizes, ...units.map((unit) => unit.length)));
  units.forEach((unit, at) => fixed[at]! >= 0 && unit.forEach((student) => table.add(student, fixed[at]!)));
  const degree = ({ unit }: (typeof free)[number]) => unit.reduce((sum, student) => sum + apart[student]!.size, 0);
  const order = shuffle(free, random).sort((a, b) => b.unit.length - a.unit.length || degree(b) - degree(a));
  for (const { unit } of order) {
    let best = -1;
    let leastBroken = Infinity;
    let mostRoom = 0;
    for (let group = 0; group < groupCount; group += 1) {
      const room = sizes[group]! - table.sizes[group]!;
      if (room < unit.length) continue;
      const broken = brokenIn(compiled, table, unit, group);
      if (broken < leastBroken || (broken === leastBroken && room > mostRoom)) [best, leastBroken, mostRoom] = [group, broken, room];
    }
    if (best >= 0) for (const student of unit) table.add(student, best);
    else if (unit.length > 1 && newcomers <= sizes.reduce((sum, size, at) => sum + size - fixedSize[at]!, 0))
      return { ok: false, clash: { code: 'together-do-not-fit', names: unit.map((student) => problem.students[student]!.name) } };
  }
  repair(compiled, table, random);
  const pairs = brokenPairs(compiled, table);
  if (pairs.length === 0) return { ok: true, table };
  return { ok: false, clash: { code: 'not-found', pairs: pairs.map(([one, other]) => [problem.students[one]!.name, problem.students[other]!.name]) } };
}

function brokenIn({ apart }: Compiled, table: Table, unit: readonly number[], group: number): number {
  let broken = 0;
  for (const student of unit) for (const other of apart[student]!) if (table.groupOf[other] === group && !unit.includes(other)) broken += 1;
  return broken;
}

function brokenPairs({ apart }: Compiled, table: Table): [number, number][] {
  return [...apart.entries()].flatMap(([one, others]) =>
    [...others].flatMap((other): [number, number][] =>
      one < other && table.groupOf[one]! >= 0 && table.groupOf[one] === table.groupOf[other] ? [[one, other]] : [],
    ),
  );
}

/** Min-conflicts (Minton et al., 1992): somebody who sits wrong changes places with whoever makes it least wrong. */
function repair(compiled: Compiled, table: Table, random: () => number): void {
  const { units, unitOf, fixed } = compiled;
  const isSingle = (student: number) => units[unitOf[student]!]!.length === 1 && fixed[unitOf[student]!]! < 0;
  const singles = [...unitOf.keys()].filter((student) => isSingle(student) && table.groupOf[student]! >= 0);
  const wrong = (student: number, group: number, but: number) => {
    let broken = 0;
    for (const other of compiled.apart[student]!) if (other !== but && table.groupOf[other] === group) broken += 1;
    return broken;
  };
  for (let turn = 0; turn < 200 + 20 * compiled.count; turn += 1) {
    const pairs = brokenPairs(compiled, table);
    if (pairs.length === 0 || singles.length < 2) return;
    const pair = pairs[Math.floor(random() * pairs.length)]!;
    const one = pair.find(isSingle) ?? singles[Math.floor(random() * singles.length)]!;
    const here = table.groupOf[one]!;
    let best: number[] = [];
    let least = Infinity;
    for (const other of singles) {
      const there = table.groupOf[other]!;
      if (there === here) continue;
      const cost = wrong(one, there, other) + wrong(other, here, one) - wrong(one, here, -1) - wrong(other, there, -1);
      if (cost < least) [best, least] = [[other], cost];
      else if (cost === least) best.push(other);
    }
    const other = best[Math.floor(random() * best.length)];
    if (other === undefined) return;
    const there = table.groupOf[other]!;
    table.take(one);
    table.take(other);
    table.add(one, there);
    table.add(other, here);
  }
}

interface Weighed {
  readonly rule: number;
  readonly measured: Measured;
  readonly byChance: number;
  readonly bound: number;
  /** Of its cost in the objective. */
  readonly weight: number;
}

/** The first wish counts twice the second, and so on; each by what it costs more than it must when dealt at random, so that their units do not matter. The weights add up to 1. */
function weigh(wishes: readonly { at: number; measured: Measured }[], table: Table): Weighed[] {
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

const epsilon = 1e-9;

/** Threshold accepting (Dueck and Scheuer, 1990): a step that makes it worse by less than a threshold is taken, and the threshold sinks to nothing. Unlike
 * annealing it needs no exponential function, which engines round differently. */
class Search {
  private kept: Table;
  /** The table as it stands is the best found; it is copied once a step makes it worse. */
  private isAtBest = true;
  private isKept = true;
  private bestCost: number;
  private cost: number;
  private readonly groupCost: Float64Array;
  private readonly movable: Int32Array;
  private threshold = 0;

  constructor(
    private readonly compiled: Compiled,
    private readonly table: Table,
    private readonly wishes: readonly Weighed[],
    private readonly random: () => number,
  ) {
    this.groupCost = Float64Array.from({ length: table.groupCount }, (_, group) => this.costOf(group));
    this.cost = this.groupCost.reduce((sum, cost) => sum + cost, 0);
    this.kept = table.copy();
    this.bestCost = this.cost;
    const { unitOf, fixed } = compiled;
    this.movable = Int32Array.from([...unitOf.keys()].filter((student) => fixed[unitOf[student]!]! < 0 && table.groupOf[student]! >= 0));
    this.threshold = this.firstThreshold();
  }

  get best(): Table {
    this.keepBest();
    return this.kept;
  }

  private keepBest(): void {
    if (!this.isAtBest || this.isKept) return;
    this.kept = this.table.copy();
    this.isKept = true;
  }

  get canMove(): boolean {
    return this.movable.length > 1;
  }

  /** Nothing can be better than what was found. Its cost is added up anew, since sums of many steps round. */
  get isPerfect(): boolean {
    const { members, width, sizes, groupCount } = this.best;
    let least = 0;
    let cost = 0;
    for (const { measured, weight, bound } of this.wishes) {
      least += weight * bound;
      for (let group = 0; group < groupCount; group += 1) cost += weight * measured.cost(members, group * width, sizes[group]!);
    }
    return cost <= least + 1e-6;
  }

  /** So many steps while the threshold sinks from one part of its height to another. */
  run(steps: number, from: number, to: number): void {
    for (let step = 0; step < steps; step += 1) {
      const part = from + ((to - from) * step) / steps;
      this.step(this.threshold * part * part * this.random());
    }
  }

  /** From the best found: every change of two places, until none makes it better. For classes that are not large. */
  polish(): void {
    this.restore();
    const most = 400;
    if (this.movable.length > most) return;
    for (let isBetter = true; isBetter;) {
      isBetter = false;
      for (const one of this.movable) for (const other of this.movable) if (one < other && this.swap(one, other, -epsilon)) isBetter = true;
    }
  }

  private restore(): void {
    const { best } = this;
    for (let student = 0; student < this.compiled.count; student += 1) if (this.table.groupOf[student]! >= 0) this.table.take(student);
    for (let student = 0; student < this.compiled.count; student += 1) if (best.groupOf[student]! >= 0) this.table.add(student, best.groupOf[student]!);
    for (let group = 0; group < this.table.groupCount; group += 1) this.groupCost[group] = this.costOf(group);
    this.cost = this.groupCost.reduce((sum, cost) => sum + cost, 0);
    this.bestCost = this.cost;
    this.isAtBest = true;
    this.isKept = false;
  }

  /** What an ordinary change of places makes worse, from a sample. */
  private firstThreshold(): number {
    if (this.movable.length < 2) return 0;
    const before = this.cost;
    let worse = 0;
    let count = 0;
    for (let sample = 0; sample < 200; sample += 1) {
      const cost = this.cost;
      if (this.swap(this.pick(), this.pick(), Infinity) && this.cost > cost + epsilon) [worse, count] = [worse + this.cost - cost, count + 1];
    }
    if (this.cost > before) this.restore();
    return count === 0 ? 0 : (2 * worse) / count;
  }

  private pick(): number {
    return this.movable[Math.floor(this.random() * this.movable.length)]!;
  }

  private step(threshold: number): void {
    const one = this.pick();
    const other = this.pick();
    // Where one group has a member more than the other, somebody may also just move: the sizes stay what they are.
    const [here, there] = [this.table.groupOf[one]!, this.table.groupOf[other]!];
    if (here === there) return;
    if (this.table.sizes[here] === this.table.sizes[there]! + 1 && this.random() < 0.3) this.move(one, there, threshold);
    else this.swap(one, other, threshold);
  }

  private costOf(group: number): number {
    const { members, width, sizes } = this.table;
    let cost = 0;
    for (const { measured, weight } of this.wishes) cost += weight * measured.cost(members, group * width, sizes[group]!);
    return cost;
  }

  /** Two units of one size change places, if that breaks no rule and makes it worse by no more than the threshold.
   * @returns whether they did. */
  private swap(one: number, other: number, threshold: number): boolean {
    const { units, unitOf, fixed } = this.compiled;
    const [here, there] = [this.table.groupOf[one]!, this.table.groupOf[other]!];
    if (here === there) return false;
    const mine = units[unitOf[one]!]!;
    const theirs = this.counterpart(mine.length, other, there);
    if (theirs === null || (mine.length === 1 && units[unitOf[other]!]!.length > 1)) return false;
    for (const student of theirs) if (fixed[unitOf[student]!]! >= 0) return false;
    this.keepBest();
    this.exchange(mine, here, theirs, there);
    const isBroken = this.isBroken(mine) || this.isBroken(theirs);
    if (this.isTaken(isBroken, here, there, threshold)) return true;
    this.exchange(theirs, here, mine, there);
    return false;
  }

  private move(one: number, there: number, threshold: number): boolean {
    const { units, unitOf, capacity, isLocked } = this.compiled;
    const here = this.table.groupOf[one]!;
    const mine = units[unitOf[one]!]!;
    if (
      mine.length !== 1 ||
      isLocked[here] ||
      isLocked[there] ||
      this.table.sizes[there]! + 1 > capacity[there]! ||
      this.table.sizes[there]! + 1 > this.table.width
    )
      return false;
    this.keepBest();
    this.exchange(mine, here, [], there);
    if (this.isTaken(this.isBroken(mine), here, there, threshold)) return true;
    this.exchange([], here, mine, there);
    return false;
  }

  /** Whether two groups as they stand now are accepted; whoever asked puts them back if not. */
  private isTaken(isBroken: boolean, here: number, there: number, threshold: number): boolean {
    if (isBroken) return false;
    const [costHere, costThere] = [this.costOf(here), this.costOf(there)];
    const delta = costHere + costThere - this.groupCost[here]! - this.groupCost[there]!;
    if (delta > threshold) return false;
    this.groupCost[here] = costHere;
    this.groupCost[there] = costThere;
    this.cost += delta;
    if (this.cost < this.bestCost - epsilon) {
      this.bestCost = this.cost;
      this.isAtBest = true;
      this.isKept = false;
    } else if (delta > 0) this.isAtBest = false;
    return true;
  }

  /** As many people of a group as a unit has: another unit of that size, or single people. */
  private counterpart(size: number, other: number, there: number): readonly number[] | null {
    const { units, unitOf, fixed } = this.compiled;
    const own = units[unitOf[other]!]!;
    if (own.length === size) return own;
    if (own.length > 1) return null;
    const { members, width, sizes } = this.table;
    const chosen = [other];
    for (let at = there * width; at < there * width + sizes[there]! && chosen.length < size; at += 1) {
      const student = members[at]!;
      if (student !== other && units[unitOf[student]!]!.length === 1 && fixed[unitOf[student]!]! < 0) chosen.push(student);
    }
    return chosen.length === size ? chosen : null;
  }

  private exchange(mine: readonly number[], here: number, theirs: readonly number[], there: number): void {
    for (const student of mine) this.table.take(student);
    for (const student of theirs) this.table.take(student);
    for (const student of mine) this.table.add(student, there);
    for (const student of theirs) this.table.add(student, here);
  }

  private isBroken(moved: readonly number[]): boolean {
    for (const student of moved) {
      const group = this.table.groupOf[student];
      for (const other of this.compiled.apart[student]!) if (this.table.groupOf[other] === group) return true;
    }
    return false;
  }
}

function toDeal({ students, groups }: DealProblem, compiled: Compiled, table: Table, wishes: readonly Weighed[]): Deal {
  const nameOf = keptNames(students, groups, compiled, table);
  const seats = new Map(students.map((student, at) => [student.id, table.groupOf[at]! < 0 ? null : groups[nameOf[table.groupOf[at]!]!]!.id]));
  const reached = wishes.map(({ rule, measured, bound, byChance }): Reached => {
    let cost = 0;
    for (let group = 0; group < table.groupCount; group += 1) cost += measured.cost(table.members, group * table.width, table.sizes[group]!);
    return { rule, cost, bound, byChance };
  });
  const sum = (of: (each: Reached, at: number) => number) => reached.reduce((total, each, at) => total + of(each, at), 0);
  return { seats, reached, objective: sum((each, at) => each.cost * wishes[at]!.weight), bound: sum((each, at) => each.bound * wishes[at]!.weight) };
}

/** Groups of one size in which nobody has to stay are alike but for their names: each gets the name under which the most of its people sit already.
 * @returns by row of the table, the group whose name it gets. */
function keptNames(students: DealProblem['students'], groups: DealProblem['groups'], { fixed, unitOf }: Compiled, table: Table): number[] {
  const isBound = groups.map((group) => group.isLocked);
  for (const [student, group] of table.groupOf.entries()) if (group >= 0 && fixed[unitOf[student]!]! >= 0) isBound[group] = true;
  const indexOf = new Map(groups.map((group, at) => [group.id, at]));
  const stay = new Map<string, { row: number; name: number; count: number }>();
  for (const [student, row] of table.groupOf.entries()) {
    const name = indexOf.get(students[student]!.sitsIn as GroupId);
    if (row < 0 || name === undefined || isBound[row] || isBound[name]) continue;
    if (table.sizes[row] !== table.sizes[name] || groups[row]!.capacity !== groups[name]!.capacity) continue;
    const pair = stay.get(`${row} ${name}`);
    stay.set(`${row} ${name}`, { row, name, count: (pair?.count ?? 0) + 1 });
  }
  const names = groups.map(() => -1);
  const isGiven = groups.map(() => false);
  for (const { row, name } of [...stay.values()].sort((a, b) => b.count - a.count || a.row - b.row || a.name - b.name)) {
    if (names[row]! >= 0 || isGiven[name]) continue;
    names[row] = name;
    isGiven[name] = true;
  }
  // Those left over exchange what is left of names of their own kind.
  for (const row of groups.keys()) {
    if (names[row]! >= 0) continue;
    const isAlike = (name: number) =>
      !isBound[row] && !isBound[name] && table.sizes[row] === table.sizes[name] && groups[row]!.capacity === groups[name]!.capacity;
    const name = !isGiven[row] ? row : groups.findIndex((_, at) => !isGiven[at] && isAlike(at));
    names[row] = name;
    isGiven[name] = true;
  }
  return names;
}

import type { Table } from './table.js';
import type { Compiled } from './units.js';
import type { Weighed } from './weigh.js';

const epsilon = 1e-9;
/** Of what an ordinary change of places makes worse: the height from which the threshold sinks. Found by trying (bench/dealingOptimum.mjs): from higher up most
 * of the time goes by before anything is gained, from lower down it stays where it began. */
const thresholdPart = 0.3;
/** More than any class has taken; it ends in any case. */
const mostRounds = 60;

/** Threshold accepting (Dueck and Scheuer, 1990): a step that makes it worse by less than a threshold is taken, and the threshold sinks to nothing. Unlike
 * annealing it needs no exponential function, which engines round differently. */
export class Search {
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
    this.cost = this.sum();
    this.kept = table.copy();
    this.bestCost = this.cost;
    const { unitOf, fixed } = compiled;
    this.movable = Int32Array.from(
      [...unitOf.keys()].filter((student) => fixed[unitOf[student]!]! < 0 && table.groupOf[student]! >= 0),
    );
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
      for (let group = 0; group < groupCount; group += 1)
        cost += weight * measured.cost(members, group * width, sizes[group]!);
    }
    return cost <= least + 1e-6;
  }

  /** So many steps while the threshold sinks from one part of its height to another. */
  run(steps: number, from: number, to: number): void {
    for (let step = 0; step < steps; step += 1) {
      const part = from + ((to - from) * step) / steps;
      this.step(this.threshold * part * part * part * this.random());
    }
  }

  /** From the best found: every change of two places, until none makes it better. For classes that are not large. In steps, so that anyone who runs it may stop:
   * one round through the class each. */
  *polish(): Generator<void> {
    this.restore();
    const most = 400;
    if (this.movable.length > most) return;
    // Held against the whole, added up anew: two groups that only changed places can seem better by what sums round, and would change places for
    // ever. That it ends does not hang on it, though.
    let before = Infinity;
    for (let round = 0; round < mostRounds && this.cost < before - epsilon; round += 1) {
      before = this.cost;
      for (const one of this.movable)
        for (const other of this.movable) if (one < other) this.swap(one, other, -epsilon);
      this.cost = this.sum();
      yield;
    }
  }

  private restore(): void {
    const { best } = this;
    for (let student = 0; student < this.compiled.count; student += 1)
      if (this.table.groupOf[student]! >= 0) this.table.take(student);
    for (let student = 0; student < this.compiled.count; student += 1)
      if (best.groupOf[student]! >= 0) this.table.add(student, best.groupOf[student]!);
    for (let group = 0; group < this.table.groupCount; group += 1) this.groupCost[group] = this.costOf(group);
    this.cost = this.sum();
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
      if (this.swap(this.pick(), this.pick(), Infinity) && this.cost > cost + epsilon)
        [worse, count] = [worse + this.cost - cost, count + 1];
    }
    if (this.cost > before) this.restore();
    return count === 0 ? 0 : (thresholdPart * worse) / count;
  }

  private pick(): number {
    return this.movable[Math.floor(this.random() * this.movable.length)]!;
  }

  private step(threshold: number): void {
    const one = this.pick();
    const other = this.pick();
    // Where one group has a member more than the other, someone may also just move: the sizes stay what they are.
    const [here, there] = [this.table.groupOf[one]!, this.table.groupOf[other]!];
    if (here === there) return;
    if (this.table.sizes[here] === this.table.sizes[there]! + 1 && this.random() < 0.3)
      this.move(one, there, threshold);
    else this.swap(one, other, threshold);
  }

  private sum(): number {
    return this.groupCost.reduce((sum, cost) => sum + cost, 0);
  }

  private costOf(group: number): number {
    const { members, width, sizes } = this.table;
    let cost = 0;
    for (const { measured, weight } of this.wishes)
      cost += weight * measured.cost(members, group * width, sizes[group]!);
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

  /** Whether two groups as they stand now are accepted; the caller puts them back if not. */
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
      if (student !== other && units[unitOf[student]!]!.length === 1 && fixed[unitOf[student]!]! < 0)
        chosen.push(student);
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

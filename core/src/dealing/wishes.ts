import { readHalfDays, readNumber } from '../course/index.js';
import type { EnrolmentId } from '../ids/index.js';
import { bitsOf, leastTogether } from './lacking.js';
import type { DealtStudent } from './students.js';

/** What a deal is to bring about. Keeping together and keeping apart hold without exception; the others are wishes, the first the heaviest. */
export type Rule =
  | { readonly kind: 'together'; readonly students: readonly EnrolmentId[] }
  | { readonly kind: 'apart'; readonly students: readonly EnrolmentId[] }
  | { readonly kind: 'spread' | 'alike'; readonly attribute: string; readonly as: 'category' | 'number' }
  | { readonly kind: 'nobody-alone'; readonly attribute: string }
  | { readonly kind: 'common-time'; readonly attribute: string; readonly wanted: number }
  | { readonly kind: 'fresh'; readonly sets: readonly EarlierSet[] };

export type Wish = Exclude<Rule, { kind: 'together' | 'apart' }>;
export const isWish = (rule: Rule): rule is Wish => rule.kind !== 'together' && rule.kind !== 'apart';

/** Who sat together before. */
export interface EarlierSet {
  readonly name: string;
  readonly groups: readonly (readonly EnrolmentId[])[];
}

/** One wish made ready for many questions: what it costs that these students (by their index) sit together (CALC §2), and the least that it can
 * cost in groups of these sizes. The costs of groups add up, so that moving someone touches two groups and nothing else. */
export interface Measured {
  readonly wish: Wish;
  /** @param members of one group: `size` indices from `start` on. */
  readonly cost: (members: Int32Array, start: number, size: number) => number;
  /** Proven: no deal into groups of these sizes costs less. */
  readonly bound: (sizes: readonly number[]) => number;
}

export function measure(wish: Wish, students: readonly DealtStudent[]): Measured {
  switch (wish.kind) {
    case 'spread':
      return wish.as === 'category' ? spreadCategory(wish, students) : spreadNumber(wish, students);
    case 'alike':
      return wish.as === 'category' ? alikeCategory(wish, students) : alikeNumber(wish, students);
    case 'nobody-alone':
      return nobodyAlone(wish, students);
    case 'common-time':
      return commonTime(wish, students);
    case 'fresh':
      return fresh(wish, students);
  }
}

const unknown = -1;

/** Values as whole numbers from 0 on; `unknown` where nothing is known of someone. */
export function codesOf(
  students: readonly DealtStudent[],
  attribute: string,
): { codes: Int32Array; values: string[]; totals: number[]; known: number } {
  const codeOf = new Map<string, number>();
  const values: string[] = [];
  const totals: number[] = [];
  const codes = Int32Array.from(students, (student) => {
    const value = student.attributes[attribute];
    if (value === undefined) return unknown;
    let code = codeOf.get(value);
    if (code === undefined) {
      code = values.length;
      codeOf.set(value, code);
      values.push(value);
      totals.push(0);
    }
    totals[code]! += 1;
    return code;
  });
  return { codes, values, totals, known: totals.reduce((sum, total) => sum + total, 0) };
}

/** Counts the codes of one group into `counts` and lists those that occur; `counts` is zero again after `forget`. */
function counter(codes: Int32Array, kinds: number) {
  const counts = new Int32Array(kinds);
  const seen = new Int32Array(kinds);
  return {
    counts,
    seen,
    /** @returns how many kinds occur; `known` is how many members have a value. */
    count(members: Int32Array, start: number, size: number): number {
      let kindsSeen = 0;
      for (let at = start; at < start + size; at += 1) {
        const code = codes[members[at]!]!;
        if (code === unknown) continue;
        if (counts[code] === 0) seen[kindsSeen++] = code;
        counts[code]! += 1;
      }
      return kindsSeen;
    },
    forget(kindsSeen: number): void {
      for (let at = 0; at < kindsSeen; at += 1) counts[seen[at]!] = 0;
    },
  };
}

/** Σ over values of (count − size · total / n)²; of the group's members whose value is known. Values that no one in it has cost their share
 * squared, so only those that occur are looked at. Bound: for each value by itself, whole people spread over the groups as near to its shares as can be,
 * with as many of them in all as there are. */
function spreadCategory(wish: Wish & { attribute: string }, students: readonly DealtStudent[]): Measured {
  const { codes, totals, known } = codesOf(students, wish.attribute);
  const share = totals.map((total) => total / Math.max(1, known));
  const squares = share.reduce((sum, part) => sum + part * part, 0);
  const own = counter(codes, totals.length);
  return {
    wish,
    cost(members, start, size) {
      const kinds = own.count(members, start, size);
      let knownHere = 0;
      for (let at = 0; at < kinds; at += 1) knownHere += own.counts[own.seen[at]!]!;
      let cost = knownHere * knownHere * squares;
      for (let at = 0; at < kinds; at += 1) {
        const code = own.seen[at]!;
        const count = own.counts[code]!;
        cost += count * (count - 2 * knownHere * share[code]!);
      }
      own.forget(kinds);
      return cost;
    },
    // Where not everyone has a seat or a known value, which sizes and totals count is not known.
    bound: (sizes) =>
      known < students.length || sizes.reduce((sum, size) => sum + size, 0) < students.length
        ? 0
        : totals.reduce(
            (sum, total, code) =>
              sum +
              nearestWhole(
                sizes.map((size) => size * share[code]!),
                total,
              ),
            0,
          ),
  };
}

/** The least Σ (c − expected)² over whole numbers c ≥ 0 that add up to `total`: from all rounded down, the cheapest step is taken until they do. Each step of a
 * cell costs more than its last one, so that no other order is cheaper. */
function nearestWhole(expected: readonly number[], total: number): number {
  const floors = expected.map((each) => Math.floor(each + 1e-9));
  const steps = expected.map((each, at) => 1 - 2 * (each - floors[at]!)).sort((a, b) => a - b);
  const base = expected.reduce((sum, each, at) => sum + (each - floors[at]!) ** 2, 0);
  const missing = total - floors.reduce((sum, floor) => sum + floor, 0);
  return Math.max(0, base + steps.slice(0, missing).reduce((sum, step) => sum + step, 0));
}

/** Numbers around the class's mean, and sums over those of one group whose number is known. The sums are kept where they are worked out: this runs a million times. */
function numbersOf(students: readonly DealtStudent[], attribute: string) {
  const numbers = Float64Array.from(
    students,
    (student) => readNumber(student.attributes[attribute] ?? '') ?? NaN,
  );
  const known = [...numbers].filter((value) => !Number.isNaN(value));
  const mean = known.reduce((sum, value) => sum + value, 0) / Math.max(1, known.length);
  const own = {
    variance: known.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, known.length),
    sum: 0,
    squares: 0,
    known: 0,
    add(members: Int32Array, start: number, size: number): void {
      own.sum = own.squares = own.known = 0;
      for (let at = start; at < start + size; at += 1) {
        const value = numbers[members[at]!]! - mean;
        if (Number.isNaN(value)) continue;
        own.sum += value;
        own.squares += value * value;
        own.known += 1;
      }
    },
  };
  return own;
}

/** size · ((mean of the group − mean of the class) / sd)². */
function spreadNumber(wish: Wish & { attribute: string }, students: readonly DealtStudent[]): Measured {
  const own = numbersOf(students, wish.attribute);
  return {
    wish,
    cost(members, start, size) {
      own.add(members, start, size);
      return own.known === 0 || own.variance === 0 ? 0 : (own.sum * own.sum) / (own.known * own.variance);
    },
    bound: () => 0,
  };
}

/** Pairs in a group that differ. */
function alikeCategory(wish: Wish & { attribute: string }, students: readonly DealtStudent[]): Measured {
  const { codes, totals } = codesOf(students, wish.attribute);
  const own = counter(codes, totals.length);
  return {
    wish,
    cost(members, start, size) {
      const kinds = own.count(members, start, size);
      let known = 0;
      let alike = 0;
      for (let at = 0; at < kinds; at += 1) {
        const count = own.counts[own.seen[at]!]!;
        known += count;
        alike += (count * (count - 1)) / 2;
      }
      own.forget(kinds);
      return (known * (known - 1)) / 2 - alike;
    },
    bound: () => 0,
  };
}

/** Sum of squares around the group's own mean / sd². */
function alikeNumber(wish: Wish & { attribute: string }, students: readonly DealtStudent[]): Measured {
  const own = numbersOf(students, wish.attribute);
  return {
    wish,
    cost(members, start, size) {
      own.add(members, start, size);
      return own.known === 0 || own.variance === 0
        ? 0
        : Math.max(0, own.squares - (own.sum * own.sum) / own.known) / own.variance;
    },
    bound: () => 0,
  };
}

/** Kinds of which the class has two or more and the group exactly one person. */
function nobodyAlone(wish: Wish & { attribute: string }, students: readonly DealtStudent[]): Measured {
  const { codes, totals } = codesOf(students, wish.attribute);
  const own = counter(codes, totals.length);
  return {
    wish,
    cost(members, start, size) {
      const kinds = own.count(members, start, size);
      let alone = 0;
      for (let at = 0; at < kinds; at += 1)
        if (own.counts[own.seen[at]!] === 1 && totals[own.seen[at]!]! > 1) alone += 1;
      own.forget(kinds);
      return alone;
    },
    bound: () => 0,
  };
}

/** Half-days that are wanted and not free for everyone in the group. Anyone who said nothing is taken to be free. */
function commonTime(wish: Wish & { kind: 'common-time' }, students: readonly DealtStudent[]): Measured {
  const slots = new Map<string, number>();
  const free = Int32Array.from(students, (student) => {
    const own = readHalfDays(student.attributes[wish.attribute] ?? '');
    if (own === null || student.attributes[wish.attribute] === undefined) return -1; // every bit
    let mask = 0;
    for (const slot of own) {
      if (!slots.has(slot)) slots.set(slot, slots.size);
      mask |= 1 << slots.get(slot)!;
    }
    return mask;
  });
  const all = slots.size === 0 ? 0 : (1 << slots.size) - 1;
  // No one's group shares more half-days than they have themselves.
  const lacking = [...free]
    .map((mask) => Math.max(0, wish.wanted - bitsOf(mask & all)))
    .sort((a, b) => b - a);
  return {
    wish,
    cost(members, start, size) {
      if (size < 2) return 0;
      let mask = all;
      for (let at = start; at < start + size; at += 1) mask &= free[members[at]!]!;
      return Math.max(0, wish.wanted - bitsOf(mask));
    },
    bound: (sizes) => leastTogether(lacking, sizes),
  };
}

/** Pairs that sat together before. Bound: an earlier group of more people than there are groups now must seat some of them together again; the most that
 * any one earlier set forces. */
function fresh(wish: Wish & { kind: 'fresh' }, students: readonly DealtStudent[]): Measured {
  const indexOf = new Map<EnrolmentId, number>(students.map((student, at) => [student.id, at]));
  const earlier = wish.sets.map(({ groups }) => {
    const groupOf = new Int32Array(students.length).fill(unknown);
    groups.forEach((members, group) => {
      for (const id of members) {
        const at = indexOf.get(id);
        if (at !== undefined) groupOf[at] = group;
      }
    });
    return groupOf;
  });
  const count = students.length;
  const haveMet = (one: number, other: number) =>
    earlier.some((groupOf) => groupOf[one] !== unknown && groupOf[one] === groupOf[other]);
  const pairs = count <= mostInPairs ? pairsThat(haveMet, count) : null;
  return {
    wish,
    cost(members, start, size) {
      let met = 0;
      for (let at = start; at < start + size; at += 1) {
        const one = members[at]!;
        for (let next = at + 1; next < start + size; next += 1) {
          const other = members[next]!;
          met += pairs ? pairs[one * count + other]! : Number(haveMet(one, other));
        }
      }
      return met;
    },
    bound(sizes) {
      if (sizes.reduce((sum, size) => sum + size, 0) < students.length) return 0; // anyone who finds no place meets no one
      const open = sizes.filter((size) => size > 0).length;
      const forced = earlier.map((groupOf) => {
        const members = new Map<number, number>();
        for (const group of groupOf) if (group !== unknown) members.set(group, (members.get(group) ?? 0) + 1);
        return [...members.values()].reduce((sum, count) => sum + pairsForced(count, open), 0);
      });
      return Math.max(0, ...forced);
    },
  };
}

/** So many students' pairs are written down once, a byte each; beyond it they are looked up set by set. */
const mostInPairs = 2_000;

function pairsThat(haveMet: (one: number, other: number) => boolean, count: number): Uint8Array {
  const pairs = new Uint8Array(count * count);
  for (let one = 0; one < count; one += 1)
    for (let other = 0; other < one; other += 1)
      if (haveMet(one, other)) pairs[one * count + other] = pairs[other * count + one] = 1;
  return pairs;
}

/** The least number of pairs when so many people are spread over so many groups. */
function pairsForced(people: number, groups: number): number {
  if (groups === 0) return 0;
  const few = Math.floor(people / groups);
  const more = people % groups;
  return (groups - more) * ((few * (few - 1)) / 2) + more * ((few * (few + 1)) / 2);
}

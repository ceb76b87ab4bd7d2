import { fillRoom } from '../sets/index.js';
import type { Clash } from './clash.js';
import type { DealProblem } from './problem.js';
import { shuffle } from '../random/index.js';
import { Table } from './table.js';
import type { Compiled } from './units.js';

type Start = { ok: true; table: Table } | { ok: false; clash: Clash };

/** Everyone into groups of even sizes; where the rules that hold without exception do not let them be even, into uneven ones. */
export function seatEveryone(problem: DealProblem, compiled: Compiled, random: () => number): Start {
  const even = seatEvenly(problem, compiled, random);
  if (even.ok) return even;
  const uneven = seatUnevenly(compiled);
  if (uneven === 'none' && even.clash.code === 'not-found')
    return { ok: false, clash: { ...even.clash, isProven: true } };
  return typeof uneven === 'string' ? even : { ok: true, table: uneven };
}

/** Everyone where a seating has them; null: it does not keep what must hold. */
export function seatAs(
  { students, groups }: DealProblem,
  compiled: Compiled,
  seats: NonNullable<DealProblem['from']>,
): Table | null {
  const { units, fixed, capacity, count, groupCount } = compiled;
  const placeOf = new Map(groups.map((group, at) => [group.id, at]));
  const into = students.map(({ id }) => placeOf.get(seats.get(id)!) ?? -1);
  const sizes = new Int32Array(groupCount);
  for (const group of into) if (group >= 0) sizes[group]! += 1;
  const table = new Table(groupCount, count, Math.max(1, ...sizes, ...units.map((unit) => unit.length)));
  into.forEach((group, student) => group >= 0 && table.add(student, group));
  const isKept =
    units.every((unit, at) =>
      unit.every(
        (student) => into[student] === into[unit[0]!] && (fixed[at]! < 0 || into[student] === fixed[at]),
      ),
    ) &&
    sizes.every((size, group) => size <= capacity[group]!) &&
    brokenPairs(compiled, table).length === 0;
  return isKept ? table : null;
}

/** Everyone into groups of the sizes that the forecast tells, the largest units and those with most to be apart from first; then those who sit with someone
 * they are to be apart from are swapped until no one does. */
function seatEvenly(problem: DealProblem, compiled: Compiled, random: () => number): Start {
  const { units, fixed, apart, capacity, isLocked, count, groupCount } = compiled;
  const fixedSize = new Int32Array(groupCount);
  units.forEach((unit, at) => fixed[at]! >= 0 && (fixedSize[fixed[at]!]! += unit.length));
  const free = units.flatMap((unit, at) => (fixed[at]! < 0 ? [{ unit, at }] : []));
  const newcomers = free.reduce((sum, { unit }) => sum + unit.length, 0);
  const { sizes } = fillRoom(
    [...fixedSize].map((members, at) => ({
      members,
      capacity: isLocked[at] ? members : Number.isFinite(capacity[at]) ? capacity[at]! : null,
    })),
    newcomers,
  );
  const table = new Table(groupCount, count, Math.max(1, ...sizes, ...units.map((unit) => unit.length)));
  units.forEach((unit, at) => fixed[at]! >= 0 && unit.forEach((student) => table.add(student, fixed[at]!)));
  const degree = ({ unit }: (typeof free)[number]) =>
    unit.reduce((sum, student) => sum + apart[student]!.size, 0);
  const order = shuffle(free, random).sort((a, b) => b.unit.length - a.unit.length || degree(b) - degree(a));
  for (const { unit } of order) {
    let best = -1;
    let leastBroken = Infinity;
    let mostRoom = 0;
    for (let group = 0; group < groupCount; group += 1) {
      const room = sizes[group]! - table.sizes[group]!;
      if (room < unit.length) continue;
      const broken = brokenIn(compiled, table, unit, group);
      if (broken < leastBroken || (broken === leastBroken && room > mostRoom))
        [best, leastBroken, mostRoom] = [group, broken, room];
    }
    if (best >= 0) for (const student of unit) table.add(student, best);
    else if (unit.length > 1 && newcomers <= sizes.reduce((sum, size, at) => sum + size - fixedSize[at]!, 0))
      return {
        ok: false,
        clash: { code: 'together-do-not-fit', names: unit.map((student) => problem.students[student]!.name) },
      };
  }
  repair(compiled, table, random);
  const pairs = brokenPairs(compiled, table);
  if (pairs.length === 0) return { ok: true, table };
  return {
    ok: false,
    clash: {
      code: 'not-found',
      isProven: false,
      pairs: pairs.map(([one, other]) => [problem.students[one]!.name, problem.students[other]!.name]),
    },
  };
}

/** So many tries to seat someone; a small class is through with all there are. */
const mostTries = 200_000;

/** Everyone into any groups with room, by backtracking: those with most to be apart from first, each into the smallest group that takes them.
 * @returns none: there is no such seating, proven; unknown: none was found. */
function seatUnevenly(compiled: Compiled): Table | 'none' | 'unknown' {
  const { units, fixed, apart, capacity, isLocked, count, groupCount } = compiled;
  const members: number[][] = Array.from({ length: groupCount }, () => []);
  units.forEach((unit, at) => fixed[at]! >= 0 && members[fixed[at]!]!.push(...unit));
  const weight = (unit: readonly number[]) => unit.reduce((sum, student) => sum + apart[student]!.size, 0);
  const free = units
    .filter((_, at) => fixed[at]! < 0)
    .toSorted((a, b) => weight(b) - weight(a) || b.length - a.length);
  const seatsWanted = free.reduce((sum, unit) => sum + unit.length, 0);
  const room = members.reduce(
    (sum, own, group) => sum + (isLocked[group] ? 0 : capacity[group]! - own.length),
    0,
  );
  if (seatsWanted > room) return 'unknown'; // someone finds no place, and it may be the one who hinders
  let tries = 0;
  const takes = (group: number, unit: readonly number[]) =>
    !isLocked[group] &&
    members[group]!.length + unit.length <= capacity[group]! &&
    !members[group]!.some((other) => unit.some((student) => apart[student]!.has(other)));
  const seat = (at: number): boolean => {
    const unit = free[at];
    if (unit === undefined) return true;
    const groups = [...members.keys()].filter((group) => takes(group, unit));
    groups.sort((a, b) => members[a]!.length - members[b]!.length || a - b);
    const triedEmpty = new Set<number>();
    for (const group of groups) {
      if ((tries += 1) > mostTries) return false;
      // One empty group is like another of as much room.
      if (members[group]!.length === 0) {
        if (triedEmpty.has(capacity[group]!)) continue;
        triedEmpty.add(capacity[group]!);
      }
      members[group]!.push(...unit);
      if (seat(at + 1)) return true;
      members[group]!.length -= unit.length;
    }
    return false;
  };
  // As deep as the class has units: a class for which that is too deep is not small.
  if (free.length > 1000) return 'unknown';
  if (!seat(0)) return tries > mostTries ? 'unknown' : 'none';
  const table = new Table(groupCount, count, Math.max(1, ...members.map((own) => own.length)));
  members.forEach((own, group) => own.forEach((student) => table.add(student, group)));
  return table;
}

function brokenIn({ apart }: Compiled, table: Table, unit: readonly number[], group: number): number {
  let broken = 0;
  for (const student of unit)
    for (const other of apart[student]!)
      if (table.groupOf[other] === group && !unit.includes(other)) broken += 1;
  return broken;
}

function brokenPairs({ apart }: Compiled, table: Table): [number, number][] {
  return [...apart.entries()].flatMap(([one, others]) =>
    [...others].flatMap((other): [number, number][] =>
      one < other && table.groupOf[one]! >= 0 && table.groupOf[one] === table.groupOf[other]
        ? [[one, other]]
        : [],
    ),
  );
}

/** Min-conflicts (Minton et al., 1992): someone who sits wrong changes places with the person who makes it least wrong. */
function repair(compiled: Compiled, table: Table, random: () => number): void {
  const { units, unitOf, fixed } = compiled;
  const isSingle = (student: number) => units[unitOf[student]!]!.length === 1 && fixed[unitOf[student]!]! < 0;
  const singles = [...unitOf.keys()].filter((student) => isSingle(student) && table.groupOf[student]! >= 0);
  const wrong = (student: number, group: number, but: number) => {
    let broken = 0;
    for (const other of compiled.apart[student]!)
      if (other !== but && table.groupOf[other] === group) broken += 1;
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
      const cost =
        wrong(one, there, other) + wrong(other, here, one) - wrong(one, here, -1) - wrong(other, there, -1);
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

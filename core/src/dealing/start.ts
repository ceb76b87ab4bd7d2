import { fillRoom } from '../sets/index.js';
import type { Clash } from './clash.js';
import type { DealProblem } from './problem.js';
import { shuffle } from '../random/index.js';
import { Table } from './table.js';
import type { Compiled } from './units.js';

/** Everybody into groups of the sizes that the forecast tells, the largest units and those with most to be apart from first; then those who sit with somebody
 * they are to be apart from are swapped until nobody does. */
export function seatEveryone(
  problem: DealProblem,
  compiled: Compiled,
  random: () => number,
): { ok: true; table: Table } | { ok: false; clash: Clash } {
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
      pairs: pairs.map(([one, other]) => [problem.students[one]!.name, problem.students[other]!.name]),
    },
  };
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

/** Min-conflicts (Minton et al., 1992): somebody who sits wrong changes places with whoever makes it least wrong. */
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

import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import type { DealProblem } from './problem.js';
import type { Table } from './table.js';
import type { Compiled } from './units.js';

/** Groups of one size in which no one has to stay are alike but for their names: each gets the name under which the most of its people sit already.
 * @returns by row of the table, the group whose name it gets. */
export function keptNames(
  students: DealProblem['students'],
  groups: DealProblem['groups'],
  { fixed, unitOf }: Compiled,
  table: Table,
): number[] {
  const isBound = groups.map((group) => group.isLocked);
  for (const [student, group] of table.groupOf.entries())
    if (group >= 0 && sure(fixed[sure(unitOf[student])]) >= 0) isBound[group] = true;
  const indexOf = new Map(groups.map((group, at) => [group.id, at]));
  const stay = new Map<string, { row: number; name: number; count: number }>();
  for (const [student, row] of table.groupOf.entries()) {
    const name = indexOf.get(sure(students[student]).sitsIn as GroupId);
    if (row < 0 || name === undefined || isBound[row] || isBound[name]) continue;
    if (table.sizes[row] !== table.sizes[name] || sure(groups[row]).capacity !== sure(groups[name]).capacity)
      continue;
    const pair = stay.get(`${row} ${name}`);
    stay.set(`${row} ${name}`, { row, name, count: (pair?.count ?? 0) + 1 });
  }
  const names = groups.map(() => -1);
  const isGiven = groups.map(() => false);
  for (const { row, name } of [...stay.values()].sort(
    (a, b) => b.count - a.count || a.row - b.row || a.name - b.name,
  )) {
    if (sure(names[row]) >= 0 || isGiven[name]) continue;
    names[row] = name;
    isGiven[name] = true;
  }
  // Those left over exchange what is left of names of their own kind.
  for (const row of groups.keys()) {
    if (sure(names[row]) >= 0) continue;
    const isAlike = (name: number) =>
      !isBound[row] &&
      !isBound[name] &&
      table.sizes[row] === table.sizes[name] &&
      sure(groups[row]).capacity === sure(groups[name]).capacity;
    const name = !isGiven[row] ? row : groups.findIndex((_, at) => !isGiven[at] && isAlike(at));
    names[row] = name;
    isGiven[name] = true;
  }
  return names;
}

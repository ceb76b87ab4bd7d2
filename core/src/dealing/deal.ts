import { sure } from '../lists/index.js';
import type { Clash } from './clash.js';
import { clashIn } from './clash.js';
import { keptNames } from './names.js';
import type { DealProblem } from './problem.js';
import { randomFrom } from '../random/index.js';
import { Search } from './search.js';
import { seatEveryone } from './start.js';
import type { Table } from './table.js';
import type { Compiled } from './units.js';
import { compile } from './units.js';
import { weigh, worth } from './weigh.js';
import type { Deal, Weighed } from './weigh.js';

export type Dealing =
  /** `part` of the work is done; a caller who has enough takes the best so far. */
  { readonly part: number; readonly best: Deal };
export type Dealt =
  { readonly ok: true; readonly deal: Deal } | { readonly ok: false; readonly clash: Clash };

const stepsPerStudent = 800;
/** As many as a page has the patience for; a class that the server deals has more. */
const mostSteps = 900_000;
const stepsPerStudentOfMany = 450;
const reports = 50;

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
  const weighed = weigh(problem, table);
  const search = new Search(compiled, table, weighed, random);
  const steps = Math.round(stepsFor(compiled.count) * (problem.effort ?? 1));
  const deal = () => toDeal(problem, compiled, search.best, weighed);
  yield { part: 0, best: deal() }; // whoever has enough already takes this
  if (steps > 0 && weighed.length > 0 && search.canMove) {
    for (let report = 0; report < reports; report += 1) {
      search.run(Math.round(steps / reports), 1 - report / reports, 1 - (report + 1) / reports);
      if (search.isPerfect) break;
      yield { part: (report + 1) / reports, best: deal() };
    }
    for (const _round of search.polish()) yield { part: 1, best: deal() };
  }
  return { ok: true, deal: deal() };
}

const stepsFor = (students: number) =>
  Math.max(
    Math.min(mostSteps, Math.max(15_000, students * stepsPerStudent)),
    students * stepsPerStudentOfMany,
  );

/** The whole of it at once. */
export function dealAll(problem: DealProblem): Dealt {
  const run = dealing(problem);
  for (;;) {
    const next = run.next();
    if (next.done) return next.value;
  }
}

function toDeal(
  { students, groups }: DealProblem,
  compiled: Compiled,
  table: Table,
  wishes: readonly Weighed[],
): Deal {
  const nameOf = keptNames(students, groups, compiled, table);
  const seats = new Map(
    students.map((student, at) => [
      student.id,
      sure(table.groupOf[at]) < 0 ? null : sure(groups[sure(nameOf[sure(table.groupOf[at])])]).id,
    ]),
  );
  return { seats, ...worth(table, wishes) };
}

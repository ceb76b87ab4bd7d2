import { sure } from '../lists/index.js';
import type { Clash } from './clash.js';
import { clashIn } from './clash.js';
import { keptNames } from './names.js';
import type { DealProblem } from './problem.js';
import { randomFrom } from '../random/index.js';
import { Search } from './search.js';
import { seatAs, seatEveryone } from './start.js';
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

/** Some of the looks: from `first` on, so many. */
export interface Looks {
  readonly first: number;
  readonly count: number;
}

/** In all looks together. Small classes are soon through all there is; of large ones a page has only so much patience. */
const fewestSteps = 15_000;
const stepsPerPair = 1200;
const stepsAtMost = 1600000;
const stepsPerStudent = 900;
/** Of one look: fewer, and it finds less than another beginning would; more, and there is no time for another. Small classes have few ways to go, and a
 * beginning from which there is no way out is left soon. */
const stepsPerPairInLook = 170;
const stepsPerStudentInLook = 8_000;
const reports = 50;

/** How often it begins anew, and with how many steps each time. They hang on the problem alone, never on a clock. */
export function looksOf({ students, effort = 1 }: Pick<DealProblem, 'students' | 'effort'>): {
  readonly looks: number;
  readonly steps: number;
} {
  const count = students.length;
  const usual = Math.max(
    fewestSteps,
    Math.min(stepsPerPair * count * count, stepsAtMost + stepsPerStudent * count),
  );
  const all = Math.round(usual * effort);
  const inLook = Math.max(1, Math.min(stepsPerPairInLook * count, stepsPerStudentInLook) * count);
  const looks = Math.max(1, Math.floor(all / inLook));
  return { looks, steps: Math.floor(all / looks) };
}

/** Deals everyone a place: rules that hold without exception hold, wishes are met as well as can be found. It looks several times, each time from another
 * beginning; a look hangs on the seed and its number alone, so that several workers can share them and come to the same deal as one. A generator, so
 * that anyone who runs it can show how far it is and stop it.
 * @param only these looks; left out: all. Looks beyond the usual ones go on improving. */
export function* dealing(problem: DealProblem, only?: Looks): Generator<Dealing, Dealt> {
  const compiled = compile(problem);
  const clash = clashIn(problem, compiled);
  if (clash) return { ok: false, clash };
  const { looks, steps } = looksOf(problem);
  const { first, count } = only ?? { first: 0, count: looks };
  let best: Deal | null = null;
  for (let look = first; look < first + count; look += 1) {
    const run = lookOnce(problem, compiled, look, steps);
    for (;;) {
      const next = run.next();
      if (next.done) {
        if (!next.value.ok) return next.value;
        best = better(best, next.value.deal);
        break;
      }
      const { part, best: found } = next.value;
      yield { part: (look - first + part) / count, best: better(best, found) };
    }
    if (isPerfect(best)) break;
  }
  return { ok: true, deal: sure(best) };
}

/** The one that costs less; of two that are as good as can be, or alike, the first. */
export const better = (one: Deal | null, other: Deal): Deal =>
  one !== null && (isPerfect(one) || one.objective <= other.objective) ? one : other;

/** Nothing can be better. */
export const isPerfect = ({ objective, bound }: Pick<Deal, 'objective' | 'bound'>): boolean =>
  objective <= bound + 1e-6;

function* lookOnce(
  problem: DealProblem,
  compiled: Compiled,
  look: number,
  steps: number,
): Generator<Dealing, Dealt> {
  const random = randomFrom(problem.seed + look * apart);
  const known = problem.from ? seatAs(problem, compiled, problem.from) : null;
  const start = known ? { ok: true as const, table: known } : seatEveryone(problem, compiled, random);
  const heat = known ? heatOfImproving : 1;
  if (!start.ok) return start;
  const { table } = start;
  const weighed = weigh(problem, table);
  const search = new Search(compiled, table, weighed, random);
  const deal = () => toDeal(problem, compiled, search.best, weighed);
  yield { part: 0, best: deal() }; // anyone who has enough already takes this
  if (steps > 0 && weighed.length > 0 && search.canMove) {
    for (let report = 0; report < reports; report += 1) {
      search.run(
        Math.round(steps / reports),
        heat * (1 - report / reports),
        heat * (1 - (report + 1) / reports),
      );
      if (search.isPerfect) break;
      yield { part: (report + 1) / reports, best: deal() };
    }
    for (const _round of search.polish()) yield { part: 1, best: deal() };
  }
  return { ok: true, deal: deal() };
}

/** Of what a deal from nothing begins with: more would only undo what is good already. */
const heatOfImproving = 0.3;
/** Between the seeds of two looks; no seed that people type is so far from another. */
const apart = 1_000_003;

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

import type { EnrolmentId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { dealing, looksOf } from './deal.js';
import type { DealProblem } from './problem.js';
import type { DealtStudent } from './students.js';
import { isWish } from './wishes.js';
import { outcomesOf } from './report.js';
import type { Outcome } from './report.js';
import type { Deal } from './weigh.js';

/** Something without which a rule would have been met better. */
export interface Hindrance {
  /** Its place among the rules, or those of two that are in the way only together; `pins`: that some stay where they are; `locks`: that groups are locked. */
  readonly by: number | readonly [number, number] | 'pins' | 'locks';
  /** What the rule would reach without it. */
  readonly outcome: Outcome;
  /** Who would be left short no more, in the order of the class. */
  readonly spared: readonly EnrolmentId[];
}

export interface Why {
  readonly rule: number;
  /** What the rule would reach if nothing else were wished; what must hold still holds. */
  readonly alone: Outcome;
  /** What stands in its way most, first. */
  readonly hindrances: readonly Hindrance[];
}

/** Of one trial. */
const stepsPerStudent = 1_200;
const studentsAtFullEffort = 200;
/** Of two rules that may be in the way only together. */
const mostPairs = 10;

/** Finds out why a deal leaves a rule short: the class is dealt on from where it is without each of the other rules, without the pins, and, where none of these
 * is in the way by itself, without any two rules. What the same looking finds with all rules is chance, and no hindrance. A generator, as a deal is. */
export function* askWhy(
  problem: DealProblem,
  deal: Deal,
  rule: number,
): Generator<{ readonly part: number }, Why> {
  const now = sure(outcomesOf(problem, deal)[rule]);
  const own = sure(problem.rules[rule]);
  const locked = new Set(problem.groups.filter((group) => group.isLocked).map((group) => group.id));
  const isHeld = ({ fixedIn }: DealtStudent) => fixedIn !== null && locked.has(fixedIn);
  const freed = (whom: (student: DealtStudent) => boolean) =>
    problem.students.map((student) => (whom(student) ? { ...student, fixedIn: null } : student));
  const isPinned = (student: DealtStudent) => student.fixedIn !== null && !isHeld(student);
  const others = problem.rules.flatMap((_, at) => (at === rule ? [] : [at]));
  const without = (...these: readonly number[]): DealProblem => ({
    ...problem,
    rules: problem.rules.filter((_, at) => !these.includes(at)),
  });
  const trials: Trial[] = [
    { by: 'chance', problem },
    {
      by: 'wishes',
      problem: { ...problem, rules: problem.rules.filter((each) => each === own || !isWish(each)) },
    },
    ...others.map((by) => ({ by, problem: without(by) })),
    ...(problem.students.some(isPinned)
      ? [{ by: 'pins' as const, problem: { ...problem, students: freed(isPinned) } }]
      : []),
    ...(locked.size > 0 ? [{ by: 'locks' as const, problem: unlocked(problem, freed(isHeld)) }] : []),
  ];
  const pairs = others
    .flatMap((one, at) => others.slice(at + 1).map((other): [number, number] => [one, other]))
    .slice(0, mostPairs)
    .map((by) => ({ by, problem: without(...by) }));
  // A large class is dealt quickly many times rather than well a few times.
  const count = Math.max(1, problem.students.length);
  const usual = looksOf(problem);
  const quick = Math.min(1, (stepsPerStudent * count) / (usual.looks * usual.steps));
  const effort = quick * Math.min(1, studentsAtFullEffort / count);
  let byChance = now;
  let alone = now;
  const hindrances: Hindrance[] = [];
  const hasHard = others.some((at) => !isWish(sure(problem.rules[at])));
  const all = trials.length + pairs.length;
  for (const [done, { by, problem: trial }] of [...trials, ...pairs].entries()) {
    const isPair = done >= trials.length;
    const mayGain = hasHard || alone.part > byChance.part;
    if (isPair && (hindrances.some((each) => typeof each.by !== 'object') || !mayGain)) break;
    const run = dealing({ ...trial, effort, from: deal.seats });
    let next = run.next();
    for (; !next.done; next = run.next()) yield { part: (done + next.value.part) / all };
    if (!next.value.ok) continue; // without the pins, say, two may be together who must not be
    const outcome = sure(outcomesOf(trial, next.value.deal)[trial.rules.indexOf(own)]);
    if (by === 'chance') byChance = better(now, outcome);
    else if (by === 'wishes') alone = better(byChance, outcome);
    else if (outcome.part > byChance.part) {
      const [was, is] = [new Set(now.concerned), new Set(outcome.concerned)];
      const spared = problem.students.flatMap(({ id }) => (was.has(id) && !is.has(id) ? [id] : []));
      hindrances.push({ by, outcome, spared });
    }
  }
  return { rule, alone, hindrances: hindrances.sort((a, b) => b.outcome.part - a.outcome.part) };
}

interface Trial {
  /** Left out of it: a hindrance, perhaps; `wishes`: all else that is only wished; `chance`: nothing. */
  readonly by: Hindrance['by'] | 'wishes' | 'chance';
  readonly problem: DealProblem;
}

const better = (one: Outcome, other: Outcome): Outcome => (other.part > one.part ? other : one);

const unlocked = (problem: DealProblem, students: readonly DealtStudent[]): DealProblem => ({
  ...problem,
  students,
  groups: problem.groups.map((group) => ({ ...group, isLocked: false })),
});

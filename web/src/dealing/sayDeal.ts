import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { Deal, Outcome } from '@jigsaw/core/dealing';
import { sure } from '@jigsaw/core/lists';
import { sayForecast } from '@jigsaw/core/sets';
import { counted } from '@jigsaw/core/text';
import { membersIn } from './DealCards.js';
import type { Seats } from './dealProblem.js';

/** "12 groups of 4", and how many find no place. */
export function saySizes(board: BoardView, seats: Seats): string {
  const sizes = board.groups.map((group) => membersIn(board, seats, group.id).length).sort((a, b) => b - a);
  const unseated = board.students.length - sizes.reduce((sum, size) => sum + size, 0);
  return `${sayForecast(sizes)}${unseated === 0 ? '' : `; ${unseated} without a place`}`;
}

/** "Better on 3 rules, worse on none" */
export function sayHeld(outcomes: readonly Outcome[], others: readonly Outcome[]): string {
  const count = (of: (one: Outcome, other: Outcome) => boolean) =>
    outcomes.filter((one, at) => others[at] && of(one, others[at])).length;
  const [better, worse] = [
    count((one, other) => one.part > other.part),
    count((one, other) => one.part < other.part),
  ];
  if (better + worse === 0) return 'Alike on every rule';
  return `Better on ${counted(better, 'rule')}, worse on ${worse === 0 ? 'none' : worse}`;
}

/** How good it is, as a teacher would say it. */
export function sayQuality({ objective, bound, reached }: Deal, isStopped: boolean): string {
  if (reached.length === 0) return 'No rules, so the deal is random.';
  if (objective <= bound + 1e-6) return 'This is the best possible deal for these rules.';
  return isStopped ? 'Stopped early. A better deal may exist.' : 'This is the best deal found so far.';
}

/** The same as a figure, for those who want the proof. */
export function sayProof({ objective, bound }: Deal): string {
  if (objective <= bound + 1e-6) return 'Proven: no deal meets these rules better.';
  // Chance costs about 1 more than the bound; so much of that is left.
  const left = Math.round(Math.min(1, objective - bound) * 100);
  return `0 % is a random deal, 100 % the proven limit that no deal can pass. This deal reaches ${100 - left} %.`;
}

/** How near one rule came to what is proven that no deal can pass. */
export function sayLimit({ gap, most, isBest, of }: Outcome): string {
  if (isBest) return 'no deal does better';
  if (most !== null) return `at most ${most} of ${of} can be reached`;
  return gap === null ? 'always kept' : `${Math.round(Math.max(0, 1 - gap) * 100)} % of the way to the limit`;
}

/** How much a rule matters, in a word: what must hold, and the wishes by their order. */
export function importanceOf(rules: readonly DealRule[], at: number): string {
  if (isKept(sure(rules[at]))) return 'Must';
  const before = rules.slice(0, at).filter((rule) => !isKept(rule)).length;
  return ['Most important', 'Important', 'Less important'][before] ?? 'If possible';
}
const isKept = (rule: DealRule) => rule.kind === 'together' || rule.kind === 'apart';

/** What of it cannot be had, where that is proven. */
export function sayReach({ part, of, met, most, isBest }: Outcome): string {
  if (part >= 1) return '';
  if (isBest) return met + 1 === of ? `${of} cannot be reached` : `more than ${met} cannot be reached`;
  return most !== null && most < of ? `more than ${most} cannot be reached` : '';
}

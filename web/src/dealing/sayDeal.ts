import type { BoardView } from '@jigsaw/contract/placing';
import type { Deal, Outcome } from '@jigsaw/core/dealing';
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

/** What is known of how good it is. */
export function sayQuality({ objective, bound, reached }: Deal, isStopped: boolean, seed: number): string {
  const end = `Seed ${seed}.`;
  if (reached.length === 0) return `No wish to meet: dealt at random. ${end}`;
  const short = isStopped ? 'Stopped early. ' : '';
  if (objective <= bound + 1e-6) return `${short}Proven best: no deal meets these wishes better. ${end}`;
  // Chance costs about 1 more than the bound; so much of that is left.
  const left = Math.round(Math.min(1, objective - bound) * 100);
  return `${short}Best found: ${100 - left} % of the way from chance to what is proven to be the limit. ${end}`;
}

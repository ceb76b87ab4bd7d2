export { sayClash } from './clash.js';
export type { Clash } from './clash.js';
export { dealAll, dealing } from './deal.js';
export type { Deal, Dealing, Dealt, Reached } from './deal.js';
export { spreadIncrease } from './latecomer.js';
export { outcomesOf } from './report.js';
export type { Outcome } from './report.js';
export type { DealProblem, DealtInto, DealtStudent, EarlierSet, Rule, Wish } from './problem.js';
export { isWish } from './problem.js';

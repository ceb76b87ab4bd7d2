export { changesBetween, sayChange, sayGiven } from './given.js';
export type { Difference, GivenMark, MarkChange } from './given.js';
export { draftedBetween, draftedTogether, sayDrafted } from './history.js';
export type { Drafted } from './history.js';
export { personMark, roundMark } from './personMark.js';
export type { Adjustment, MarkStep, PersonMark, PersonMarkInput } from './personMark.js';
export { isOverride, levelOf, markFrom, mostOf, rubricMark } from './rubric.js';
export type { Criterion, Level, MarkSource, Pick, Picks, Rubric } from './rubric.js';
export {
  cellOf,
  changesSince,
  copiesToTell,
  excessIn,
  isStale,
  markState,
  markToGive,
  memberMark,
  missingIn,
  needsMarking,
  netMark,
  sayMissing,
  unitMark,
} from './sheet.js';
export { readPoints } from './typed.js';
export type { TypedPoints } from './typed.js';
export type {
  Cell,
  CellState,
  CreditedCopy,
  Excess,
  BegunSheet,
  KeptSheet,
  MarkSheet,
  MarkState,
  OwnLateness,
  Missing,
} from './sheet.js';

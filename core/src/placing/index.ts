export {
  apply,
  countMembers,
  groupNumberTyped,
  inverse,
  lead,
  movesOut,
  movesTo,
  swap,
} from './placement.js';
export type { Conflict, Held, Move, Place, Placed, Placement, Seat } from './placement.js';
export { dealOut, emptiest } from './dealOut.js';
export type { DealtGroup, DealtOut } from './dealOut.js';
export { sayNoPlace, signUpState, whyNoPlace } from './signUp.js';
export type { NoPlace, SignUp, SignUpState, WantedPlace } from './signUp.js';
export { groupFileColumns, groupFileLines, readGroupFile, sayGroupFileProblem } from './groupFile.js';
export type { GroupFile, GroupFileColumns, GroupFileProblem, NamedGroup, NamedStudent } from './groupFile.js';
export { meterOf, sizeMeter } from './balance.js';
export type { Bar, MeasuredGroup, Meter } from './balance.js';
export { whereTheyFit } from './fit.js';
export type { Fit, FittingGroup } from './fit.js';

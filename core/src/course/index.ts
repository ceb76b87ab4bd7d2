export {
  days,
  fitsKind,
  guessKind,
  halfDays,
  halfDaysSaid,
  readHalfDays,
  readNumber,
  writeHalfDays,
} from './attributes.js';
export type { AttributeKind, HalfDay } from './attributes.js';
export { meansOfGroups } from './nearMean.js';
export type { MeanOfGroup } from './nearMean.js';
export { inNameOrder } from './nameOrder.js';
export { isAddress, sameAddress, sortName, tidyAddress } from './person.js';
export { may } from './roles.js';
export type { Act } from './roles.js';
export type { Role, Viewer } from './viewer.js';

export { isAnswered, laterMs, stopAnswers, subjectOf, upToOf } from './answers.js';
export type { StopAnswer, StopSubject } from './answers.js';
export {
  daysShown,
  inOrderOfNeed,
  minutesFor,
  needCodes,
  scoreOf,
  scoreOfRoom,
  silentMs,
  soonMs,
  stopsWithin,
} from './needs.js';
export type { Need } from './needs.js';

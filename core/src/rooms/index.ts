export {
  daysShown,
  inOrderOfNeed,
  minutesFor,
  scoreOf,
  scoreOfRoom,
  silentMs,
  soonMs,
  stopsWithin,
} from './needs.js';
export type { Need } from './needs.js';

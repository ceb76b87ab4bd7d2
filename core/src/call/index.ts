export { callFacts, callRules } from './kind.js';
export type { CallAct } from './kind.js';
export { absentAfterMs, daysOf, endOf, lasting } from './visits.js';
export type { DayOfCall, Visit } from './visits.js';

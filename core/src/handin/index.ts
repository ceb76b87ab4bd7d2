export { lateness, noLatePolicy, sayMinutes } from './lateness.js';
export type { LatePolicy, Lateness } from './lateness.js';

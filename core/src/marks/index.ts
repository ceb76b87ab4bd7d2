export { personMark, roundMark } from './personMark.js';
export type { Adjustment, MarkStep, PersonMark, PersonMarkInput } from './personMark.js';

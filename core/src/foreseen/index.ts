export { differencesOf } from './differences.js';
export type { Difference, Held } from './differences.js';
export { sayDifference } from './sayDifference.js';

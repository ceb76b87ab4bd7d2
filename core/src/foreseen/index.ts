export { differencesOf } from './differences.js';
export type { Difference, Held } from './differences.js';
export { foldAlike } from './foldAlike.js';
export type { Folded, Told } from './foldAlike.js';
export { sayDifference } from './sayDifference.js';

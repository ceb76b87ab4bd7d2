export { applyChanges, compare, countChanges } from './compare.js';
export type { Change } from './compare.js';
export { wikiRules } from './rules.js';
export type { WikiAct } from './rules.js';
export { wikiFacts } from './kind.js';
export { keepBoth } from './keepBoth.js';

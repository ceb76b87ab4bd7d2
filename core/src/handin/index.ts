export { lateness, noLatePolicy, sayLatePolicy, sayMinutes } from './lateness.js';
export type { Lateness, LatePolicy } from './lateness.js';
export { checkFile, endingOf, handInActs, sayFileRefusal } from './fileRules.js';
export type { Attempts, FileRefusal, HandInAct, HandInBy, HandInRules, OfferedFile } from './fileRules.js';
export { assignmentFacts, folderFacts, mostOfHandIns } from './kind.js';

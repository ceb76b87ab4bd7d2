export { HandInModule } from './handin.module.js';
export { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';
export { groupTags, membersById, membersOf, WorkReader } from './work.js';
export type { WorkSummary } from './work.js';

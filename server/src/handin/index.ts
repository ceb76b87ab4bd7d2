export { HandInModule } from './handin.module.js';
export { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';

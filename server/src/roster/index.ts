export { Joining, rewrite } from './joining.js';
export type { Rewritten } from './joining.js';
export { RosterModule } from './roster.module.js';
export { RosterChangeRow } from './roster.rows.js';

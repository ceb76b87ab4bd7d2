export { countActivities } from './activityCounts.js';
export { plainDecimal, plainDecimalOrNull } from './decimals.js';
export { dueOf, Gate, hearersOf, isOut, lockCopy, releaseOf } from './gate.js';
export type { CopyAccess, Listed } from './gate.js';
export { Kinds, lateOf, onTime } from './kinds.js';
export type { ActivityKind, Asked, Evidence, Opening, Unit, UnitWork } from './kinds.js';
export { membersOfCopies } from './members.js';
export { ReleaseModule } from './release.module.js';
export { ActivityRow, CopyRow, ExtensionRow, ReleaseRow } from './release.rows.js';

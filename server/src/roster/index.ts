export { RosterModule } from './roster.module.js';
export { CourseRow, EnrolmentRow, RosterChangeRow } from './roster.rows.js';
export { attributesOf, chosenKinds } from './attributes.js';
export { Joining, rewrite } from './joining.js';
export type { Rewritten } from './joining.js';
export { NewGroups } from './newGroups.js';
export type { MadeGroups } from './newGroups.js';
export { Viewers } from './viewers.js';

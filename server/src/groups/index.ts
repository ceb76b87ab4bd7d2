export { GroupsModule } from './groups.module.js';
export { GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';

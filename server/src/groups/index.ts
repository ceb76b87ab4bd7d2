export { GroupsModule } from './groups.module.js';
export { GroupLeadRow, GroupRow, GroupSetRow, MembershipRow } from './groups.rows.js';
export { authorsById, groupTags } from './people.js';

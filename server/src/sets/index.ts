export {
  areGroupsOfSet,
  groupRows,
  groupsOfSets,
  lockSet,
  setOf,
  setOfCourse,
  setsOfCourse,
} from './lookups.js';
export { SetHearers } from './setHearers.js';
export type { ChangingSet, MadeGroups, RemovedGroup, SetHearer } from './setHearers.js';
export { SetMaking } from './setMaking.js';
export { SetsModule } from './sets.module.js';
export { GroupLeadRow, GroupRow, GroupSetRow } from './sets.rows.js';
export { groupsOfSet, setView, SetViews } from './setViews.js';
export { groupsForMembers, groupTags, inOrderOf } from './tags.js';

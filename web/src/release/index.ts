export { stateOf } from './activityList.js';
export { KindIcon } from './KindIcon.js';
export { ExtendSheet } from './ExtendSheet.js';
export {
  backToWas,
  useChangeReachMutation,
  useListActivitiesQuery,
  useReadActivityQuery,
} from './releaseApi.js';
export { HowMany, NarrowBy } from './NarrowBy.js';
export { leaveOut, toggleGroup, withPerson } from './releaseTarget.js';
export type { ReleaseTarget } from './releaseTarget.js';
export { stateLook, stateWords } from './states.js';

export { stateOf } from './activityList.js';
export { KindIcon } from './KindIcon.js';
export { useListActivitiesQuery } from './releaseApi.js';
export { stateLook, stateWords } from './states.js';

export { api, pageId, tagTypes } from './api.js';
export { isAway, isProblem, problemOf, unshown } from './problem.js';
export { apiAddress, practiceAddress, practises, sitInAddress, sitInBase, sitsIn } from './sitIn.js';
export { ProblemStrip } from './ProblemStrip.js';
export { useShareSent } from './sendingState.js';
export { sessionResumed } from './sessionState.js';
export { makeStore } from './store.js';
export type { RootState } from './store.js';

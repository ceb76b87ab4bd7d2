export { api, pageId } from './api.js';
export { isProblem, problemOf } from './problem.js';
export { ProblemStrip } from './ProblemStrip.js';
export { sessionResumed } from './sessionState.js';
export { makeStore } from './store.js';
export type { RootState } from './store.js';

export { fillIn, placeholdersIn, wordsToFill } from './fillIn.js';
export type { Filled } from './fillIn.js';
export { readsThread } from './readsThread.js';
export type { ThreadFacts } from './readsThread.js';

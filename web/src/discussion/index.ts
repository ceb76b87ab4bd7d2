export { discussionKind } from './kinds.js';

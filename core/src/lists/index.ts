export { groupedBy, keyedBy, only } from './lists.js';
export { sure } from './sure.js';

export { groupedBy, keyedBy, only, shifted } from './lists.js';
export { sure } from './sure.js';

export { groupedBy, keyedBy, only } from './lists.js';

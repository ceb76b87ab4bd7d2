export { groupedBy, keyedBy } from './lists.js';

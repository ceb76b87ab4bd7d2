export { RubricTable } from './RubricTable.js';

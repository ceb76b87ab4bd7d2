export { Notes } from './Notes.js';

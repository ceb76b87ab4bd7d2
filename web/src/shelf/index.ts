export { Shelf } from './Shelf.js';

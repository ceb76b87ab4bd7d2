export { OwnFilesPart } from './OwnFilesPart.js';

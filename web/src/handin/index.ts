export { HandedInWork, PartView } from './Work.js';

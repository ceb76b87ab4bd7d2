export { mostBytes, mostFiles, mostVersions, putOn, sayRefusal } from './shelf.js';
export type { Shelved } from './shelf.js';

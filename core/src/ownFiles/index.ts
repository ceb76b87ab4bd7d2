export { mostVersions, ownFileRules, originalsOf } from './ownFiles.js';
export type { OwnFileAct } from './ownFiles.js';

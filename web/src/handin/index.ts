export { assignmentKind, folderKind } from './kinds.js';

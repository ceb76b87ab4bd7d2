export { resourceKind } from './kinds.js';

export { callKind } from './kinds.js';

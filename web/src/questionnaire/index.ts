export { questionnaireKind } from './kinds.js';

export { wikiKind } from './kinds.js';

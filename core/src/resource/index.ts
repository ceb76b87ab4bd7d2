export { resourceFacts } from './kind.js';

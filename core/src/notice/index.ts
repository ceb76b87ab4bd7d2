export { noticeFacts, noticeTalk } from './kind.js';

export { noticeKind } from './kinds.js';

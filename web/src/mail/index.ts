export { InviteSheet } from './InviteSheet.js';
export { WriteSheet } from './WriteSheet.js';

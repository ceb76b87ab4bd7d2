export { InviteSheet } from './InviteSheet.js';

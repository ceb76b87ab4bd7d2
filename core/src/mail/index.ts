export { invitation } from './invitation.js';
export type { Invited, MailText } from './invitation.js';

export { invitation } from './invitation.js';
export { message } from './message.js';
export type { Invited, MailText } from './invitation.js';

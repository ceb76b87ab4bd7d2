export { invitation } from './invitation.js';
export { placeCameFree } from './placeCameFree.js';
export { message } from './message.js';
export { linkAsked, passwordChosen } from './links.js';
export type { Invited, MailText } from './invitation.js';

export { useReadSessionQuery, useSignOutMutation } from './identityApi.js';
export { MailLinkButton } from './MailLinkButton.js';
export { OpenSessions } from './OpenSessions.js';
export { RequireSession } from './RequireSession.js';

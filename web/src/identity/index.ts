export { useReadSessionQuery, useSignOutMutation } from './identityApi.js';
export { MailLinkButton } from './MailLinkButton.js';
export { RequireSession } from './RequireSession.js';

export { useReadSessionQuery, useSignOutMutation } from './identityApi.js';
export { RequireSession } from './RequireSession.js';

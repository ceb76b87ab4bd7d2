export { useSignOutMutation } from './identityApi.js';
export { RequireSession } from './RequireSession.js';

export { useInviteMutation } from './mailApi.js';

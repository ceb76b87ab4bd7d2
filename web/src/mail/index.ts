export { useInviteMutation } from './mailApi.js';
export { WriteSheet } from './WriteSheet.js';

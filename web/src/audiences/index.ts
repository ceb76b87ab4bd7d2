export { useListAudiencesQuery } from './audiencesApi.js';
export { sayReach } from './sayReach.js';

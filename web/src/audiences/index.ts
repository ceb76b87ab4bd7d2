export { useListAudiencesQuery } from './audiencesApi.js';
export { sayReach } from './sayReach.js';
export { useAudienceFilter } from './useAudienceFilter.js';

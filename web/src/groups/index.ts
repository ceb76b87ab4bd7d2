export { useListGroupSetsQuery } from './groupsApi.js';

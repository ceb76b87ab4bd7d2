export { useListGroupSetsQuery, usePlaceStudentsMutation } from './groupsApi.js';

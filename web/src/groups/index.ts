export { useListGroupSetsQuery, useListSignUpsQuery, usePlaceStudentsMutation } from './groupsApi.js';

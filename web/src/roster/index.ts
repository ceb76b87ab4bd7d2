export { useListCoursesQuery, useReadRosterQuery } from './rosterApi.js';

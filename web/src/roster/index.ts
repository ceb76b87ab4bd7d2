export { useListCoursesQuery } from './rosterApi.js';

export { useListCoursesQuery } from './coursesApi.js';
export { useCourse } from './useCourse.js';

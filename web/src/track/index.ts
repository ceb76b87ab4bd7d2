export { CourseShell, FirstStation } from './CourseShell.js';
export { useCourse } from './course.js';

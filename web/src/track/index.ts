export { CourseShell, FirstStation } from './CourseShell.js';

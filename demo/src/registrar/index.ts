export { School } from './school.js';
export type { Enrolled, SchoolCourse } from './school.js';
export { openRegistrar } from './standIn.js';

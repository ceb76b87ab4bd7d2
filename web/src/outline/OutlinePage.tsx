import { useCourse } from '../course/index.js';
import { OutlineForStaff } from './OutlineForStaff.js';
import { OutlineForStudents } from './OutlineForStudents.js';

/** The activities of a course in their order, under headings: the same address for all. */
export function OutlinePage() {
  const { course } = useCourse();
  return course.role === 'student' ? <OutlineForStudents /> : <OutlineForStaff />;
}

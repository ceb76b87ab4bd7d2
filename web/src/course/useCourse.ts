import { useOutletContext } from 'react-router';
import type { CourseView } from '@jigsaw/contract/course';
import { datesIn } from '../look/index.js';
import type { Dates } from '../look/index.js';

/** The course of the page and how it writes times. */
export function useCourse(): { course: CourseView; dates: Dates } {
  const course = useOutletContext<CourseView>();
  return { course, dates: datesIn(course.timeZone) };
}

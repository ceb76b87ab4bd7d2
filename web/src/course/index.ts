export { useListCoursesQuery } from './coursesApi.js';
export {
  figuresApi,
  useReadFiguresQuery,
  useCountChecksQuery,
  useCountMessagesQuery,
  checkedBy,
} from './figuresApi.js';
export { NewCourse } from './NewCourse.js';
export { useReadRosterQuery } from './rosterQuery.js';
export { cameFromKey, rememberWay, sitIn, SitInLink, useMaySitIn } from './SitInLink.js';
export { TimeZoneField } from './TimeZoneField.js';
export { useCourse } from './useCourse.js';

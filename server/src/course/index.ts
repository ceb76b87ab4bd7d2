export { AttributeNames } from './attributeNames.js';
export type { RenamedAttribute } from './attributeNames.js';
export { attributesOf, chooseKind, chosenKinds } from './attributes.js';
export { CoursesService } from './courses.service.js';
export { CourseModule } from './course.module.js';
export { CourseRow, EnrolmentRow } from './course.rows.js';
export {
  areEnrolled,
  areTeaching,
  countStudents,
  courseOf,
  enrol,
  follow,
  giveToAccounts,
  enrolledElsewhere,
  knownHereAlone,
  leave,
  lockCourse,
  markListed,
  openTo,
  unenrol,
  updateEnrolments,
} from './enrolments.js';
export { makePracticeStudent, practiceStudentOf, startPracticeRound } from './practice.js';
export { authorsById, peopleOf, toldApart } from './people.js';
export { refuseUnless, Viewers } from './viewers.js';

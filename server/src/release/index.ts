export { asNews, editionsOf } from './announced.js';
export { hearersOf, hearersOfMark, hearersOfRelease } from './hearers.js';
export { Copies, practiceCopies } from './copies.js';
export { copiesInView } from './copiesInView.js';
export { ActivitiesService, toTeachers } from './activities.service.js';
export { ReleaseService } from './release.service.js';
export { activityIdsOf } from './activityIds.js';
export type { ActivityIds } from './activityIds.js';
export { countActivities } from './activityCounts.js';
export { plainDecimal, plainDecimalOrNull } from './decimals.js';
export { withContent } from './content.js';
export { asIf, Gate, holdActivity, lockCopies, lockCopy, releaseOf } from './gate.js';
export { datesOf, dueOf, isOut, isOutForAll, lastDueOf, nextDue } from './dates.js';
export type { CopyAccess, Listed } from './gate.js';
export { Kinds, lateOf, onTime } from './kinds.js';
export type { ActivityKind, Asked, Evidence, OpenQuestions, Opening, Unit, UnitWork } from './kinds.js';
export type { Evaluator } from './evaluate.js';
export { membersOfCopies } from './members.js';
export { writtenOfCourse } from './writtenOfCourse.js';
export { idsOfActivity, subjectsOfReleases, titlesOfActivities } from './subjects.js';
export type { SubjectOfRelease } from './subjects.js';
export { releasesOfCourse } from './releasesOfCourse.js';
export type { ActivityOfCourse } from './releasesOfCourse.js';
export { ReleaseModule } from './release.module.js';
export {
  ActivityRow,
  ActivityFileRow,
  AnnouncedRow,
  CopyRow,
  ExtensionRow,
  ReleaseRow,
  StudentExtensionRow,
} from './release.rows.js';

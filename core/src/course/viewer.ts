import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';

export type Role = 'instructor' | 'assistant' | 'student' | 'observer';

/** The person who asks, as far as a course is concerned. Built once a request. */
export interface Viewer {
  readonly courseId: CourseId;
  readonly enrolmentId: EnrolmentId;
  readonly role: Role;
  /** Dropped from the course: sees nothing of it any more. */
  readonly hasLeft: boolean;
  /** Groups they are a member of now. */
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  /** Groups they lead as staff. */
  readonly leads: readonly GroupId[];
  /** An assistant in a course that shows assistants the work of the groups they lead, and of no others. */
  readonly seesOnlyLed: boolean;
}

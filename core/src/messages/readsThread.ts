import type { Viewer } from '../course/index.js';
import { may } from '../course/index.js';
import type { EnrolmentId, GroupId } from '../ids/index.js';

/** Who a thread of messages is between: one person and staff, or a group and staff. */
export type ThreadFacts = { readonly startedBy: EnrolmentId } & (
  | {
      readonly withId: EnrolmentId;
      readonly isWithStudent: boolean;
      /** Where that person sits now. */
      readonly theirGroups: readonly GroupId[];
    }
  | { readonly withId: null; readonly groupId: GroupId }
);

/** Whether someone reads a thread, and writes in it: the person it is with, or the members of its group. Of staff, instructors do, and
 * assistants who began it or lead a group of that student; a group's thread is read by all staff who write to people and see its work. */
export function readsThread(viewer: Viewer, thread: ThreadFacts): boolean {
  const { role, enrolmentId, leads, seesOnlyLed, hasLeft } = viewer;
  if (hasLeft) return false;
  if (thread.withId === enrolmentId) return true;
  const isStaff = may(role, 'write-to-people');
  if (thread.withId === null) {
    if (isStaff) return !seesOnlyLed || leads.includes(thread.groupId);
    return role === 'student' && viewer.groups.some(({ groupId }) => groupId === thread.groupId);
  }
  if (!isStaff) return false;
  if (thread.startedBy === enrolmentId) return true;
  return (
    thread.isWithStudent &&
    (role === 'instructor' || thread.theirGroups.some((groupId) => leads.includes(groupId)))
  );
}

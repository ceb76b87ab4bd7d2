import type { Act, Viewer } from '../course/index.js';
import { may } from '../course/index.js';
import type { CopyId, EnrolmentId, GroupId, GroupSetId, ReleaseId } from '../ids/index.js';
import { reachesGroup } from './audience.js';
import { atLeast, decide } from './decide.js';
import type { CopyFacts, Instant, ReleaseFacts } from './facts.js';

/** What a change concerns. That something changed is told to anyone who may read it, and never what: anyone who hears asks, and is answered as always. */
export interface Concerns {
  /** Members of these groups, of any group of these sets, these people, or everyone in the course. */
  readonly groupIds: readonly GroupId[];
  readonly setIds: readonly GroupSetId[];
  readonly enrolmentIds: readonly EnrolmentId[];
  readonly isForAll: boolean;
  /** All staff who may do this; null: no staff but those who may read the copies. */
  readonly staff: Act | null;
  /** Of these staff only those who see this group's work; null: all of them. */
  readonly staffOf: GroupId | null;
  /** Anyone who may read these, and no one else. */
  readonly copies: ConcernedCopies | null;
}

export interface ConcernedCopies {
  readonly releaseId: ReleaseId;
  /** null: all of its copies, and that it exists at all. */
  readonly copyIds: readonly CopyId[] | null;
  /** Whose it is alone, where each student hands in for themselves: teammates have no part in it. */
  readonly ownerId: EnrolmentId | null;
  /** Students see nothing. */
  readonly isForStaffOnly: boolean;
  /** It was with students until now: anyone who could read it then hears that it is gone. */
  readonly wasOut: boolean;
}

/** The release and those of its copies that a change concerns, as they are now. */
export interface CopiesInView {
  readonly release: ReleaseFacts;
  readonly copies: readonly CopyFacts[];
}

/** Whether someone hears of a change; the same decision as for reading it.
 * @param inView what `concerns.copies` names; null: it is gone, or nothing is named.
 * @param now milliseconds, UTC. */
export function hears(
  viewer: Viewer,
  concerns: Concerns,
  inView: CopiesInView | null,
  now: Instant,
): boolean {
  if (viewer.hasLeft) return false;
  if (concerns.staff !== null && may(viewer.role, concerns.staff) && seesWorkOf(viewer, concerns.staffOf))
    return true;
  if (concerns.copies && inView && readsAny(viewer, concerns.copies, inView, now)) return true;
  return (
    concerns.isForAll ||
    concerns.enrolmentIds.includes(viewer.enrolmentId) ||
    viewer.groups.some(
      (group) => concerns.groupIds.includes(group.groupId) || concerns.setIds.includes(group.setId),
    )
  );
}

const seesWorkOf = ({ role, seesOnlyLed, leads }: Viewer, groupId: GroupId | null): boolean =>
  may(role, 'read-course') && (groupId === null || !seesOnlyLed || leads.includes(groupId));

function readsAny(
  viewer: Viewer,
  { copyIds, ownerId, isForStaffOnly, wasOut }: ConcernedCopies,
  { release, copies }: CopiesInView,
  now: Instant,
): boolean {
  const isStudent = viewer.role === 'student';
  if (isStudent && (isForStaffOnly || (ownerId !== null && ownerId !== viewer.enrolmentId))) return false;
  const facts: ReleaseFacts = wasOut ? { ...release, state: { state: 'live', since: now } } : release;
  const needed = copyIds === null ? 'listed' : 'read-only';
  return candidates(viewer, facts, copies).some((copy) =>
    atLeast(decide(viewer, facts, copy, now).access, needed),
  );
}

/** A student reads all copies of other groups or none, as far as the release reaches those groups: one of these answers for all of them. */
function candidates(
  viewer: Viewer,
  { audience }: ReleaseFacts,
  copies: readonly CopyFacts[],
): readonly CopyFacts[] {
  if (copies.length < 3 || viewer.role !== 'student') return copies;
  const isTheirs = ({ groupId }: CopyFacts) =>
    groupId === null || viewer.groups.some((group) => group.groupId === groupId);
  const own = copies.filter(isTheirs);
  const others = copies.filter((copy) => !isTheirs(copy));
  const other = others.find((copy) => reachesGroup(audience, copy)) ?? others[0];
  return other ? [...own, other] : own;
}

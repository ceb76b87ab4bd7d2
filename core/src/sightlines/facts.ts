import type { Role, Viewer } from '../course/index.js';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { groupedBy } from '../lists/index.js';
import type { CopyFacts, Instant, ReleaseFacts } from '../release/index.js';

/** Someone of the course, also such as have left. */
export interface SightPerson {
  readonly enrolmentId: EnrolmentId;
  readonly role: Role;
  readonly leftAt: Instant | null;
  readonly leads: readonly GroupId[];
  readonly seesOnlyLed: boolean;
}

/** Where a student sat, and from when until when; null: they still do. */
export interface SightSeat {
  readonly enrolmentId: EnrolmentId;
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
  readonly from: Instant;
  readonly until: Instant | null;
}

export interface SightCopy extends CopyFacts {
  readonly copyId: CopyId;
}

export interface SightActivity {
  readonly activityId: ActivityId;
  /** null: a draft that was never released. */
  readonly release: ReleaseFacts | null;
  readonly copies: readonly SightCopy[];
}

/** All that decides who sees what in a course. */
export interface SightFacts {
  readonly courseId: CourseId;
  readonly people: readonly SightPerson[];
  readonly seats: readonly SightSeat[];
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  readonly activities: readonly SightActivity[];
}

/** Everyone as the decision function wants them at one moment: in the groups in which they sat then. Which groups staff lead is known of now alone. */
export function viewersAt(facts: SightFacts, at: Instant): ReadonlyMap<EnrolmentId, Viewer> {
  const seats = groupedBy(
    facts.seats.filter((seat) => isTaken(seat, at)),
    ({ enrolmentId }) => enrolmentId,
  );
  return new Map(
    facts.people.map(({ enrolmentId, role, leftAt, leads, seesOnlyLed }) => [
      enrolmentId,
      {
        courseId: facts.courseId,
        enrolmentId,
        role,
        hasLeft: leftAt !== null && leftAt <= at,
        groups: (seats.get(enrolmentId) ?? []).map(({ groupId, setId }) => ({ groupId, setId })),
        leads,
        seesOnlyLed,
      },
    ]),
  );
}

export const isTaken = ({ from, until }: SightSeat, at: Instant): boolean =>
  from <= at && (until === null || until > at);

/** A release as it stood at a moment: before it went live it was still to come. What was withdrawn since counts as withdrawn before, too: when it had
 * been released is not kept. */
export function releaseAt(release: ReleaseFacts, at: Instant): ReleaseFacts {
  const { state } = release;
  if ((state.state !== 'live' && state.state !== 'closed') || state.since <= at) return release;
  return { ...release, state: { state: 'scheduled', goesLiveAt: state.since } };
}

import type { Viewer } from '../course/index.js';
import type { ActivityId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { groupedBy } from '../lists/index.js';
import { audiencesOf, isInAudience, reachesGroup } from '../release/index.js';
import type { ReleaseFacts } from '../release/index.js';
import type { Check } from './facts.js';

/** A release that is with people, or will be. */
export interface Released {
  readonly activityId: ActivityId;
  readonly release: ReleaseFacts;
}

export interface Class {
  /** Students who are in the course. */
  readonly students: readonly Viewer[];
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  readonly sizes: ReadonlyMap<GroupId, number>;
}

/** Who something does not reach, though it looks as if it were meant for them. */
export function* checkAudiences(released: readonly Released[], course: Class): Iterable<Check> {
  const groupsOf = groupedBy(course.groups, ({ setId }) => setId);
  const ofSets = new Map<GroupSetId, ActivityId[]>();
  for (const { activityId, release } of released) {
    const { include } = release.audience;
    if (include.some(({ kind }) => kind === 'staff')) continue;
    if (!course.students.some((student) => isInAudience(student, release.audience))) {
      yield { code: 'reaches-no-one', activityId, audienceId: audiencesOf(release.audience)[0] ?? null };
      continue;
    }
    if (include.some(({ kind }) => kind === 'class')) continue;
    for (const entry of include)
      if (entry.kind === 'set') ofSets.set(entry.setId, [...(ofSets.get(entry.setId) ?? []), activityId]);
    // Only a set of which most groups have it looks as if all of them were meant.
    for (const [setId, groups] of groupsOf) {
      const out = groups.filter((group) => !reachesGroup(release.audience, group));
      const peopled = out.filter(({ groupId }) => (course.sizes.get(groupId) ?? 0) > 0);
      if (peopled.length > 0 && groups.length - out.length > out.length)
        yield { code: 'groups-left-out', activityId, setId, groupIds: peopled.map(({ groupId }) => groupId) };
    }
  }
  for (const [setId, activityIds] of ofSets) {
    const students = unplacedIn(course.students, setId);
    if (students.length > 0) yield { code: 'unplaced', setId, students, activityIds };
  }
}

const unplacedIn = (students: readonly Viewer[], setId: GroupSetId): readonly EnrolmentId[] =>
  students.flatMap(({ enrolmentId, groups }) =>
    groups.some((group) => group.setId === setId) ? [] : [enrolmentId],
  );

import type { Viewer } from '../course/index.js';
import type { ActivityId, EnrolmentId, GroupId } from '../ids/index.js';
import { datesFor, isInAudience } from '../release/index.js';
import type { Instant } from '../release/index.js';
import type { SightCopy } from '../sightlines/index.js';
import type { Released } from './audiences.js';
import type { Check } from './facts.js';

const hourMs = 3_600_000;

export interface ReleasedCopies extends Released {
  readonly copies: readonly SightCopy[];
  readonly isWork: boolean;
}

/** Dates that cannot have been meant: over before it begins, or several at once. */
export function* checkDates(
  released: readonly ReleasedCopies[],
  students: readonly Viewer[],
  now: Instant,
): Iterable<Check> {
  for (const { activityId, release, copies } of released) {
    const { state, schedule, ownTime } = release;
    const over = schedule.due === null ? 'closes' : 'due';
    const at = schedule.due ?? schedule.closes;
    if (state.state === 'scheduled' && at !== null && state.goesLiveAt >= at)
      yield { code: 'live-too-late', activityId, goesLiveAt: state.goesLiveAt, over, at };
    const { opens } = schedule;
    if (opens === null) continue;
    for (const { groupId, extension } of copies)
      if (groupId !== null && extension !== null && extension.due < opens)
        yield { code: 'due-before-open', activityId, who: { groupId }, due: extension.due, opens };
    for (const [enrolmentId, { due }] of ownTime)
      if (due < opens) yield { code: 'due-before-open', activityId, who: { enrolmentId }, due, opens };
  }
  yield* dueTogether(released, students, now);
}

interface Due {
  readonly activityId: ActivityId;
  /** Whose copy it is in; null: the one for all. */
  readonly groupId: GroupId | null;
  readonly due: Instant;
}

/** Work that falls due within an hour of other work, from now on, for the students who have to do both. */
function* dueTogether(
  released: readonly ReleasedCopies[],
  students: readonly Viewer[],
  now: Instant,
): Iterable<Check> {
  const work = released
    .filter(({ isWork }) => isWork)
    .map((each) => ({ ...each, ofGroup: new Map(each.copies.map((copy) => [copy.groupId, copy])) }));
  const pairs = new Map<string, { readonly of: readonly [Due, Due]; readonly students: EnrolmentId[]; readonly inGroups: Set<GroupId> }>(); // prettier-ignore
  for (const student of students) {
    const own: Due[] = [];
    for (const { activityId, release, ofGroup } of work) {
      if (!isInAudience(student, release.audience)) continue;
      const granted = release.ownTime.get(student.enrolmentId) ?? null;
      const groupIds = release.mode === 'common' ? [null] : student.groups.map(({ groupId }) => groupId);
      for (const groupId of groupIds) {
        const copy = ofGroup.get(groupId);
        const due = copy && datesFor(release.schedule, copy.extension, granted).due;
        if (due && due >= now) own.push({ activityId, groupId, due });
      }
    }
    own.sort((a, b) => a.due - b.due || a.activityId.localeCompare(b.activityId));
    for (const [at, later] of own.entries()) {
      const earlier = own[at - 1];
      if (!earlier || earlier.activityId === later.activityId || later.due - earlier.due >= hourMs) continue;
      const name = `${earlier.activityId} ${earlier.due} ${later.activityId} ${later.due}`;
      const pair = pairs.get(name) ?? { of: [earlier, later] as const, students: [], inGroups: new Set() };
      pair.students.push(student.enrolmentId);
      for (const { groupId } of [earlier, later]) if (groupId !== null) pair.inGroups.add(groupId);
      pairs.set(name, pair);
    }
  }
  for (const { of, students: who, inGroups } of pairs.values())
    yield { code: 'due-together', activityIds: [of[0].activityId, of[1].activityId], due: [of[0].due, of[1].due], students: who, inGroups: [...inGroups] }; // prettier-ignore
}

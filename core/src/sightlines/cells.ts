import type { Viewer } from '../course/index.js';
import type { EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { atLeast, datesFor } from '../release/index.js';
import type { Decision, Instant, ReleaseFacts } from '../release/index.js';
import type { SightFacts } from './facts.js';
import { releaseAt, viewersAt } from './facts.js';
import type { FoundCopies, Sight } from './sight.js';
import { foundIn, sightOf } from './sight.js';

/** What the members of a group see of an activity.
 * own: their copy, alone; each-other: their copy, and those of the other groups; along: copies of others, to read; common: the one for all; elsewhere: in
 * their groups of another set; listed: that it exists; none: nothing. */
export type SightCode = 'own' | 'each-other' | 'along' | 'common' | 'elsewhere' | 'listed' | 'none';

export interface SightCell {
  readonly code: SightCode;
  /** It is still to come: from when; null: it is there now, or never will be. */
  readonly from: Instant | null;
  /** Members there are, and how many of them see it; those of a group that has none are told as anyone who would be in it. */
  readonly members: number;
  readonly see: number;
  /** How much later than for all this group's work is due, in milliseconds; earlier: below 0; null: with all. */
  readonly laterMs: number | null;
  /** They read it, and change nothing any more. */
  readonly isClosed: boolean;
}

/** Who sees what at one moment: a line for each activity, in it a cell for each group of a set, and last one for the students who are in none of them. */
export function cellsAt(
  facts: SightFacts,
  setId: GroupSetId,
  at: Instant,
): readonly (readonly SightCell[])[] {
  const viewers = viewersAt(facts, at);
  const members = membersOf(viewers);
  const groups = facts.groups.filter((group) => group.setId === setId);
  const unplaced = unplacedIn(viewers, setId);
  return facts.activities.map(({ release, copies }) => {
    const seen = { release, copies: foundIn(copies) };
    return [
      ...groups.map(({ groupId }) => {
        const own = members.get(groupId) ?? [];
        const asked = own.length > 0 ? own : [anyoneIn(facts, groupId, setId)];
        return cellOf(seen, groupId, asked, own.length, at);
      }),
      cellOf(seen, null, unplaced, unplaced.length, at),
    ];
  });
}

/** Students of the course who sit in no group of a set. */
export const unplacedIn = (viewers: ReadonlyMap<EnrolmentId, Viewer>, setId: GroupSetId): readonly Viewer[] =>
  [...viewers.values()].filter(
    ({ role, hasLeft, groups }) =>
      role === 'student' && !hasLeft && !groups.some((group) => group.setId === setId),
  );

/** Students who sit in each group, and are in the course. */
export function membersOf(
  viewers: ReadonlyMap<EnrolmentId, Viewer>,
): ReadonlyMap<GroupId, readonly Viewer[]> {
  const members = new Map<GroupId, Viewer[]>();
  for (const viewer of viewers.values()) {
    if (viewer.hasLeft || viewer.role !== 'student') continue;
    for (const groupId of new Set(viewer.groups.map((group) => group.groupId)))
      members.set(groupId, [...(members.get(groupId) ?? []), viewer]);
  }
  return members;
}

/** Anyone who would be put into a group that no one is in. */
const anyoneIn = ({ courseId }: SightFacts, groupId: GroupId, setId: GroupSetId): Viewer => ({
  courseId,
  enrolmentId: '' as EnrolmentId,
  role: 'student',
  hasLeft: false,
  groups: [{ groupId, setId }],
  leads: [],
  seesOnlyLed: false,
});

const nothing = { code: 'none', from: null, see: 0, laterMs: null, isClosed: false } as const;

function cellOf(
  activity: { readonly release: ReleaseFacts | null; readonly copies: FoundCopies },
  groupId: GroupId | null,
  viewers: readonly Viewer[],
  members: number,
  at: Instant,
): SightCell {
  if (activity.release === null) return { ...nothing, members };
  const release = releaseAt(activity.release, at);
  let best: Sight | null = null;
  let see = 0;
  for (const viewer of viewers) {
    const sight = sightOf(viewer, activity.copies, release, groupId, at);
    if (atLeast(sight.decision.access, 'read-only')) see += 1;
    if (best === null || !atLeast(best.decision.access, sight.decision.access)) best = sight;
  }
  if (best === null) return { ...nothing, members };
  const counted = { members, see: Math.min(see, members) };
  if (atLeast(best.decision.access, 'read-only'))
    return {
      ...counted,
      code: codeOf(best, release, groupId),
      from: null,
      laterMs: laterOf(best, release, groupId),
      isClosed: best.decision.reasons.some(({ code }) => code === 'closed'),
    };
  // What is not there yet is told as it will be when it is.
  const from = comesAt(best.decision);
  const then = from === null ? null : cellOf(activity, groupId, viewers, members, from);
  if (from !== null && then !== null && seesMore(then, best.decision))
    return { ...then, ...counted, from: then.from ?? from };
  return { ...nothing, ...counted, code: best.decision.access === 'listed' ? 'listed' : 'none' };
}

const seesMore = ({ code }: SightCell, { access }: Decision): boolean =>
  code !== 'none' && (code !== 'listed' || access === 'hidden');

/** When what keeps it from someone ends by itself; null: never. */
function comesAt({ reasons }: Decision): Instant | null {
  for (const reason of reasons) {
    if (reason.code === 'scheduled') return reason.goesLiveAt;
    if (reason.code === 'not-open-yet') return reason.opens;
  }
  return null;
}

function codeOf({ copy, decision }: Sight, { mode }: ReleaseFacts, groupId: GroupId | null): SightCode {
  if (decision.part === 'reader') return 'along';
  if (copy === null || copy.groupId === null) return 'common';
  if (copy.groupId !== groupId) return 'elsewhere';
  return mode === 'read-along' ? 'each-other' : 'own';
}

function laterOf({ copy }: Sight, { schedule }: ReleaseFacts, groupId: GroupId | null): number | null {
  if (!copy?.extension || copy.groupId === null || copy.groupId !== groupId || schedule.due === null)
    return null;
  const { due } = datesFor(schedule, copy.extension);
  return due === null || due === schedule.due ? null : due - schedule.due;
}

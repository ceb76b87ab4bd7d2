import type { Viewer } from '../course/index.js';
import { unreachable } from '../ids/index.js';
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

/** Whose sight is asked for: that of a group, of the students who are in no group of a set, of one student, or of the people that a saved audience
 * reaches now. */
export type SightOf =
  | { readonly kind: 'group'; readonly groupId: GroupId; readonly setId: GroupSetId }
  | { readonly kind: 'unplaced'; readonly setId: GroupSetId }
  | { readonly kind: 'person'; readonly enrolmentId: EnrolmentId }
  | { readonly kind: 'people'; readonly people: readonly EnrolmentId[] };

/** Who sees what at one moment: a line for each activity, in it a cell for each of those who are asked for, in their order. */
export function cellsAt(
  facts: SightFacts,
  columns: readonly SightOf[],
  at: Instant,
): readonly (readonly SightCell[])[] {
  const viewers = viewersAt(facts, at);
  const seated = askedFor(viewers, columns);
  const asked = columns.map((of, index) => {
    const own = seated[index] ?? [];
    // Those of an empty group are told as anyone who would be in it.
    const isEmpty = of.kind === 'group' && own.length === 0;
    return { of, members: own.length, viewers: isEmpty ? [anyoneIn(facts, of.groupId, of.setId)] : own };
  });
  return facts.activities.map(({ release, copies }) => {
    const seen = { release, copies: foundIn(copies) };
    return asked.map((each) => cellOf(seen, each, at));
  });
}

/** The students that each of these stands for, as they are in the course at that moment. */
export function askedFor(
  viewers: ReadonlyMap<EnrolmentId, Viewer>,
  columns: readonly SightOf[],
): readonly (readonly Viewer[])[] {
  const members = membersOf(viewers);
  const present = (enrolmentId: EnrolmentId) => {
    const viewer = viewers.get(enrolmentId);
    return viewer && viewer.role === 'student' && !viewer.hasLeft ? [viewer] : [];
  };
  return columns.map((of) => {
    switch (of.kind) {
      case 'group':
        return members.get(of.groupId) ?? [];
      case 'unplaced':
        return unplacedIn(viewers, of.setId);
      case 'person':
        return present(of.enrolmentId);
      case 'people':
        return of.people.flatMap(present);
      default:
        return unreachable(of);
    }
  });
}

/** Students of the course who sit in no group of a set. */
const unplacedIn = (viewers: ReadonlyMap<EnrolmentId, Viewer>, setId: GroupSetId): readonly Viewer[] =>
  [...viewers.values()].filter(
    ({ role, hasLeft, groups }) =>
      role === 'student' && !hasLeft && !groups.some((group) => group.setId === setId),
  );

/** Students who sit in each group, and are in the course. */
function membersOf(viewers: ReadonlyMap<EnrolmentId, Viewer>): ReadonlyMap<GroupId, readonly Viewer[]> {
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

interface Asked {
  readonly of: SightOf;
  readonly members: number;
  readonly viewers: readonly Viewer[];
}

function cellOf(
  activity: { readonly release: ReleaseFacts | null; readonly copies: FoundCopies },
  asked: Asked,
  at: Instant,
): SightCell {
  const { of, members, viewers } = asked;
  if (activity.release === null) return { ...nothing, members };
  const release = releaseAt(activity.release, at);
  let best: Sight | null = null;
  let see = 0;
  for (const viewer of viewers) {
    const sight = sightOf(viewer, activity.copies, release, of.kind === 'group' ? of.groupId : null, at);
    if (atLeast(sight.decision.access, 'read-only')) see += 1;
    if (best === null || !atLeast(best.decision.access, sight.decision.access)) best = sight;
  }
  if (best === null) return { ...nothing, members };
  const counted = { members, see: Math.min(see, members) };
  if (atLeast(best.decision.access, 'read-only'))
    return {
      ...counted,
      code: codeOf(best, release, of),
      from: null,
      laterMs: laterOf(best, release, of),
      isClosed: best.decision.reasons.some(({ code }) => code === 'closed'),
    };
  // What is not there yet is told as it will be when it is.
  const from = comesAt(best.decision);
  const then = from === null ? null : cellOf(activity, asked, from);
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

function codeOf({ copy, decision }: Sight, { mode }: ReleaseFacts, of: SightOf): SightCode {
  if (decision.part === 'reader') return 'along';
  if (copy === null || copy.groupId === null) return 'common';
  const isOfAnother = of.kind === 'unplaced' || (of.kind === 'group' && copy.groupId !== of.groupId);
  if (isOfAnother) return 'elsewhere';
  return mode === 'read-along' ? 'each-other' : 'own';
}

/** What people who are in several groups have in common is no later date. */
function laterOf({ copy }: Sight, { schedule, ownTime }: ReleaseFacts, of: SightOf): number | null {
  if (copy === null || schedule.due === null || of.kind === 'unplaced' || of.kind === 'people') return null;
  if (of.kind === 'group' && copy.groupId !== of.groupId) return null;
  const own = of.kind === 'person' ? (ownTime.get(of.enrolmentId) ?? null) : null;
  const { due } = datesFor(schedule, copy.extension, own);
  return due === null || due === schedule.due ? null : due - schedule.due;
}

import type { GroupId } from '../ids/index.js';
import { unreachable } from '../ids/index.js';
import type { Audience, AudienceEntry, CopyFacts, Instant, ReleaseFacts } from './facts.js';
import type { Viewer } from '../course/index.js';
import { reachesGroup } from './audience.js';
import { datesFor } from './schedule.js';
import { stateAt } from './stateAt.js';

export type Access = 'open' | 'read-only' | 'listed' | 'hidden';

/** One step on the way to a decision: a code with its facts. Sentences are made in explain.ts. */
export type Reason =
  | { readonly code: 'not-in-course' }
  | { readonly code: 'left-course' }
  | { readonly code: 'staff'; readonly role: 'instructor' | 'assistant' }
  | { readonly code: 'leads'; readonly groupId: GroupId }
  | { readonly code: 'leads-others' }
  | { readonly code: 'observer' }
  | { readonly code: 'draft' }
  | { readonly code: 'withdrawn'; readonly since: Instant }
  | { readonly code: 'scheduled'; readonly goesLiveAt: Instant }
  | { readonly code: 'left-out' }
  | { readonly code: 'outside-audience' }
  | { readonly code: 'audience-entry'; readonly entry: AudienceEntry }
  | { readonly code: 'own-copy'; readonly groupId: GroupId }
  | { readonly code: 'other-groups-copy' }
  /** A copy per group, and this person is in none of the groups. */
  | { readonly code: 'no-copy' }
  | { readonly code: 'reads-along' }
  | { readonly code: 'common-copy' }
  | { readonly code: 'not-open-yet'; readonly opens: Instant }
  | { readonly code: 'closed'; readonly since: Instant }
  | { readonly code: 'extended'; readonly due: Instant; readonly isOwn: boolean }
  | { readonly code: 'outsiders-listed' };

/** As what someone is in a copy: one of those whose work it is, staff, or a reader only. */
export type Part = 'member' | 'staff' | 'reader';

export interface Decision {
  readonly access: Access;
  readonly part: Part;
  /** The chain that led here, first step first; never empty. */
  readonly reasons: readonly Reason[];
}

const accessRank = { hidden: 0, listed: 1, 'read-only': 2, open: 3 } satisfies Record<Access, number>;
export const atLeast = (has: Access, needed: Access): boolean => accessRank[has] >= accessRank[needed];

/** What a person may do with one copy of a release (CALC §5). The only place that says who sees what.
 * @param viewer null: no one is signed in, or they are not in any course.
 * @param now milliseconds, UTC. */
export function decide(
  viewer: Viewer | null,
  release: ReleaseFacts,
  copy: CopyFacts,
  now: Instant,
): Decision {
  if (viewer === null || viewer.courseId !== release.courseId) return hidden({ code: 'not-in-course' });
  if (viewer.hasLeft) return hidden({ code: 'left-course' });
  switch (viewer.role) {
    case 'instructor':
      return { access: 'open', part: 'staff', reasons: [{ code: 'staff', role: viewer.role }] };
    case 'assistant':
      return decideForAssistant(viewer, copy);
    case 'observer':
      return release.state.state === 'draft'
        ? hidden({ code: 'draft' })
        : { access: 'read-only', part: 'reader', reasons: [{ code: 'observer' }] };
    case 'student':
      return decideForStudent(viewer, release, copy, now);
    default:
      return unreachable(viewer.role);
  }
}

/** What all work in together, every assistant sees. */
function decideForAssistant(viewer: Viewer, { groupId }: CopyFacts): Decision {
  const isLed = groupId !== null && viewer.leads.includes(groupId);
  if (viewer.seesOnlyLed && groupId !== null && !isLed) return hidden({ code: 'leads-others' });
  const reasons: Reason[] = isLed ? [{ code: 'leads', groupId }] : [{ code: 'staff', role: 'assistant' }];
  return { access: 'open', part: 'staff', reasons };
}

function decideForStudent(viewer: Viewer, release: ReleaseFacts, copy: CopyFacts, now: Instant): Decision {
  const own = release.ownTime.get(viewer.enrolmentId) ?? null;
  const schedule = datesFor(release.schedule, copy.extension, own);
  const state = stateAt(release.state, schedule, now);
  if (state.state === 'draft') return hidden({ code: 'draft' });
  if (state.state === 'withdrawn') return hidden({ code: 'withdrawn', since: state.at });
  if (state.state === 'scheduled') return hidden({ code: 'scheduled', goesLiveAt: state.at });

  const place = placeOf(viewer, release, copy);
  if (place.kind === 'outside') return outsider(release, place.reason);
  if (place.kind === 'other-group') return hidden(place.reason);

  const { opens } = schedule;
  if (opens !== null && now < opens) return outsider(release, { code: 'not-open-yet', opens });
  if (place.kind === 'reads-along') return { access: 'read-only', part: 'reader', reasons: place.reasons };

  const { due, why } = schedule;
  const extended: readonly Reason[] =
    due === null || why.due === 'all' ? [] : [{ code: 'extended', due, isOwn: why.due === 'student' }];
  const isClosed = state.state === 'closed';
  const closed: readonly Reason[] = isClosed ? [{ code: 'closed', since: state.at }] : [];
  return {
    access: isClosed ? 'read-only' : 'open',
    part: 'member',
    reasons: [...place.reasons, ...extended, ...closed],
  };
}

type PlaceInRelease =
  | { readonly kind: 'inside'; readonly reasons: readonly Reason[] }
  | { readonly kind: 'reads-along'; readonly reasons: readonly Reason[] }
  | { readonly kind: 'other-group'; readonly reason: Reason }
  | { readonly kind: 'outside'; readonly reason: Reason };

function placeOf(viewer: Viewer, release: ReleaseFacts, copy: CopyFacts): PlaceInRelease {
  if (release.audience.exclude.includes(viewer.enrolmentId))
    return { kind: 'outside', reason: { code: 'left-out' } };
  const matched = release.audience.include.find((entry) => matches(viewer, entry));
  if (!matched) return { kind: 'outside', reason: { code: 'outside-audience' } };
  const entry: Reason = { code: 'audience-entry', entry: matched };

  const { groupId, setId } = copy;
  // A private copy stays private even if its release were to become a common one.
  if (release.mode === 'common')
    return groupId === null
      ? { kind: 'inside', reasons: [entry, { code: 'common-copy' }] }
      : { kind: 'other-group', reason: { code: 'other-groups-copy' } };
  if (groupId === null) return { kind: 'other-group', reason: { code: 'no-copy' } };
  // A group that was removed from the audience keeps its copy, but no one in it sees it any more.
  if (!reachesGroup(release.audience, copy))
    return { kind: 'other-group', reason: { code: 'other-groups-copy' } };
  const isMember = viewer.groups.some((group) => group.groupId === groupId);
  if (isMember) {
    const own = release.audience.include.find((at) =>
      reachesGroup({ include: [at], exclude: [] }, { groupId, setId }),
    );
    return {
      kind: 'inside',
      reasons: [own ? { code: 'audience-entry', entry: own } : entry, { code: 'own-copy', groupId }],
    };
  }
  if (release.mode === 'read-along')
    return { kind: 'reads-along', reasons: [entry, { code: 'reads-along' }] };
  return { kind: 'other-group', reason: { code: 'other-groups-copy' } };
}

/** Whether a release reaches this student at all, whatever its state and dates. */
export function isInAudience(viewer: Pick<Viewer, 'enrolmentId' | 'groups'>, audience: Audience): boolean {
  return (
    !audience.exclude.includes(viewer.enrolmentId) && audience.include.some((entry) => matches(viewer, entry))
  );
}

function matches(viewer: Pick<Viewer, 'enrolmentId' | 'groups'>, entry: AudienceEntry): boolean {
  switch (entry.kind) {
    case 'class':
      return true;
    case 'set':
      return viewer.groups.some((group) => group.setId === entry.setId);
    case 'group':
      return viewer.groups.some((group) => group.groupId === entry.groupId);
    case 'person':
      return viewer.enrolmentId === entry.enrolmentId;
    case 'audience':
      return entry.people.has(viewer.enrolmentId);
    case 'staff':
      return false;
    default:
      return unreachable(entry);
  }
}

function outsider(release: ReleaseFacts, reason: Reason): Decision {
  if (release.outsiders === 'listed')
    return { access: 'listed', part: 'reader', reasons: [reason, { code: 'outsiders-listed' }] };
  return hidden(reason);
}

const hidden = (reason: Reason): Decision => ({ access: 'hidden', part: 'reader', reasons: [reason] });

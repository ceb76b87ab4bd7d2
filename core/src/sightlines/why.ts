import type { Role, Viewer } from '../course/index.js';
import type { ActivityId, EnrolmentId } from '../ids/index.js';
import type { CopyFacts, Decision, Instant } from '../release/index.js';
import { decide, isReleased } from '../release/index.js';
import type { SightOf } from './cells.js';
import { askedFor } from './cells.js';
import type { SightFacts } from './facts.js';
import { releaseAt, viewersAt } from './facts.js';
import { foundIn, sightOf } from './sight.js';

export interface Explained {
  readonly enrolmentId: EnrolmentId;
  readonly decision: Decision;
}

/** Someone who sat in the group while it had this, and does not any more. */
export interface FormerMember extends Explained {
  readonly until: Instant;
}

/** Why people see of one activity what they see: each by the decision itself. Staff and observers: where there is a copy. */
export interface Why {
  readonly members: readonly Explained[];
  readonly former: readonly FormerMember[];
  readonly staff: readonly Explained[];
  readonly observers: readonly Explained[];
}

/** @returns null: a draft, of which no one outside staff knows. */
export function whyOf(facts: SightFacts, activityId: ActivityId, of: SightOf, at: Instant): Why | null {
  const activity = facts.activities.find((each) => each.activityId === activityId);
  if (!activity?.release) return null;
  const release = releaseAt(activity.release, at);
  const viewers = viewersAt(facts, at);
  const copies = foundIn(activity.copies);
  const groupId = of.kind === 'group' ? of.groupId : null;
  const explained = (viewer: Viewer): Explained => ({
    enrolmentId: viewer.enrolmentId,
    decision: sightOf(viewer, copies, release, groupId, at).decision,
  });
  // What others than its members see is told of this copy, not of the one in which they see most.
  const copy = copies.of(groupId) ?? copies.of(null) ?? null;
  const here = ({ enrolmentId, ...viewer }: Viewer, of: CopyFacts): Explained => ({
    enrolmentId,
    decision: decide({ enrolmentId, ...viewer }, release, of, at),
  });
  const members = (askedFor(viewers, [of])[0] ?? []).map(explained);
  const isMember = new Set(members.map(({ enrolmentId }) => enrolmentId));
  const since = isReleased(release.state) && 'since' in release.state ? release.state.since : at;
  const ended = new Map<EnrolmentId, Instant>();
  for (const { groupId: seat, enrolmentId, until } of facts.seats) {
    if (seat !== groupId || until === null || until > at || until < since || isMember.has(enrolmentId))
      continue;
    ended.set(enrolmentId, Math.max(until, ended.get(enrolmentId) ?? 0));
  }
  const former = [...ended].flatMap(([enrolmentId, until]) => {
    const viewer = viewers.get(enrolmentId);
    return viewer && copy ? [{ ...here(viewer, copy), until }] : [];
  });
  const present = [...viewers.values()].filter(({ hasLeft }) => !hasLeft);
  const others = (roles: readonly Role[]) =>
    copy === null
      ? []
      : present.filter(({ role }) => roles.includes(role)).map((viewer) => here(viewer, copy));
  return {
    members,
    former: former.sort((a, b) => b.until - a.until),
    staff: others(['instructor', 'assistant']),
    observers: others(['observer']),
  };
}

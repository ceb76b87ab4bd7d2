import type { Viewer } from '../course/index.js';
import type { GroupId } from '../ids/index.js';
import { atLeast, decide } from '../release/index.js';
import type { CopyFacts, Decision, Instant, ReleaseFacts } from '../release/index.js';
import type { SightActivity, SightCopy } from './facts.js';

/** What one person sees of an activity, and in which of its copies. */
export interface Sight {
  readonly decision: Decision;
  /** null: there is no copy that could be theirs. */
  readonly copy: SightCopy | null;
}

const noCopy: CopyFacts = { groupId: null, setId: null, extension: null };

/** The copy in which someone sees most: the one that is looked at, then those of their own groups and the one for all, then any other, which tells what
 * outsiders learn. One decision a copy, by the function that the server asks.
 * @param release of the activity, as it stood then.
 * @param first the group whose copy is looked at; null: no group's. */
export function sightOf(
  viewer: Viewer,
  { copies }: Pick<SightActivity, 'copies'>,
  release: ReleaseFacts,
  first: GroupId | null,
  at: Instant,
): Sight {
  let best: Sight | null = null;
  for (const copy of candidates(viewer, copies, first)) {
    const decision = decide(viewer, release, copy, at);
    if (best === null || !atLeast(best.decision.access, decision.access)) best = { decision, copy };
    if (best.decision.access === 'open') return best;
  }
  return best ?? { decision: decide(viewer, release, noCopy, at), copy: null };
}

function* candidates(
  viewer: Viewer,
  copies: readonly SightCopy[],
  first: GroupId | null,
): Iterable<SightCopy> {
  const isOwn = ({ groupId }: SightCopy) =>
    groupId === null || viewer.groups.some((group) => group.groupId === groupId);
  const looked = copies.find(({ groupId }) => groupId !== null && groupId === first);
  if (looked) yield looked;
  for (const copy of copies) if (copy !== looked && isOwn(copy)) yield copy;
  const other = copies.find((copy) => copy !== looked && !isOwn(copy));
  if (other) yield other;
}

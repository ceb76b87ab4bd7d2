import type { Viewer } from '../course/index.js';
import type { GroupId } from '../ids/index.js';
import { keyedBy } from '../lists/index.js';
import { atLeast, decide } from '../release/index.js';
import type { CopyFacts, Decision, Instant, ReleaseFacts } from '../release/index.js';
import type { SightCopy } from './facts.js';

/** What one person sees of an activity, and in which of its copies. */
export interface Sight {
  readonly decision: Decision;
  /** null: there is no copy that could be theirs. */
  readonly copy: SightCopy | null;
}

/** The copies of one activity, found by whose they are. */
export interface FoundCopies {
  readonly all: readonly SightCopy[];
  /** null: the one for all. */
  readonly of: (groupId: GroupId | null) => SightCopy | undefined;
}

export function foundIn(copies: readonly SightCopy[]): FoundCopies {
  const byGroup = keyedBy(copies, ({ groupId }) => groupId);
  return { all: copies, of: (groupId) => byGroup.get(groupId) };
}

const noCopy: CopyFacts = { groupId: null, setId: null, extension: null };

/** The copy in which someone sees most: the one that is looked at, then those of their own groups and the one for all, then any other, which tells what
 * outsiders learn. One decision a copy, by the function that the server asks.
 * @param release of the activity, as it stood then.
 * @param first the group whose copy is looked at; null: no group's. */
export function sightOf(
  viewer: Viewer,
  copies: FoundCopies,
  release: ReleaseFacts,
  first: GroupId | null,
  at: Instant,
): Sight {
  let best: Sight | null = null;
  for (const copy of copiesThatMatter(viewer, copies, first)) {
    const decision = decide(viewer, release, copy, at);
    if (best === null || !atLeast(best.decision.access, decision.access)) best = { decision, copy };
    if (best.decision.access === 'open') return best;
  }
  return best ?? { decision: decide(viewer, release, noCopy, at), copy: null };
}

/** Those of their groups, the one for all, and any one of the others, which tells what outsiders learn. */
export function* copiesThatMatter(
  viewer: Viewer,
  { all, of }: FoundCopies,
  first: GroupId | null = null,
): Iterable<SightCopy> {
  const looked = first === null ? undefined : of(first);
  if (looked) yield looked;
  const asked = new Set([looked]);
  for (const groupId of [...viewer.groups.map((group) => group.groupId), null]) {
    const copy = of(groupId);
    if (!copy || asked.has(copy)) continue;
    asked.add(copy);
    yield copy;
  }
  const other = all.find((copy) => !asked.has(copy));
  if (other) yield other;
}

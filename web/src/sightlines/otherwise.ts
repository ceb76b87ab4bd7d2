import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import { isInAudience, reachesGroup } from '@jigsaw/core/release';
import type { SightOf } from '@jigsaw/core/sightlines';
import { leaveOut, toggleGroup, withPerson } from '../release/index.js';
import type { ReleaseTarget } from '../release/index.js';
import { audienceOf } from '@jigsaw/contract/sightFacts';

export interface Otherwise {
  /** It goes to them now. */
  readonly isIn: boolean;
  /** Who it would go to if that were otherwise; null: nothing in this release alone changes it. */
  readonly target: ReleaseTarget | null;
}

/** What a release would be with one group or student more, or without them.
 * @param now who it goes to. */
export function otherwiseOf(view: SightlinesView, now: ReleaseTarget, of: SightOf): Otherwise {
  if (of.kind === 'group') return ofGroup(view, now, of);
  if (of.kind === 'person') return ofPerson(view, now, of);
  return { isIn: false, target: null };
}

function ofGroup(
  view: SightlinesView,
  now: ReleaseTarget,
  group: { readonly groupId: GroupId; readonly setId: GroupSetId },
): Otherwise {
  const { include } = now.to;
  // Everyone has it, or staff alone; a group more or less is another release.
  if (include.some(({ kind }) => kind === 'class')) return { isIn: true, target: null };
  if (include.some(({ kind }) => kind === 'staff')) return { isIn: false, target: null };
  const saved = evaluatedBy(view, now).include.filter(({ kind }) => kind === 'audience');
  if (reachesGroup({ include: saved, exclude: [] }, group)) return { isIn: true, target: null };
  const all = view.sets.find(({ setId }) => setId === group.setId)?.groups ?? [];
  const target = toggleGroup(now, group.setId, group.groupId, all.map(({ groupId }) => groupId)); // prettier-ignore
  return { isIn: reachesGroup(evaluatedBy(view, now), group), target: target === now ? null : target };
}

function ofPerson(
  view: SightlinesView,
  now: ReleaseTarget,
  { enrolmentId }: Extract<SightOf, { kind: 'person' }>,
): Otherwise {
  if (now.to.include.some(({ kind }) => kind === 'staff')) return { isIn: false, target: null };
  const groups = view.seats.filter((seat) => seat.enrolmentId === enrolmentId && seat.until === null);
  const isIn = isInAudience({ enrolmentId, groups }, evaluatedBy(view, now));
  if (isIn) return { isIn, target: leaveOut(now, enrolmentId, true) };
  if (now.to.exclude.includes(enrolmentId)) return { isIn, target: leaveOut(now, enrolmentId, false) };
  // A copy per group is no single student's.
  return { isIn, target: now.mode === 'common' ? withPerson(now, enrolmentId, true) : null };
}

/** With what its saved audiences reach now. */
const evaluatedBy = (view: SightlinesView, { to }: ReleaseTarget) =>
  audienceOf({
    ...to,
    include: to.include.map((entry) => {
      if (entry.kind !== 'audience') return entry;
      const found = view.activities
        .flatMap(({ release }) => release?.audience.include ?? [])
        .find((each) => each.kind === 'audience' && each.audienceId === entry.audienceId);
      return found?.kind === 'audience' ? found : { ...entry, name: '', people: [], groups: [] };
    }),
    exclude: [...to.exclude],
  });

import type { ActivityView, OutsiderRule, ReleasedTo, ReleaseMode } from '@jigsaw/contract/release';
import type { AudienceId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { audiencesOf, setsOfAudience, theClass, wholeSet } from '@jigsaw/core/release';

/** Who someone means to release to, and how; no one in `to`: not chosen yet. */
export interface ReleaseTarget {
  readonly to: ReleasedTo;
  readonly mode: ReleaseMode;
  readonly outsiders: OutsiderRule;
}

type Entry = ReleasedTo['include'][number];
const noOne: ReleasedTo = { include: [], exclude: [] };

/** With several sets one is chosen on purpose: the wrong one would show the work to the wrong students.
 * @param meantFor the set with which it was written, if it was. */
export function firstTarget(
  release: ActivityView['release'],
  setIds: readonly GroupSetId[],
  meantFor: string | null = null,
): ReleaseTarget {
  if (release) return { to: release.to, mode: release.mode, outsiders: release.outsiders };
  const setId = setIds.find((id) => id === meantFor) ?? (setIds.length === 1 ? setIds[0] : undefined);
  return { to: setId ? wholeSet(setId) : noOne, mode: 'own', outsiders: 'hidden' };
}

const withEntries = (target: ReleaseTarget, include: readonly Entry[]): ReleaseTarget => ({
  ...target,
  to: { ...target.to, include },
});
/** A copy for each goes to groups; the class, staff and single people have none. */
const hasGroups = ({ kind }: Entry) => kind === 'set' || kind === 'group' || kind === 'audience';

/** Another way of releasing; what no longer goes with it is let go. */
export function withMode(target: ReleaseTarget, mode: ReleaseMode): ReleaseTarget {
  const { include } = target.to;
  return { ...withEntries(target, mode === 'common' ? include : include.filter(hasGroups)), mode };
}

export const isForClass = ({ to }: ReleaseTarget): boolean => to.include.some(({ kind }) => kind === 'class');

/** The class holds everyone: it stands alone, and in one copy. */
export const toggleClass = (target: ReleaseTarget): ReleaseTarget =>
  isForClass(target)
    ? withEntries(target, [])
    : { ...target, mode: 'common', to: { ...theClass, exclude: target.to.exclude } };

export const isForStaff = ({ to }: ReleaseTarget): boolean => to.include.some(({ kind }) => kind === 'staff');

/** No student gets it: it stands alone, and in one copy. */
export const toggleStaff = (target: ReleaseTarget): ReleaseTarget =>
  isForStaff(target)
    ? withEntries(target, [])
    : { ...target, mode: 'common', to: { include: [{ kind: 'staff' }], exclude: [] } };

const notClass = ({ kind }: Entry) => kind !== 'class' && kind !== 'staff';

/** A saved audience is in it, or not; who is in that one is its own. */
export function toggleAudience(target: ReleaseTarget, audienceId: AudienceId): ReleaseTarget {
  const others = target.to.include.filter(
    (entry) => notClass(entry) && !(entry.kind === 'audience' && entry.audienceId === audienceId),
  );
  const isIn = audiencesOf(target.to).includes(audienceId);
  return withEntries(target, isIn ? others : [...others, { kind: 'audience', audienceId }]);
}

/** A set is put in as a whole, or left out with all its groups. */
export function toggleSet(target: ReleaseTarget, setId: GroupSetId): ReleaseTarget {
  const isIn = setsOfAudience(target.to).includes(setId);
  const others = target.to.include.filter(
    (entry) => notClass(entry) && !('setId' in entry && entry.setId === setId),
  );
  return withEntries(target, isIn ? others : [...others, { kind: 'set', setId }]);
}

/** A group is put in or left out; all of them in is the whole set, which follows groups that come later.
 * @param all the groups of its set. */
export function toggleGroup(
  target: ReleaseTarget,
  setId: GroupSetId,
  groupId: GroupId,
  all: readonly GroupId[],
): ReleaseTarget {
  const { include } = target.to;
  const isWhole = include.some((entry) => entry.kind === 'set' && entry.setId === setId);
  const before = new Set(
    isWhole
      ? all
      : include.flatMap((entry) => (entry.kind === 'group' && entry.setId === setId ? [entry.groupId] : [])),
  );
  if (!before.delete(groupId)) before.add(groupId);
  const chosen = all.filter((id) => before.has(id));
  const own: readonly Entry[] =
    chosen.length === all.length
      ? [{ kind: 'set', setId }]
      : chosen.map((id): Entry => ({ kind: 'group', setId, groupId: id }));
  // In the place of what there was of this set, so that sets keep their order.
  const found = include.findIndex((entry) => 'setId' in entry && entry.setId === setId);
  const at = found < 0 ? include.length : found;
  const others = include.filter((entry) => !('setId' in entry && entry.setId === setId));
  const next = [...others.slice(0, at), ...own, ...others.slice(at)];
  return next.length === 0 ? target : withEntries(target, next); // no one at all is no release
}

/** Someone by name, beside groups: in a copy for all. */
export function withPerson(target: ReleaseTarget, enrolmentId: EnrolmentId, isIn: boolean): ReleaseTarget {
  const others = target.to.include.filter(
    (entry) => !(entry.kind === 'person' && entry.enrolmentId === enrolmentId),
  );
  const { exclude } = target.to;
  const to = { ...target.to, exclude: isIn ? exclude.filter((id) => id !== enrolmentId) : exclude };
  return withEntries({ ...target, to }, isIn ? [...others, { kind: 'person', enrolmentId }] : others);
}

export function leaveOut(target: ReleaseTarget, enrolmentId: EnrolmentId, isOut: boolean): ReleaseTarget {
  const others = target.to.exclude.filter((id) => id !== enrolmentId);
  const next = isOut ? withPerson(target, enrolmentId, false) : target;
  return { ...next, to: { ...next.to, exclude: isOut ? [...others, enrolmentId] : others } };
}

export const isSameTarget = (a: ReleaseTarget, b: ReleaseTarget): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

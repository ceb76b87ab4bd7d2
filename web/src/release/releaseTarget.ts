import type { ActivityView, OutsiderRule, ReleasedTo, ReleaseMode } from '@jigsaw/contract/release';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';

/** To whom and how somebody means to release; `to` null: not chosen yet. */
export interface ReleaseTarget {
  readonly to: ReleasedTo | null;
  readonly mode: ReleaseMode;
  readonly outsiders: OutsiderRule;
}

/** With several sets one is chosen on purpose: the wrong one would show the work to the wrong students.
 * @param meantFor the set with which it was written, if it was. */
export function firstTarget(
  release: ActivityView['release'],
  setIds: readonly GroupSetId[],
  meantFor: string | null = null,
): ReleaseTarget {
  if (release) return { to: release.to, mode: release.mode, outsiders: release.outsiders };
  const setId = setIds.find((id) => id === meantFor) ?? (setIds.length === 1 ? setIds[0] : undefined);
  return { to: setId ? { kind: 'set', setId } : null, mode: 'own', outsiders: 'hidden' };
}

/** Another way of releasing; what no longer goes with it is let go. */
export function withMode(target: ReleaseTarget, mode: ReleaseMode): ReleaseTarget {
  return { ...target, mode, to: target.to?.kind === 'class' && mode !== 'common' ? null : target.to };
}

export const toClass = (target: ReleaseTarget): ReleaseTarget => ({
  ...target,
  mode: 'common',
  to: { kind: 'class' },
});
export const toSet = (target: ReleaseTarget, setId: GroupSetId): ReleaseTarget => ({
  ...target,
  to: { kind: 'set', setId },
});

/** A group is put in or left out; all of them in is the whole set, which follows groups that come later. */
export function toggleGroup(target: ReleaseTarget, groupId: GroupId, all: readonly GroupId[]): ReleaseTarget {
  if (!target.to || target.to.kind === 'class') return target;
  const before = target.to.kind === 'set' ? all : target.to.groupIds;
  const groupIds = before.includes(groupId)
    ? before.filter((id) => id !== groupId)
    : all.filter((id) => id === groupId || before.includes(id));
  if (groupIds.length === 0) return target; // nobody at all is no release
  return {
    ...target,
    to:
      groupIds.length === all.length
        ? { kind: 'set', setId: target.to.setId }
        : { kind: 'groups', setId: target.to.setId, groupIds: [...groupIds] },
  };
}

export const isSameTarget = (a: ReleaseTarget, b: ReleaseTarget): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

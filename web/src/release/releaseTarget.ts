import type { ActivityView, OutsiderRule, ReleasedTo, ReleaseMode } from '@jigsaw/contract/release';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';

/** To whom and how somebody means to release; `to` null: not chosen yet. */
export interface Aim {
  readonly to: ReleasedTo | null;
  readonly mode: ReleaseMode;
  readonly outsiders: OutsiderRule;
}

/** With several sets one is chosen on purpose: the wrong one would show the work to the wrong students.
 * @param meantFor the set with which it was written, if it was. */
export function firstAim(
  release: ActivityView['release'],
  setIds: readonly GroupSetId[],
  meantFor: string | null = null,
): Aim {
  if (release) return { to: release.to, mode: release.mode, outsiders: release.outsiders };
  const setId = setIds.find((id) => id === meantFor) ?? (setIds.length === 1 ? setIds[0] : undefined);
  return { to: setId ? { kind: 'set', setId } : null, mode: 'own', outsiders: 'hidden' };
}

/** Another way of releasing; what no longer goes with it is let go. */
export function withMode(aim: Aim, mode: ReleaseMode): Aim {
  return { ...aim, mode, to: aim.to?.kind === 'class' && mode !== 'common' ? null : aim.to };
}

export const toClass = (aim: Aim): Aim => ({ ...aim, mode: 'common', to: { kind: 'class' } });
export const toSet = (aim: Aim, setId: GroupSetId): Aim => ({ ...aim, to: { kind: 'set', setId } });

/** A group is put in or left out; all of them in is the whole set, which follows groups that come later. */
export function toggleGroup(aim: Aim, groupId: GroupId, all: readonly GroupId[]): Aim {
  if (!aim.to || aim.to.kind === 'class') return aim;
  const before = aim.to.kind === 'set' ? all : aim.to.groupIds;
  const groupIds = before.includes(groupId)
    ? before.filter((id) => id !== groupId)
    : all.filter((id) => id === groupId || before.includes(id));
  if (groupIds.length === 0) return aim; // nobody at all is no release
  return {
    ...aim,
    to:
      groupIds.length === all.length
        ? { kind: 'set', setId: aim.to.setId }
        : { kind: 'groups', setId: aim.to.setId, groupIds: [...groupIds] },
  };
}

export const isSameAim = (a: Aim, b: Aim): boolean => JSON.stringify(a) === JSON.stringify(b);

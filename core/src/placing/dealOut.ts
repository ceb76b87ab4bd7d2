import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import type { Move } from './placement.js';

/** A group as far as dealing is concerned. */
export interface DealtGroup {
  readonly id: GroupId;
  readonly members: number;
  /** null: no limit. */
  readonly capacity: number | null;
  /** No one is dealt into it. */
  readonly isLocked: boolean;
}

export interface DealtOut {
  readonly moves: readonly Move[];
  /** Who no group has room for, in the order given. */
  readonly left: readonly EnrolmentId[];
}

/** Gives students places one after the other, each in the group that has the fewest members and room (CALC §1); of several, the first. */
export function dealOut(groups: readonly DealtGroup[], students: readonly EnrolmentId[]): DealtOut {
  const members = new Map(groups.map((group) => [group.id, group.members]));
  const moves: Move[] = [];
  const left: EnrolmentId[] = [];
  for (const student of students) {
    const to = emptiest(groups.map((group) => ({ ...group, members: sure(members.get(group.id)) })));
    if (to === null) left.push(student);
    else {
      members.set(to, sure(members.get(to)) + 1);
      moves.push({ student, from: null, to });
    }
  }
  return { moves, left };
}

/** Where a latecomer goes (CALC §3): the unlocked group with the fewest members that has room; of several, the one that it makes the least uneven, then the
 * first. null: no room.
 * @param unevenness what coming to a group adds to the set's spread rules. */
export function emptiest(
  groups: readonly DealtGroup[],
  unevenness: (groupId: GroupId) => number = () => 0,
): GroupId | null {
  let best: DealtGroup | null = null;
  for (const group of groups) {
    const hasRoom = !group.isLocked && (group.capacity === null || group.members < group.capacity);
    if (!hasRoom) continue;
    const isBetter =
      best === null ||
      group.members < best.members ||
      (group.members === best.members && unevenness(group.id) < unevenness(best.id) - 1e-9);
    if (isBetter) best = group;
  }
  return best?.id ?? null;
}

import { sure } from '../lists/index.js';

export interface GroupToResize {
  readonly isLocked: boolean;
  readonly members: number;
}

/** What it takes to deal so many students into groups of so many. */
export interface Resizing {
  /** Students who are dealt: all but those in locked groups. */
  readonly dealt: number;
  /** Groups that are dealt into. */
  readonly groups: number;
  /** How many are added. */
  readonly added: number;
  /** Places among the given groups: locked ones without members that are unlocked. */
  readonly unlocked: readonly number[];
  /** Open ones without members that are locked, so that no one is dealt into them; the last ones first. */
  readonly locked: readonly number[];
  /** Open groups beyond what is wanted that have members, and so stay. */
  readonly beyond: number;
}

/** Groups for `students` people, `size` in each at most, from the groups that there are: empty ones are locked or unlocked, and what lacks is added.
 * A group with members stays as it is, since its places and its work are not for a number to decide. */
export function resizeGroups(groups: readonly GroupToResize[], students: number, size: number): Resizing {
  const heldInLocked = groups.reduce((sum, group) => sum + (group.isLocked ? group.members : 0), 0);
  const dealt = Math.max(0, students - heldInLocked);
  const wanted = Math.max(1, Math.ceil(dealt / size));
  const places = [...groups.keys()];
  const open = places.filter((at) => !sure(groups[at]).isLocked);
  const isEmpty = (at: number) => sure(groups[at]).members === 0;
  const lacking = Math.max(0, wanted - open.length);
  const unlocked = places.filter((at) => sure(groups[at]).isLocked && isEmpty(at)).slice(0, lacking);
  const surplus = Math.max(0, open.length - wanted);
  const locked = open.filter(isEmpty).toReversed().slice(0, surplus);
  return {
    dealt,
    groups: open.length + lacking - locked.length,
    added: lacking - unlocked.length,
    unlocked,
    locked,
    beyond: surplus - locked.length,
  };
}

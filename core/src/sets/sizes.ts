import { sure } from '../lists/index.js';
/** Of one set: more is a mistake, and a page of cards that no one reads. */
export const mostGroups = 500;

/** What a person asked for that cannot be made into groups. */
export type SizesRefused = {
  readonly ok: false;
  readonly code: 'count-not-positive' | 'size-not-positive' | 'not-whole';
};

export interface SizesForecast {
  readonly ok: true;
  /** Members per group, larger groups first. */
  readonly sizes: readonly number[];
  /** Groups that no one is left for: more groups than students. */
  readonly emptyGroups: number;
}

/** Sizes of `groups` groups for `students` students (CALC §1): as even as can be, larger groups first.
 * More groups than students is allowed; the forecast counts the empty ones. */
export function sizesByCount(students: number, groups: number): SizesForecast | SizesRefused {
  if (!Number.isInteger(students) || !Number.isInteger(groups) || students < 0)
    return { ok: false, code: 'not-whole' };
  if (groups < 1) return { ok: false, code: 'count-not-positive' };
  const small = Math.floor(students / groups);
  const larger = students % groups;
  const sizes = Array.from({ length: groups }, (_, at) => (at < larger ? small + 1 : small));
  return { ok: true, sizes, emptyGroups: sizes.filter((size) => size === 0).length };
}

/** Sizes of groups of about `size` (CALC §1): `spread` makes them even, `fill` makes full ones and one remainder. */
export function sizesBySize(
  students: number,
  size: number,
  how: 'spread' | 'fill' = 'spread',
): SizesForecast | SizesRefused {
  if (!Number.isInteger(students) || !Number.isInteger(size) || students < 0)
    return { ok: false, code: 'not-whole' };
  if (size < 1) return { ok: false, code: 'size-not-positive' };
  const groups = Math.max(1, Math.ceil(students / size));
  if (how === 'spread') return sizesByCount(students, groups);
  const sizes = Array.from({ length: groups }, (_, at) => Math.min(size, students - at * size));
  return { ok: true, sizes, emptyGroups: sizes.filter((each) => each === 0).length };
}

export interface RoomForecast {
  /** Final members per group, in the order given. */
  readonly sizes: readonly number[];
  /** Students that no group has room for. */
  readonly unplaced: number;
}

/** Fills existing groups towards equal size under each capacity (CALC §1); `capacity` null means no limit. */
export function fillRoom(
  groups: readonly { readonly members: number; readonly capacity: number | null }[],
  newcomers: number,
): RoomForecast {
  const sizes = groups.map((group) => group.members);
  let left = newcomers;
  while (left > 0) {
    let best = -1;
    for (const [at, group] of groups.entries()) {
      const hasRoom = group.capacity === null || sure(sizes[at]) < group.capacity;
      if (hasRoom && (best < 0 || sure(sizes[at]) < sure(sizes[best]))) best = at;
    }
    if (best < 0) break;
    sizes[best] = sure(sizes[best]) + 1;
    left -= 1;
  }
  return { sizes, unplaced: left };
}

/** "12 groups of 4", "5 groups: 2 of 6, 3 of 5": what a forecast says before anything is made. */
export function sayForecast(sizes: readonly number[]): string {
  const countBySize = new Map<number, number>();
  for (const size of sizes) countBySize.set(size, (countBySize.get(size) ?? 0) + 1);
  const noun = sizes.length === 1 ? 'group' : 'groups';
  if (countBySize.size === 1) return `${sizes.length} ${noun} of ${sizes[0]}`;
  const parts = [...countBySize].map(([size, count]) => `${count} of ${size}`);
  return `${sizes.length} ${noun}: ${parts.join(', ')}`;
}

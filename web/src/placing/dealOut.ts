import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Place } from '@jigsaw/core/placing';
import { dealOut, movesOut } from '@jigsaw/core/placing';
import { shuffled } from '@jigsaw/core/random';
import { capacityOf, isIn } from './seating.js';
import type { Chosen } from './seating.js';

export type Order = 'random' | 'roster' | 'alphabet';
export type Who = 'unplaced' | 'selected' | 'all';

/** What a deal comes to, before anything happens. */
export interface Dealt {
  readonly place: Place;
  /** Afterwards, larger groups first. */
  readonly sizes: readonly number[];
  /** How many find no room. */
  readonly left: number;
}

/** What dealing would do.
 * @param into the groups that places are given out in. */
export function deal(
  board: BoardView,
  who: Who,
  order: Order,
  seed: number,
  selected: Chosen = new Map(),
  into: ReadonlySet<GroupId> = new Set(board.groups.map((group) => group.id)),
): Dealt {
  const isOpen = new Set(
    board.groups.filter((group) => !group.isLocked && into.has(group.id)).map((group) => group.id),
  );
  const placement = new Map(board.students.map((student) => [student.enrolmentId, student.seats]));
  /** Which of their places they give up for the one they are dealt. */
  const givesUp = ({ enrolmentId, seats }: BoardStudent): ReadonlySet<GroupId> | null => {
    const all = new Set(seats.map((seat) => seat.groupId));
    if (who === 'unplaced') return seats.length === 0 ? all : null;
    if (who === 'selected') {
      const from = selected.get(enrolmentId);
      if (from === undefined) return null;
      return board.set.isExclusive ? all : new Set(from === null ? [] : [from]);
    }
    // Anyone who sits in a group that is left as it is keeps their place.
    return [...all].every((groupId) => isOpen.has(groupId)) ? all : null;
  };
  const dealt = new Map(
    board.students.flatMap((student) => {
      const up = givesUp(student);
      return up ? [[student.enrolmentId, up] as const] : [];
    }),
  );
  const stays = (groupId: GroupId) =>
    board.students.filter(
      (student) => isIn(student, groupId) && !dealt.get(student.enrolmentId)?.has(groupId),
    ).length;
  const groups = board.groups.map((group) => ({
    id: group.id,
    members: stays(group.id),
    capacity: capacityOf(board, group),
    isLocked: !isOpen.has(group.id),
  }));
  const { moves, left } = dealOut(
    groups,
    inOrder(
      board.students.filter((student) => dealt.has(student.enrolmentId)),
      order,
      seed,
    ),
  );
  const toOf = new Map(moves.map((move) => [move.student, sure(move.to)]));
  const change = [...dealt].flatMap(([student, up]) => {
    const to = toOf.get(student) ?? null;
    const out = movesOut(placement, [student], (groupId) => up.has(groupId) && groupId !== to);
    const isThere = to !== null && sure(placement.get(student)).some((seat) => seat.groupId === to);
    const [first, ...more] = out;
    if (to === null || isThere) return out;
    return first ? [{ ...first, to }, ...more] : [{ student, from: null, to }];
  });
  const sizes = groups.map((group) => group.members + moves.filter((move) => move.to === group.id).length);
  return { place: { moves: change }, sizes: sizes.sort((a, b) => b - a), left: left.length };
}

/** The Board has its students by family name already. */
function inOrder(students: readonly BoardStudent[], order: Order, seed: number): EnrolmentId[] {
  const ids = students.map((student) => student.enrolmentId);
  if (order === 'alphabet') return ids;
  const numbers = new Intl.Collator('en', { numeric: true });
  // Numbers, then those who have none by the order in which they came.
  const key = (student: BoardStudent) => `${student.number ?? '\uffff'} ${student.enrolmentId}`;
  const byRoster = students
    .toSorted((a, b) => numbers.compare(key(a), key(b)))
    .map((student) => student.enrolmentId);
  return order === 'roster' ? byRoster : shuffled(byRoster, seed);
}

/** Who would be in each group afterwards, in the Board's order.
 * @returns per group its members, each with whether they would come to it. */
export function groupsAfter(
  board: BoardView,
  { moves }: Place,
): ReadonlyMap<GroupId, readonly { readonly student: BoardStudent; readonly comes: boolean }[]> {
  const movesOf = new Map<EnrolmentId, Place['moves'][number][]>();
  for (const move of moves) movesOf.set(move.student, [...(movesOf.get(move.student) ?? []), move]);
  const after = new Map(
    board.groups.map((group) => [group.id, [] as { student: BoardStudent; comes: boolean }[]]),
  );
  for (const student of board.students) {
    const own = movesOf.get(student.enrolmentId) ?? [];
    const leaves = new Set(own.map((move) => move.from));
    for (const { groupId } of student.seats)
      if (!leaves.has(groupId)) after.get(groupId)?.push({ student, comes: false });
    for (const { to } of own) if (to !== null) after.get(to)?.push({ student, comes: true });
  }
  return after;
}

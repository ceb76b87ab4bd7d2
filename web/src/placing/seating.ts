import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';

/** Who is taken hold of, and where: null is the tray. Someone is held in one place at a time, also where they sit in several groups. */
export type Chosen = ReadonlyMap<EnrolmentId, GroupId | null>;

/** The members of each group in the Board's order; null: those in no group. */
export type Seating = ReadonlyMap<GroupId | null, readonly BoardStudent[]>;

const noOne: readonly BoardStudent[] = [];

/** @param before lists that are as they were are handed on themselves, so that their cards need not be drawn again. */
export function seatingOf(
  { students, groups }: Pick<BoardView, 'students' | 'groups'>,
  before?: Seating,
): Seating {
  const next = new Map<GroupId | null, BoardStudent[]>([
    [null, []],
    ...groups.map((group): [GroupId, BoardStudent[]] => [group.id, []]),
  ]);
  for (const student of students) {
    if (student.seats.length === 0) sure(next.get(null)).push(student);
    for (const { groupId } of student.seats) next.get(groupId)?.push(student);
  }
  if (!before) return next;
  return new Map(
    [...next].map(([groupId, members]) => {
      const was = before.get(groupId);
      return [groupId, was && isSame(was, members) ? was : members];
    }),
  );
}

const isSame = (one: readonly BoardStudent[], other: readonly BoardStudent[]) =>
  one.length === other.length && one.every((student, at) => student === other[at]);

export const membersOf = (board: BoardView, groupId: GroupId | null): readonly BoardStudent[] =>
  seatingOf(board).get(groupId) ?? noOne;
export const capacityOf = (board: BoardView, group: BoardGroup): number | null =>
  group.capacity ?? board.set.capacity;
export const isIn = (student: BoardStudent, groupId: GroupId | null): boolean =>
  student.seats.some((seat) => seat.groupId === groupId);
export const leaderOf = (members: readonly BoardStudent[], groupId: GroupId): EnrolmentId | null =>
  members.find((student) => student.seats.some((seat) => seat.groupId === groupId && seat.isLeader))
    ?.enrolmentId ?? null;

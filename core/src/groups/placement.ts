import type { EnrolmentId, GroupId } from '../ids/index.js';

/** Who sits where in one exclusive set; null is the tray of the unplaced. */
export type Placement = ReadonlyMap<EnrolmentId, GroupId | null>;

export interface Move {
  readonly student: EnrolmentId;
  readonly from: GroupId | null;
  readonly to: GroupId | null;
}

/** One act on the Board, of one student or of many. It is data, so that undo, events and tests use the same value. */
export interface Place {
  readonly moves: readonly Move[];
}

export type Placed = { readonly ok: true; readonly placement: Placement } | { readonly ok: false; readonly conflicts: readonly Conflict[] };

/** Somebody else moved this student first, or they are no longer here. */
export interface Conflict {
  readonly student: EnrolmentId;
  readonly expected: GroupId | null;
  readonly actual: GroupId | null | 'not-here';
}

export const inverse = (place: Place): Place => ({
  moves: place.moves.map(({ student, from, to }) => ({ student, from: to, to: from })).reverse(),
});

/** The placement after the command, or every move that no longer starts where it says. All or nothing. */
export function apply(placement: Placement, place: Place): Placed {
  const conflicts: Conflict[] = [];
  let next: Map<EnrolmentId, GroupId | null> | undefined; // copied on the first real move only
  for (const { student, from, to } of place.moves) {
    const at = (next ?? placement).get(student);
    if (at === undefined || at !== from) conflicts.push({ student, expected: from, actual: at === undefined ? 'not-here' : at });
    else if (from !== to) next = (next ?? new Map(placement)).set(student, to);
  }
  if (conflicts.length > 0) return { ok: false, conflicts };
  return { ok: true, placement: next ?? placement };
}

/** Two students change places in one step. */
export function swap(placement: Placement, one: EnrolmentId, other: EnrolmentId): Place {
  const here = placement.get(one) ?? null;
  const there = placement.get(other) ?? null;
  return {
    moves: [
      { student: one, from: here, to: there },
      { student: other, from: there, to: here },
    ],
  };
}

/** The moves that bring students to one group (or the tray); those already there are left out. */
export function movesTo(placement: Placement, students: Iterable<EnrolmentId>, to: GroupId | null): Place {
  const moves: Move[] = [];
  for (const student of students) {
    const from = placement.get(student) ?? null;
    if (from !== to) moves.push({ student, from, to });
  }
  return { moves };
}

/** Group sizes of a placement. */
export function countMembers(placement: Placement): Map<GroupId, number> {
  const counts = new Map<GroupId, number>();
  for (const group of placement.values()) if (group !== null) counts.set(group, (counts.get(group) ?? 0) + 1);
  return counts;
}

/** The group that typed digits mean, once no longer number fits; null while more digits may follow. */
export function groupNumberTyped(digits: string, groupCount: number): number | null | 'no-such-group' {
  const number = Number(digits);
  if (number > groupCount) return 'no-such-group';
  const couldGoOn = number > 0 && number * 10 <= groupCount;
  return couldGoOn ? null : number;
}

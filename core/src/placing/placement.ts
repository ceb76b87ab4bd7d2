import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';

/** A place in a group. */
export interface Seat {
  readonly groupId: GroupId;
  readonly isLeader: boolean;
}

/** How students get their group in one set; no one without a place is left out, they have an empty list. In an exclusive set no one has two. */
export type Placement = ReadonlyMap<EnrolmentId, readonly Seat[]>;

/** From one place to another; null is the tray of the unplaced. With `from` equal to `to` only the leading changes. */
export interface Move {
  readonly student: EnrolmentId;
  readonly from: GroupId | null;
  readonly to: GroupId | null;
  /** Whether they lead where they leave, and whether they are to lead where they come to. Left out: neither. */
  readonly leads?: { readonly from: boolean; readonly to: boolean };
}

/** One act on the Board, of one student or of many. It is data, so that undo, events and tests use the same value. */
export interface Place {
  readonly moves: readonly Move[];
}

export type Placed =
  | { readonly ok: true; readonly placement: Placement }
  | { readonly ok: false; readonly conflicts: readonly Conflict[] };

/** Someone else moved this student first, or they are no longer here. */
export interface Conflict {
  readonly student: EnrolmentId;
  readonly expected: GroupId | null;
  readonly actual: readonly GroupId[] | 'not-here';
}

export const inverse = (place: Place): Place => ({
  moves: place.moves
    .map(({ student, from, to, leads }) => ({
      student,
      from: to,
      to: from,
      ...(leads && { leads: { from: leads.to, to: leads.from } }),
    }))
    .reverse(),
});

/** The placement after the command, or every move that no longer starts where it says, would seat someone twice in one group, or would
 * give a group a second leader. All or nothing.
 * @param isExclusive whether everyone has one place at most. */
export function apply(placement: Placement, place: Place, isExclusive: boolean): Placed {
  const conflicts: Conflict[] = [];
  const next = new Map(placement);
  for (const { student, from, to, leads } of place.moves) {
    const seats = next.get(student);
    const has = (groupId: GroupId) => seats?.some((seat) => seat.groupId === groupId) === true;
    const fits =
      seats !== undefined &&
      (from === null ? !isExclusive || seats.length === 0 : has(from)) &&
      (to === null || to === from || !has(to));
    if (!fits)
      conflicts.push({ student, expected: from, actual: seats?.map((seat) => seat.groupId) ?? 'not-here' });
    else if (from !== to || leads)
      next.set(student, [
        ...seats.filter((seat) => seat.groupId !== from),
        ...(to === null ? [] : [{ groupId: to, isLeader: leads?.to ?? false }]),
      ]);
  }
  if (conflicts.length === 0) conflicts.push(...secondLeaders(next, place));
  if (conflicts.length > 0) return { ok: false, conflicts };
  return { ok: true, placement: isSamePlacement(placement, next) ? placement : next };
}

function secondLeaders(after: Placement, place: Place): Conflict[] {
  const led = place.moves.filter((move) => move.leads?.to && move.to !== null);
  if (led.length === 0) return [];
  const leaders = new Map<GroupId, number>();
  for (const seats of after.values())
    for (const { groupId, isLeader } of seats)
      if (isLeader) leaders.set(groupId, (leaders.get(groupId) ?? 0) + 1);
  return led.flatMap(({ student, from, to }) =>
    sure(leaders.get(sure(to))) > 1 ? [{ student, expected: from, actual: [sure(to)] }] : [],
  );
}

const isSamePlacement = (before: Placement, after: Placement) =>
  [...after].every(([student, seats]) => before.get(student) === seats);

/** Someone on the Board: where they were taken hold of. */
export interface Held {
  readonly student: EnrolmentId;
  /** null: in the tray. */
  readonly from: GroupId | null;
}

/** Two students change places in one step; anyone who led a group leads none any more. */
export function swap(placement: Placement, one: Held, other: Held): Place {
  return { moves: [moveOf(placement, one, other.from), moveOf(placement, other, one.from)] };
}

/** The moves that bring students to one group (or the tray); those already there are left out. */
export function movesTo(placement: Placement, students: Iterable<Held>, to: GroupId | null): Place {
  const moves: Move[] = [];
  for (const held of students) {
    const isThere = to !== null && placement.get(held.student)?.some((seat) => seat.groupId === to);
    if (held.from !== to && !isThere) moves.push(moveOf(placement, held, to));
  }
  return { moves };
}

/** Out of every place that these students have. */
export function movesOut(
  placement: Placement,
  students: Iterable<EnrolmentId>,
  isTaken: (groupId: GroupId) => boolean = () => true,
): Move[] {
  return [...students].flatMap((student) =>
    (placement.get(student) ?? []).flatMap(({ groupId }) =>
      isTaken(groupId) ? [moveOf(placement, { student, from: groupId }, null)] : [],
    ),
  );
}

/** Makes a member the leader of their group, in the place of the one who leads it, or lets them be one no longer. */
export function lead(placement: Placement, student: EnrolmentId, groupId: GroupId, isLeader: boolean): Place {
  const leading = [...placement].flatMap(([id, seats]) =>
    seats.some((seat) => seat.groupId === groupId && seat.isLeader) ? [id] : [],
  );
  const turn = (id: EnrolmentId, to: boolean): Move => ({
    student: id,
    from: groupId,
    to: groupId,
    leads: { from: !to, to },
  });
  if (!isLeader) return { moves: leading.includes(student) ? [turn(student, false)] : [] };
  return {
    moves: leading.includes(student) ? [] : [...leading.map((id) => turn(id, false)), turn(student, true)],
  };
}

function moveOf(placement: Placement, { student, from }: Held, to: GroupId | null): Move {
  const isLeader = placement.get(student)?.some((seat) => seat.groupId === from && seat.isLeader) ?? false;
  return isLeader ? { student, from, to, leads: { from: true, to: false } } : { student, from, to };
}

/** Group sizes of a placement. */
export function countMembers(placement: Placement): Map<GroupId, number> {
  const counts = new Map<GroupId, number>();
  for (const seats of placement.values())
    for (const { groupId } of seats) counts.set(groupId, (counts.get(groupId) ?? 0) + 1);
  return counts;
}

/** The group that typed digits mean, once no longer number fits; null while more digits may follow. */
export function groupNumberTyped(digits: string, groupCount: number): number | null | 'no-such-group' {
  const number = Number(digits);
  if (number > groupCount) return 'no-such-group';
  const couldGoOn = number > 0 && number * 10 <= groupCount;
  return couldGoOn ? null : number;
}

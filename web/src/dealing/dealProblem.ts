import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { DealProblem, Rule } from '@jigsaw/core/dealing';
import type { Move } from '@jigsaw/core/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { KeptDeal, Who } from './keptDeals.js';
import { capacityOf } from '../placing/index.js';

/** Someone alone is neither together nor apart: such a rule is still being written. */
export const isWhole = (rule: DealRule): boolean => !('students' in rule) || rule.students.length > 1;

export type Seats = ReadonlyMap<EnrolmentId, GroupId | null>;
interface Given {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly rules: readonly DealRule[];
  readonly who: Who;
  /** Who stays in the group they are in, by the deal or on the Board, that they were pinned in. */
  readonly pins: ReadonlyMap<EnrolmentId, GroupId>;
  readonly seed: number;
}

/** What the engine is asked: anyone who is pinned, sits in a locked group or is not to be dealt anew stays. */
export function problemOf({ board, roster, rules, who, pins, seed }: Given): DealProblem {
  const locked = new Set(board.groups.filter((group) => group.isLocked).map((group) => group.id));
  return {
    seed,
    groups: board.groups.map((group) => ({
      id: group.id,
      name: group.name,
      capacity: capacityOf(board, group),
      isLocked: group.isLocked,
    })),
    students: board.students.map(({ enrolmentId, name, attributes, seats }) => {
      const seat = seats[0]?.groupId ?? null;
      const stays = seat !== null && (who === 'unplaced' || locked.has(seat));
      return {
        id: enrolmentId,
        name,
        attributes,
        sitsIn: seat,
        fixedIn: pins.get(enrolmentId) ?? (stays ? seat : null),
      };
    }),
    rules: rules.map((rule): Rule => {
      if (rule.kind !== 'fresh') return rule;
      const chosen = roster.sets.filter((set) => rule.setIds.includes(set.id));
      return {
        kind: 'fresh',
        sets: chosen.map((set) => ({
          name: set.name,
          groups: set.groups.map((group) => membersIn(roster, group.id)),
        })),
      };
    }),
  };
}

const membersIn = (roster: RosterView, groupId: GroupId): EnrolmentId[] =>
  roster.entries.flatMap((entry) =>
    entry.groups.some((group) => group.groupId === groupId) ? [entry.enrolmentId] : [],
  );

/** How students get their group on the Board. */
export const seatsNow = (board: BoardView): Seats =>
  new Map(board.students.map((student) => [student.enrolmentId, student.seats[0]?.groupId ?? null]));

/** Everyone's seat in a deal that was kept; anyone who came since stays where they are, and no one is sent to a group that is gone. */
export function seatsOf(board: BoardView, kept: KeptDeal): Seats {
  const dealt = new Map(kept.seats);
  const isThere = new Set(board.groups.map((group) => group.id));
  return new Map(
    [...seatsNow(board)].map(([student, now]) => {
      const seat = dealt.get(student);
      return [student, seat === undefined || (seat !== null && !isThere.has(seat)) ? now : seat];
    }),
  );
}

/** From how the Board is to how the deal has it. */
export function movesOf(board: BoardView, seats: Seats): Move[] {
  return board.students.flatMap(({ enrolmentId: student, seats: own }): Move[] => {
    const [seat] = own;
    const from = seat?.groupId ?? null;
    const to = seats.get(student) ?? null;
    if (from === to) return [];
    return [{ student, from, to, ...(seat?.isLeader && { leads: { from: true, to: false } }) }];
  });
}

import { useCallback, useMemo, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { z } from 'zod';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { BoardGroup } from '@jigsaw/contract/sets';
import { PlaceRequest } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Held, Move, Place, Placement } from '@jigsaw/core/placing';
import { apply, inverse, lead, movesTo, swap } from '@jigsaw/core/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { isProblem, problemOf } from '../api/index.js';
import { readStored, store } from '../page/index.js';
import { useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { showPlaced, usePlaceStudentsMutation } from './placingApi.js';
import { capacityOf } from './seating.js';
import { useGroupEdits } from './useGroupEdits.js';
import type { Chosen } from './seating.js';

const Done = z.object({
  place: PlaceRequest.pick({ moves: true }),
  /** "2 placed in Demijohn": what it was, for the history and the way back. */
  says: z.string(),
  /** The person who came to a group was credited with its work, too. */
  creditJoins: z.boolean().optional(),
});
interface Done {
  readonly place: Place;
  readonly says: string;
  readonly creditJoins?: boolean | undefined;
}

/** Someone who leaves a group in which they have handed in. */
export interface Leaving extends Move {
  readonly person: BoardStudent;
  readonly handIns: number;
}

interface Pending {
  readonly done: Done;
  readonly who: readonly Leaving[];
}

export interface BoardActs {
  /** An act that waits until someone has read what it does to work. */
  readonly pending:
    | (Pending & { readonly goOn: (why: string, creditJoins: boolean) => void; readonly leave: () => void })
    | null;
  readonly placement: Placement;
  readonly selected: Chosen;
  readonly select: (students: Chosen) => void;
  readonly send: (students: Chosen, to: GroupId | null) => void;
  /** The moves of which that consists; none: they are there already. */
  readonly placeOf: (students: Chosen, to: GroupId | null) => Place;
  /** Makes a member their group's leader, or lets them be one no longer. */
  readonly lead: (student: EnrolmentId, groupId: GroupId, isLeader: boolean) => void;
  /** Any other act: dealing, taking everyone out. */
  readonly carry: (place: Place, says: string) => void;
  readonly swapSelected: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly canUndo: Done | null;
  readonly canRedo: Done | null;
  readonly history: readonly Done[];
  readonly savedAt: number | null;
  readonly isSaving: boolean;
}

/** What can be done on the Board, with its way back. Every act is one command, sent at once; undo sends its inverse. */
export function useBoard(board: BoardView): BoardActs {
  const notice = useNotice();
  const { course } = useCourse();
  const [send, { isLoading }] = usePlaceStudentsMutation();
  const [selected, setSelected] = useState<Chosen>(new Map());
  const { past, future, setPast, setFuture } = useKept(`board ${board.set.id} ${course.enrolmentId}`);
  const [pending, setPending] = useState<Pending | null>(null);
  const edits = useGroupEdits();
  const [savedAt, setSavedAt] = useState<number | null>(null);
  const dispatch = useDispatch<ThunkDispatch<never, unknown, UnknownAction>>();
  // Acts are shown at once, and reach the server in the order in which they were done.
  const line = useRef<Promise<unknown>>(Promise.resolve());
  const waiting = useRef(new Set<Place>());

  const onTheWay = useRef(new WeakSet<Done>()); // taken back, or being so

  const setId = board.set.id;
  const placement = useMemo<Placement>(
    () => new Map(board.students.map((student) => [student.enrolmentId, student.seats])),
    [board.students],
  );

  const carryOut = useCallback(
    (
      place: Place,
      onDone: () => void,
      more: { why?: string; credit?: 'joins' | 'taken-back' } = {},
      onRefused: () => void = () => undefined,
    ) => {
      const shown = dispatch(showPlaced(setId, place));
      waiting.current.add(place);
      line.current = line.current
        .then(() => send({ setId, place, ...more }).unwrap())
        .finally(() => waiting.current.delete(place))
        .then(
          () => {
            setSavedAt(Date.now());
            onDone();
          },
          (error: unknown) => {
            if (!isProblem(error, 'stale-write')) shown.undo(); // else the Board was put in its place as it is
            for (const each of waiting.current) dispatch(showPlaced(setId, each));
            onRefused();
            notice(problemOf(error).detail);
          },
        );
    },
    [send, dispatch, setId, notice],
  );

  const doNow = (done: Done) => {
    const locked = lockedIn(board, done.place);
    if (locked.length > 0) return sayLocked(locked, done);
    goOn(done);
  };

  /** A locked group keeps its members until someone unlocks it, here by the same press. */
  const sayLocked = (locked: readonly BoardGroup[], done: Done) => {
    const names = locked.map((group) => group.name).join(', ');
    const unlock = async () => {
      for (const group of locked) if (!(await edits.lock(group, false))) return;
      goOn(done);
    };
    notice(
      `${names} ${locked.length === 1 ? 'is' : 'are'} locked: no one joins or leaves.${course.role === 'instructor' ? '' : ' Ask an instructor to unlock.'}`,
      course.role === 'instructor' ? { label: 'Unlock and move', do: () => void unlock() } : undefined,
    );
  };

  const goOn = (done: Done) => {
    const who = done.place.moves.flatMap((move) => leaving(board, move) ?? []);
    if (who.length > 0) setPending({ done, who });
    else carryOn(done);
  };

  // It can be taken back from the moment it is shown, also by the person who loads the page again before it was answered.
  const carryOn = (done: Done, why = '') => {
    setPast((before) => [...before, done]);
    setFuture([]);
    carryOut(
      done.place,
      () => {
        const over = overAfter(board, placement, done.place);
        notice(over ?? done.says, { label: 'Undo', do: () => undoDone(done) });
      },
      { why, ...(done.creditJoins && { credit: 'joins' }) },
      () => setPast((before) => before.filter((each) => each !== done)),
    );
  };

  // What is being undone or redone is neither before nor ahead meanwhile, so that pressing twice takes back two acts, and no act twice.
  const undoDone = (done: Done) => {
    if (onTheWay.current.has(done)) return;
    onTheWay.current.add(done);
    setPast((before) => before.filter((each) => each !== done));
    carryOut(
      inverse(done.place),
      () => setFuture((before) => [...before, done]),
      done.creditJoins ? { credit: 'taken-back' } : {},
      () => {
        onTheWay.current.delete(done);
        setPast((before) => [...before, done]);
      },
    );
  };

  const redoDone = (done: Done) => {
    setFuture((before) => before.filter((each) => each !== done));
    carryOut(
      done.place,
      () => {
        onTheWay.current.delete(done);
        setPast((before) => [...before, done]);
      },
      done.creditJoins ? { credit: 'joins' } : {},
      () => setFuture((before) => [...before, done]),
    );
  };

  const last = past.at(-1) ?? null;
  const next = future.at(-1) ?? null;
  // Where everyone has one place, it is left from wherever they are by now.
  const isOnce = board.set.isExclusive;
  const placeOf = (students: Chosen, to: GroupId | null): Place => {
    const held = [...students].map(([student, from]): Held => ({
      student,
      from: isOnce ? (placement.get(student)?.[0]?.groupId ?? null) : from,
    }));
    return movesTo(placement, held, to);
  };
  return {
    placement,
    selected,
    select: setSelected,
    placeOf,
    send: (students, to) => {
      const place = placeOf(students, to);
      if (place.moves.length === 0)
        return to !== null && !isOnce && notice('They are in that group already.');
      doNow({ place, says: sayPlace(board, place, to) });
      setSelected(new Map());
    },
    lead: (student, groupId, isLeader) => {
      if (!board.set.hasLeaders)
        return notice('The groups of this set have no leaders. Under Set, its settings can give them some.');
      const place = lead(placement, student, groupId, isLeader);
      const group = groupOf(board, groupId)?.name ?? 'the group';
      if (place.moves.length > 0)
        doNow({
          place,
          says: `${nameOf(board, student)} ${isLeader ? 'leads' : 'no longer leads'} ${group}`,
        });
    },
    carry: (place, says) => place.moves.length > 0 && doNow({ place, says }),
    swapSelected: () => {
      const [one, other] = [...selected].map(([student, from]): Held => ({ student, from }));
      if (selected.size !== 2 || one === undefined || other === undefined)
        return notice('Select two students in different groups to swap them.');
      if (one.from === other.from) return notice('Both are in the same group already.');
      doNow({
        place: swap(placement, one, other),
        says: `${nameOf(board, one.student)} and ${nameOf(board, other.student)} swapped`,
      });
      setSelected(new Map());
    },
    undo: () => last && undoDone(last),
    redo: () => next && redoDone(next),
    pending: pending && {
      ...pending,
      goOn: (why, creditJoins) => {
        setPending(null);
        carryOn(creditJoins ? { ...pending.done, creditJoins } : pending.done, why);
      },
      leave: () => setPending(null),
    },
    canUndo: last,
    canRedo: next,
    history: past,
    savedAt,
    isSaving: isLoading,
  };
}

const Kept = z.object({ past: Done.array(), future: Done.array() });
interface Kept {
  readonly past: readonly Done[];
  readonly future: readonly Done[];
}
const mostKept = 1000;

/** What was done and taken back here, kept in this browser over a reload. What no longer fits the Board is refused by the server, and nothing is lost. */
function useKept(key: string) {
  const [kept, setKept] = useState<Kept>(() => read(key));
  const put = useCallback(
    (change: (before: Kept) => Kept) =>
      setKept((before) => {
        const next = change(before);
        keep(key, next, mostKept);
        return next;
      }),
    [key],
  );
  type Change = readonly Done[] | ((before: readonly Done[]) => readonly Done[]);
  const apply = (change: Change, before: readonly Done[]) =>
    typeof change === 'function' ? change(before) : change;
  return {
    ...kept,
    setPast: (change: Change) => put((before) => ({ ...before, past: apply(change, before.past) })),
    setFuture: (change: Change) => put((before) => ({ ...before, future: apply(change, before.future) })),
  };
}

/** The newest steps, as many as this browser has room for. */
function keep(key: string, { past, future }: Kept, most: number): void {
  const isKept = store(key, { past: past.slice(-most), future: future.slice(-most) });
  if (!isKept && most > 1) keep(key, { past, future }, Math.floor(most / 2));
}

const read = (key: string): Kept => readStored(key, Kept) ?? { past: [], future: [] };

const nameOf = (board: BoardView, id: EnrolmentId) =>
  board.students.find((student) => student.enrolmentId === id)?.name ?? 'A student';
const groupOf = (board: BoardView, id: GroupId | null) => board.groups.find((group) => group.id === id);

/** Locked groups that an act would put someone in or take someone out of. */
const lockedIn = (board: BoardView, { moves }: Place): readonly BoardGroup[] =>
  board.groups.filter(
    (group) =>
      group.isLocked &&
      moves.some((move) => move.from !== move.to && (move.from === group.id || move.to === group.id)),
  );

/** null: nothing that is handed in is left behind. */
function leaving(board: BoardView, move: Move): Leaving | null {
  if (move.from === null || move.from === move.to) return null;
  const person = board.students.find((student) => student.enrolmentId === move.student);
  const seat = person?.seats.find((each) => each.groupId === move.from);
  return person && seat && seat.handIns > 0 ? { ...move, person, handIns: seat.handIns } : null;
}

function sayPlace(board: BoardView, place: Place, to: GroupId | null): string {
  const who =
    place.moves.length === 1 ? nameOf(board, sure(place.moves[0]).student) : `${place.moves.length} students`;
  if (to === null) return `${who} removed from their group`;
  const isMove = place.moves.every((move) => move.from !== null);
  return `${who} ${isMove ? 'moved to' : 'placed in'} ${groupOf(board, to)?.name ?? 'a group'}`;
}

/** "Tun has 5 of 4. Move one student, or let Tun hold 5." */
function overAfter(board: BoardView, placement: Placement, place: Place): string | null {
  const applied = apply(placement, place, board.set.isExclusive);
  if (!applied.ok) return null; // the server says how it is
  for (const groupId of new Set(place.moves.map((move) => move.to))) {
    const group = groupOf(board, groupId);
    const capacity = group && capacityOf(board, group);
    if (!group || capacity === null || capacity === undefined) continue;
    const members = [...applied.placement.values()].filter((seats) =>
      seats.some((seat) => seat.groupId === groupId),
    ).length;
    const over = members - capacity;
    if (over > 0)
      return `${group.name} has ${members} of ${capacity}. Move ${over === 1 ? 'one student' : `${over} students`}, or let ${group.name} hold ${members}.`;
  }
  return null;
}

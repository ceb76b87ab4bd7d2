import { useState } from 'react';
import type { BoardView } from '@jigsaw/contract/placing';
import { seatingOf } from './seating.js';
import type { Seating } from './seating.js';

/** Lists of members that did not change are the same objects as before. */
export function useSeating(board: BoardView): Seating {
  const [kept, keep] = useState(() => ({
    students: board.students,
    groups: board.groups,
    seating: seatingOf(board),
  }));
  if (kept.students === board.students && kept.groups === board.groups) return kept.seating;
  const next = { students: board.students, groups: board.groups, seating: seatingOf(board, kept.seating) };
  keep(next);
  return next.seating;
}

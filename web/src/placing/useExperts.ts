import { wrap } from 'comlink';
import { useMemo, useState } from 'react';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ExpertSeats, SeatedExperts } from '@jigsaw/core/dealing';
import { cutAgain, rebalanced } from '@jigsaw/core/dealing';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { counted } from '@jigsaw/core/text';
import { useNotice } from '../look/index.js';
import type { ExpertBoard } from './experts.js';
import { expertBoardOf, movesToSeats } from './experts.js';
import type { BoardActs } from './useBoard.js';

const mostSeeds = 10_000;

export interface ExpertActs extends ExpertBoard {
  /** Evens the tables out with as few moves as can be. */
  readonly rebalance: () => void;
  /** Seats everyone anew by chance. */
  readonly cutAgain: () => void;
  readonly isWorking: boolean;
}

/** What can be done with expert tables as a whole, each one act of the Board with its way back.
 * @returns null: these are no expert tables. */
export function useExperts(board: BoardView, acts: BoardActs): ExpertActs | null {
  const notice = useNotice();
  const [isWorking, setWorking] = useState(false);
  const expertBoard = useMemo(() => expertBoardOf(board), [board]);
  if (!expertBoard) return null;
  const { experts } = expertBoard;
  const carryOut = async (seed: number | null) => {
    setWorking(true);
    try {
      const place = movesToSeats(acts.placement, experts, await seatApart(experts, seed));
      const count = place.moves.length;
      if (count === 0) notice('The tables are as even as they can be. No one moved.');
      else
        acts.carry(
          place,
          seed === null
            ? `${counted(count, 'student')} moved to even out the tables`
            : `Tables dealt again, seed ${seed}`,
        );
    } catch {
      notice('The tables could not be worked out. Nothing was changed; try again.');
    } finally {
      setWorking(false);
    }
  };
  return {
    ...expertBoard,
    rebalance: () => void carryOut(null),
    cutAgain: () => void carryOut(Math.floor(Math.random() * mostSeeds)),
    isWorking,
  };
}

/** The home group whose people are marked at the tables; while someone is sought, those who were found are. */
export function usePicked(experts: ExpertBoard | null, sought: string, found: ReadonlySet<EnrolmentId>) {
  const [picked, setPicked] = useState<number | null>(null);
  const marked = useMemo(() => {
    if (picked === null || sought.trim() !== '') return found;
    return new Set(experts?.homes.find((home) => home.number === picked)?.people);
  }, [picked, sought, found, experts]);
  return { picked, setPicked, marked };
}

/** On a worker of the page. Where there are none it is done at once; a test has none. */
async function seatApart(experts: SeatedExperts, seed: number | null): Promise<ExpertSeats> {
  const work = { cutAgain, rebalanced };
  if (typeof Worker === 'undefined')
    return seed === null ? work.rebalanced(experts) : work.cutAgain(experts, seed);
  const worker = new Worker(new URL('./experts.worker.ts', import.meta.url), { type: 'module' });
  try {
    const apart = wrap<typeof work>(worker);
    const failed = new Promise<never>((_, reject) =>
      worker.addEventListener('error', () => reject(new Error('the worker ended'))),
    );
    const answer = seed === null ? apart.rebalanced(experts) : apart.cutAgain(experts, seed);
    return await Promise.race([answer, failed]);
  } finally {
    worker.terminate();
  }
}

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Deal, DealProblem } from '@jigsaw/core/dealing';
import { isPerfect } from '@jigsaw/core/dealing';
import { lookOn } from './dealRunner.js';

/** What costs less by so much of what chance would cost is worth telling. */
const worthTelling = 0.002;

/** What comes of looking beyond a deal. */
export interface Looking {
  readonly problem: DealProblem;
  readonly isOver: boolean;
  /** Better than what was found before; null: nothing yet. */
  readonly better: Deal | null;
}

/** Goes on looking for a better deal while someone reads what was found; nothing changes until they ask to see it. */
export function useLookOn() {
  const [looking, setLooking] = useState<Looking | null>(null);
  const ending = useRef<() => void>(undefined);
  const end = useCallback(() => {
    ending.current?.();
    ending.current = undefined;
    setLooking(null);
  }, []);
  useEffect(() => end, [end]);
  const begin = (problem: DealProblem, found: Deal) => {
    end();
    if (found.reached.length === 0 || isPerfect(found)) return;
    setLooking({ problem, isOver: false, better: null });
    let least = found.objective - worthTelling;
    const take = (deal: Deal | null, isOver: boolean) => {
      const better = deal && deal.objective < least ? deal : null;
      if (better) least = better.objective;
      setLooking((before) => before && { ...before, isOver, better: better ?? before.better });
    };
    ending.current = lookOn(problem, (told) => {
      if (told.kind === 'going') take(told.best, false);
      else take(told.kind === 'dealt' && told.dealt.ok ? told.dealt.deal : null, true);
    });
  };
  return { looking, begin, end };
}

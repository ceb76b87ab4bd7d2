import { useCallback, useEffect, useRef, useState } from 'react';
import type { Deal, DealProblem, Dealing, Dealt } from '@jigsaw/core/dealing';
import { dealAll } from '@jigsaw/core/dealing';
import type { FromWorker } from './deal.worker.js';

export interface MadeDeal {
  readonly problem: DealProblem;
  readonly dealt: Dealt;
  /** It was stopped; this is the best until then. */
  readonly isStopped: boolean;
}

/** Deals in a worker: how far it is, the deals that were made, and stopping with the best so far. */
export function useDeal() {
  const [deals, setDeals] = useState<readonly MadeDeal[]>([]);
  const [going, setGoing] = useState<{ readonly problem: DealProblem; readonly dealing: Dealing | null } | null>(null);
  const worker = useRef<Worker | null>(null);
  const end = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setGoing(null);
  }, []);
  useEffect(() => end, [end]);

  const start = useCallback(
    (problem: DealProblem) => {
      end();
      const keep = (dealt: Dealt) => {
        setDeals((before) => [...before, { problem, dealt, isStopped: false }]);
        end();
      };
      // Where there are no workers it is done at once; a test has none.
      if (typeof Worker === 'undefined') return keep(dealAll(problem));
      setGoing({ problem, dealing: null });
      worker.current = new Worker(new URL('./deal.worker.ts', import.meta.url), { type: 'module' });
      worker.current.onmessage = ({ data }: MessageEvent<FromWorker>) =>
        data.kind === 'done' ? keep(data.dealt) : setGoing({ problem, dealing: data.dealing });
      worker.current.postMessage(problem);
    },
    [end],
  );
  const stop = useCallback(() => {
    const best: Deal | undefined = going?.dealing?.best;
    if (going && best) setDeals((before) => [...before, { problem: going.problem, dealt: { ok: true, deal: best }, isStopped: true }]);
    end();
  }, [going, end]);
  const forget = useCallback(() => {
    setDeals([]);
    end();
  }, [end]);
  return { deals, going, start, stop, forget };
}

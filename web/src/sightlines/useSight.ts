import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { SightOf, Why } from '@jigsaw/core/sightlines';
import type { SightColumn, SightSpot } from './columns.js';
import type { Cells, sightWork } from './sightWork.js';
import { sightWork as workHere, unpacker } from './sightWork.js';

type Work = ReturnType<typeof sightWork>;
export type Asked<T> = { readonly answer: T } | { readonly hasFailed: true };

/** What is worked out apart from the page. */
export interface Sight {
  readonly cells: (columns: readonly SightColumn[], at: number) => Promise<Cells>;
  readonly why: (spot: SightSpot, of: SightOf, at: number) => Promise<Why | null>;
}

/** Works out who sees what off the page's own thread; where there are no workers it is done here. */
export function useSight(view: SightlinesView): Sight {
  const work = useMemo(() => startWork(view), [view]);
  useEffect(() => () => work.end(), [work]);
  return work;
}

/** What is drawn: cells with the lines and columns that they belong to. */
export interface SightShown {
  readonly activities: SightlinesView['activities'];
  readonly columns: readonly SightColumn[];
  readonly cells: Cells;
}

/** Cells at a moment. While the moment moves, or something changed in the course, the last ones stay until the next are worked out; of moments that pass by
 * while one is worked out, only the last is asked for.
 * @param by what the columns are: others start anew.
 * @returns null: not worked out yet. */
export function useCells(
  sight: Sight,
  view: SightlinesView,
  columns: readonly SightColumn[],
  by: string,
  at: number,
): Asked<SightShown> | null {
  const work = useCallback(
    async (moment: number) => {
      const cells = await sight.cells(columns, moment);
      return { activities: view.activities, columns, cells };
    },
    [sight, view, columns],
  );
  return useLast(work, by, at);
}

/** Why a cell is as it is; null: not worked out yet. */
export function useWhy(sight: Sight, spot: SightSpot, of: SightOf, at: number): Asked<Why | null> | null {
  const work = useCallback((moment: number) => sight.why(spot, of, moment), [sight, spot, of]);
  return useLast(work, `${spot.activityId} ${spot.column}`, at);
}

function useLast<T>(work: (at: number) => Promise<T>, about: string, at: number): Asked<T> | null {
  const [told, setTold] = useState<{ readonly about: string; readonly asked: Asked<T> } | null>(null);
  const line = useMemo(
    () => oneAfterAnother(work, (asked: Asked<T>) => setTold({ about, asked })),
    [work, about],
  );
  useEffect(() => {
    line.begin();
    return line.end;
  }, [line]);
  useEffect(() => line.want(at), [line, at]);
  return told?.about === about ? told.asked : null;
}

/** Asks for one moment after another, and leaves out those that passed by before it was their turn. */
function oneAfterAnother<T>(work: (at: number) => Promise<T>, tell: (asked: Asked<T>) => void) {
  let [isBusy, isOver] = [false, false];
  let next: number | null = null;
  const run = async () => {
    isBusy = true;
    while (next !== null) {
      const at = next;
      next = null;
      const asked = await work(at).then(
        (answer): Asked<T> => ({ answer }),
        (): Asked<T> => ({ hasFailed: true }),
      );
      if (!isOver) tell(asked);
    }
    isBusy = false;
  };
  return {
    begin: () => {
      isOver = false;
    },
    want: (at: number) => {
      next = at;
      if (!isBusy) void run();
    },
    end: () => {
      isOver = true;
      next = null;
    },
  };
}

function startWork(view: SightlinesView): Sight & { readonly end: () => void } {
  const unpack = unpacker();
  const ofAll = (columns: readonly SightColumn[]) => columns.map(({ of }) => of);
  if (typeof Worker === 'undefined') {
    const here = workHere();
    here.load(view);
    return {
      cells: (columns, at) => Promise.resolve(unpack(here.cells(ofAll(columns), at))),
      why: ({ activityId }, of, at) => Promise.resolve(here.why(activityId, of, at)),
      end: () => undefined,
    };
  }
  const worker = new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' });
  const apart: Remote<Work> = wrap<Work>(worker);
  const failed = new Promise<never>((_, reject) =>
    worker.addEventListener('error', () => reject(new Error('the worker ended'))),
  );
  failed.catch(() => undefined); // told to those who ask
  const loaded = apart.load(view);
  const ask = async <T>(question: () => Promise<T>): Promise<T> => {
    await Promise.race([loaded, failed]);
    return Promise.race([question(), failed]);
  };
  return {
    cells: async (columns, at) => unpack(await ask(() => apart.cells(ofAll(columns), at))),
    why: ({ activityId }, of, at) => ask(() => apart.why(activityId, of, at)),
    end: () => worker.terminate(),
  };
}

import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { GroupSetId } from '@jigsaw/core/ids';
import type { Cells, sightWork } from './sightWork.js';
import { sightWork as workHere } from './sightWork.js';

type Work = ReturnType<typeof sightWork>;
interface Told {
  readonly view: SightlinesView;
  readonly setId: GroupSetId;
  readonly cells: Cells;
}

/** Who sees what at a moment, worked out apart from the page; where there are no workers it is done here. Until the first answer, and while another
 * set is asked for, there is none; while only the moment moves, the cells of the last one stay.
 * @returns null: not worked out yet. */
export function useCells(
  view: SightlinesView | undefined,
  setId: GroupSetId | null,
  at: number,
): { readonly cells: Cells | null; readonly hasFailed: boolean } {
  const [told, setTold] = useState<Told | null>(null);
  const [hasFailed, setHasFailed] = useState(false);
  const work = useMemo(() => (view ? startWork(view) : null), [view]);
  useEffect(() => () => work?.end(), [work]);
  useEffect(() => {
    if (!work || !view || setId === null) return;
    let isOutdated = false;
    work.cells(setId, at).then(
      (cells) => {
        if (!isOutdated) setTold({ view, setId, cells });
      },
      () => {
        if (!isOutdated) setHasFailed(true);
      },
    );
    return () => {
      isOutdated = true;
    };
  }, [work, view, setId, at]);
  const isOfThese = told !== null && told.setId === setId && told.view.activities === view?.activities;
  return { cells: isOfThese ? told.cells : null, hasFailed };
}

function startWork(view: SightlinesView) {
  if (typeof Worker === 'undefined') {
    const here = workHere();
    here.load(view);
    return {
      cells: (setId: GroupSetId, at: number) => Promise.resolve(here.cells(setId, at)),
      end: () => undefined,
    };
  }
  const worker = new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' });
  const apart: Remote<Work> = wrap<Work>(worker);
  const failed = new Promise<never>((_, reject) =>
    worker.addEventListener('error', () => reject(new Error('the worker ended'))),
  );
  const loaded = apart.load(view);
  return {
    cells: async (setId: GroupSetId, at: number) => {
      await Promise.race([loaded, failed]);
      return Promise.race([apart.cells(setId, at), failed]);
    },
    end: () => worker.terminate(),
  };
}

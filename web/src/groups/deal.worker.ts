import type { DealProblem, Dealing, Dealt } from '@jigsaw/core/dealing';
import { dealing } from '@jigsaw/core/dealing';

export type FromWorker = { readonly kind: 'going'; readonly dealing: Dealing } | { readonly kind: 'done'; readonly dealt: Dealt };

/** Looks for a deal off the page's own thread; whoever started it hears how far it is, and stops it by ending it. */
self.onmessage = ({ data }: MessageEvent<DealProblem>) => {
  const run = dealing(data);
  const tell = (message: FromWorker) => self.postMessage(message);
  for (;;) {
    const next = run.next();
    if (next.done) return tell({ kind: 'done', dealt: next.value });
    tell({ kind: 'going', dealing: next.value });
  }
};

import { parentPort, workerData } from 'node:worker_threads';
import type { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';
import { dealing, packDeal } from '@jigsaw/core/dealing';

/** Works one deal out on a thread of its own, so that nobody else waits for it. */
const problem = workerData as DealProblem;
const tell = (line: DealLine) => parentPort?.postMessage(line);
const run = dealing(problem);
for (;;) {
  const next = run.next();
  if (next.done) {
    const dealt = next.value;
    tell(
      dealt.ok
        ? { kind: 'dealt', deal: packDeal(problem, dealt.deal) }
        : { kind: 'clash', clash: dealt.clash },
    );
    break;
  }
  tell({ kind: 'going', part: next.value.part, best: packDeal(problem, next.value.best) });
}

import type { MessagePort } from 'node:worker_threads';
import type { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';
import { dealing, packDeal } from '@jigsaw/core/dealing';
import { yieldToOthers } from '../platform/yielding.js';

yieldToOthers();

export interface DealTask {
  readonly problem: DealProblem;
  readonly tell: MessagePort;
}

/** What it says on the way; how it ends is its answer. */
export type DealTold = Extract<DealLine, { kind: 'going' }>;
export type DealEnd = Exclude<DealLine, { kind: 'going' }>;

/** Works one deal out on a thread of its own, so that no one else waits for it. */
export default function workOut({ problem, tell }: DealTask): DealEnd {
  const say = (told: DealTold) => {
    tell.postMessage(told);
  };
  const run = dealing(problem);
  for (;;) {
    const next = run.next();
    if (next.done) {
      const dealt = next.value;
      return dealt.ok
        ? { kind: 'dealt', deal: packDeal(problem, dealt.deal) }
        : { kind: 'clash', clash: dealt.clash };
    }
    say({ kind: 'going', part: next.value.part, best: packDeal(problem, next.value.best) });
  }
}

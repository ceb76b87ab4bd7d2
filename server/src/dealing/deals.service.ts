import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import type { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';
import type { DealEnd, DealTask, DealTold } from './deal.thread.js';

const longestMs = 120_000;
const mostMemoryMb = 512;

/** Deals of classes that are too large for a page, one at a time: the others wait their turn. */
@Injectable()
export class DealsService implements OnApplicationShutdown {
  /** The line is kept here: a pool without spare threads starts none for those in its own line when it ends one that was aborted. */
  private readonly inTurn = pLimit(1);
  private readonly threads = new Piscina<DealTask, DealEnd>({
    filename: fileURLToPath(new URL('./deal.thread.js', import.meta.url)),
    minThreads: 0,
    maxThreads: 1,
    resourceLimits: { maxOldGenerationSizeMb: mostMemoryMb },
  });

  async onApplicationShutdown(): Promise<void> {
    await this.threads.destroy();
  }

  /** @param signal aborted when nobody listens any more; ends the thread, wherever it is. */
  async workOut(problem: DealProblem, hear: (line: DealLine) => void, signal: AbortSignal): Promise<void> {
    const { port1: said, port2: tell } = new MessageChannel();
    const isTooLong = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    said.on('message', (told: DealTold) => {
      // Counted from where it begins, not from where it came to stand in line.
      if (told === 'begun') timer = setTimeout(() => isTooLong.abort(), longestMs);
      else hear(told);
    });
    try {
      const ends = AbortSignal.any([signal, isTooLong.signal]);
      const end = await this.inTurn(() =>
        this.threads.run({ problem, tell }, { transferList: [tell], signal: ends }),
      );
      said.close();
      hear(end);
    } catch (cause) {
      if (isTooLong.signal.aborted)
        hear({
          kind: 'given-up',
          detail: 'No deal was found in two minutes. Take rules away, or deal part of the class.',
        });
      else if (!signal.aborted) throw cause;
    } finally {
      clearTimeout(timer);
      said.close();
    }
  }
}

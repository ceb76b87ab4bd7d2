import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';

const longestMs = 120_000;
const mostMemoryMb = 512;

/** Deals of classes that are too large for a page, one at a time: the others wait their turn. */
@Injectable()
export class DealsService implements OnApplicationShutdown {
  private line: Promise<void> = Promise.resolve();
  private readonly threads = new Set<Worker>();

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([...this.threads].map((thread) => thread.terminate()));
  }

  /** @param signal aborted when nobody listens any more. */
  workOut(problem: DealProblem, hear: (line: DealLine) => void, signal: AbortSignal): Promise<void> {
    const turn = this.line.then(() => (signal.aborted ? undefined : this.onThread(problem, hear, signal)));
    this.line = turn.catch(() => undefined);
    return turn;
  }

  private async onThread(
    problem: DealProblem,
    hear: (line: DealLine) => void,
    signal: AbortSignal,
  ): Promise<void> {
    const thread = new Worker(new URL('./deal.thread.js', import.meta.url), {
      workerData: problem,
      resourceLimits: { maxOldGenerationSizeMb: mostMemoryMb },
    });
    this.threads.add(thread);
    thread.on('message', hear);
    const end = () => void thread.terminate();
    signal.addEventListener('abort', end);
    const timer = setTimeout(() => {
      hear({
        kind: 'given-up',
        detail: 'No deal was found in two minutes. Take rules away, or deal part of the class.',
      });
      end();
    }, longestMs);
    try {
      await once(thread, 'exit'); // rejects with what went wrong in it
    } finally {
      clearTimeout(timer);
      signal.removeEventListener('abort', end);
      this.threads.delete(thread);
    }
  }
}

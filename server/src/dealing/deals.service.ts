import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { MessageChannel } from 'node:worker_threads';
import type { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';
import { Problem, problems } from '../platform/problems.js';
import { Thread, threadFile } from '../platform/thread.js';
import type { DealEnd, DealTask, DealTold } from './deal.thread.js';

/** Deals of classes that are too large for a page, one at a time; anyone who asks for several waits behind those of others. */
@Injectable()
export class DealsService implements OnApplicationShutdown {
  private readonly thread = new Thread<DealTask, DealEnd>(threadFile(import.meta.url, './deal.thread.js'), {
    atOnce: 1,
    mostWaiting: 5,
    longestMs: 120_000,
    mostMemoryMb: 512,
    beyond: () =>
      problems.conflict('No deal was found in two minutes. Remove rules, or deal part of the class.'),
  });

  onApplicationShutdown(): Promise<void> {
    return this.thread.end();
  }

  /** @param owner whose deal it is.
   * @param signal aborted when no one listens any more; ends the thread, wherever it is. */
  async workOut(
    owner: string,
    problem: DealProblem,
    hear: (line: DealLine) => void,
    signal: AbortSignal,
  ): Promise<void> {
    const { port1: said, port2: tell } = new MessageChannel();
    said.on('message', (told: DealTold) => hear(told));
    try {
      const end = await this.thread.run({ problem, tell }, { owner, transferList: [tell], signal });
      said.close();
      hear(end);
    } catch (cause) {
      if (cause instanceof Problem) hear({ kind: 'given-up', detail: cause.detail });
      else if (!signal.aborted) throw cause;
    } finally {
      said.close();
    }
  }
}

import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { FairQueue } from './fairQueue.js';
import type { Problem } from './problems.js';
import { problems } from './problems.js';

interface Limits {
  readonly atOnce: number;
  /** Of one owner so many wait at most; more are told to come again. */
  readonly mostWaiting: number;
  /** From where the work begins, not from where it came to stand in line. */
  readonly longestMs: number;
  readonly mostMemoryMb: number;
  /** What the asker is told when it took longer or more memory; both end the thread, and the next piece of work gets a new one. */
  readonly beyond: () => Problem;
}

interface Run {
  /** Whose work it is: owners take turns. */
  readonly owner: string;
  readonly transferList?: readonly (ArrayBuffer | MessagePort)[];
  /** Aborted when no one wants it any more; ends the thread, wherever it is. */
  readonly signal?: AbortSignal;
}

/** Work that takes long or reads what anybody may send, on a thread of its own and within limits: the thread that serves everyone goes on. */
export class Thread<Task, End> {
  private readonly line: FairQueue;
  private readonly threads: Piscina<Task, End>;

  constructor(
    file: string,
    private readonly limits: Limits,
  ) {
    this.line = new FairQueue(limits.atOnce, limits.mostWaiting, problems.busy);
    this.threads = new Piscina<Task, End>({
      filename: file,
      minThreads: 0,
      maxThreads: limits.atOnce,
      idleTimeout: 30_000,
      resourceLimits: { maxOldGenerationSizeMb: limits.mostMemoryMb },
    });
  }

  run(task: Task, { owner, transferList = [], signal }: Run): Promise<End> {
    return this.line.run(owner, async () => {
      signal?.throwIfAborted();
      const isTooLong = AbortSignal.timeout(this.limits.longestMs);
      try {
        return await this.threads.run(task, {
          transferList: [...transferList] as never,
          signal: signal ? AbortSignal.any([signal, isTooLong]) : isTooLong,
        });
      } catch (cause) {
        if (signal?.aborted) throw cause;
        throw isTooLong.aborted || isOutOfMemory(cause) ? this.limits.beyond() : cause;
      }
    });
  }

  async end(): Promise<void> {
    await this.threads.destroy();
  }
}

/** Where the code of a thread is. Tests run from the sources, and threads know no TypeScript: theirs is the build.
 * @param here of the module that asks: `import.meta.url`. */
export const threadFile = (here: string, name: string): string =>
  fileURLToPath(new URL(name, here.endsWith('.ts') ? here.replace('/server/src/', '/server/dist/') : here));

const isOutOfMemory = (cause: unknown): boolean =>
  (cause as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY';

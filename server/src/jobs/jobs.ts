import { setTimeout as wait } from 'node:timers/promises';
import type { OnApplicationShutdown } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import type { Runner } from 'graphile-worker';
import { Logger, parseCronItems, run } from 'graphile-worker';
import { PinoLogger } from 'nestjs-pino';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';

const againMs = 5000;
const isTold: ReadonlySet<string> = new Set(['error', 'warning']);

/** Work that no one asks for, kept in a queue in the database: whichever server process is there does it, one of them at a time, and one
 * that dies over it loses nothing, since the next minute brings it again. */
@Injectable()
export class Jobs implements OnApplicationShutdown {
  private readonly everyMinute = new Map<string, () => Promise<void>>();
  private readonly stopping = new AbortController();
  private runner: Runner | null = null;
  private underWay: Promise<void> = Promise.resolve();

  constructor(
    private readonly log: PinoLogger,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** To be done at each full minute, and once at the start for what was missed. It may be called twice at once, and again after it died half-way.
   * @param name in the queue: stays the same from version to version. */
  eachMinute(name: string, work: () => Promise<void>): void {
    this.everyMinute.set(name, work);
  }

  /** Does what there is to do from now on, until the application ends. Without a database nothing can be done; once it is there again, everything
   * is caught up with. */
  start(): void {
    this.underWay = this.goOn();
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping.abort();
    await this.runner?.stop().catch(hasEnded);
    await this.underWay;
  }

  /** One runner after the other, never two. */
  private async goOn(): Promise<void> {
    const { signal } = this.stopping;
    while (!signal.aborted) {
      try {
        await this.runUntilItEnds();
      } catch (error) {
        this.log.warn({ err: error }, 'jobs are not done for now');
      }
      await wait(againMs, undefined, { signal, ref: false }).catch(hasEnded);
    }
  }

  private async runUntilItEnds(): Promise<void> {
    const { databaseUrl } = this.config;
    const logger = new Logger(() => (level, message) => {
      if (isTold.has(level)) this.log.warn({ said: message }, 'the queue of jobs');
    });
    const names = [...this.everyMinute.keys()];
    const runner = await run({
      connectionString: databaseUrl,
      logger,
      maxPoolSize: 3,
      concurrency: 1,
      noHandleSignals: true, // the application ends it
      taskList: Object.fromEntries(this.everyMinute),
      parsedCronItems: parseCronItems(
        names.map((task) => ({
          task,
          match: '* * * * *',
          options: { backfillPeriod: 0, maxAttempts: 1, jobKey: task, jobKeyMode: 'replace' },
        })),
      ),
    });
    this.runner = runner;
    try {
      for (const name of names) await runner.addJob(name, {}, { jobKey: name, maxAttempts: 1 });
      if (!this.stopping.signal.aborted) await runner.promise;
    } finally {
      this.runner = null;
      await runner.stop().catch(hasEnded);
    }
  }
}

/** What was to end has ended already. */
const hasEnded = (): void => undefined;

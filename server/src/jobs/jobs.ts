import type { OnApplicationShutdown } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import type { Runner } from 'graphile-worker';
import { Logger, parseCronItems, run, runMigrations } from 'graphile-worker';
import { PinoLogger } from 'nestjs-pino';
import { oneAtATime } from '../platform/oneAtATime.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';

const againMs = 5000;
const isTold: ReadonlySet<string> = new Set(['error', 'warning']);

/** Work that no one asks for, kept in a queue in the database: whichever server process is there does it, one of them at a time, and one
 * that dies over it loses nothing, since the next minute brings it again. */
@Injectable()
export class Jobs implements OnApplicationShutdown {
  private readonly everyMinute = new Map<string, () => Promise<void>>();
  private runner: Runner | null = null;
  private underWay: Promise<void> = Promise.resolve();
  private isStopping = false;

  constructor(
    private readonly log: PinoLogger,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** To be done at each full minute, and once at the start for what was missed. It may be called twice at once, and again after it died half-way.
   * @param name in the queue: stays the same from version to version. */
  eachMinute(name: string, work: () => Promise<void>): void {
    this.everyMinute.set(name, work);
  }

  /** Does what there is to do from now on, until the application ends. */
  start(): void {
    this.underWay = this.begin().catch((error: unknown) => this.startAgain(error));
  }

  async onApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    await this.underWay;
    await this.runner?.stop();
  }

  private async begin(): Promise<void> {
    if (this.isStopping) return;
    const { databaseUrl } = this.config;
    const logger = new Logger(() => (level, message) => {
      if (isTold.has(level)) this.log.warn({ job: message }, 'a job');
    });
    const options = { connectionString: databaseUrl, logger, maxPoolSize: 3 };
    await oneAtATime(databaseUrl, 'jobs', () => runMigrations(options));
    const names = [...this.everyMinute.keys()];
    const runner = await run({
      ...options,
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
    runner.promise.then(
      () => this.startAgain('it ended'),
      (error: unknown) => this.startAgain(error),
    );
    for (const name of names) await runner.addJob(name, {}, { jobKey: name, maxAttempts: 1 });
  }

  /** Without a database nothing can be done; once it is there, everything is caught up with. */
  private startAgain(error: unknown): void {
    if (this.isStopping) return;
    this.log.warn({ err: error }, 'jobs are not done for now');
    this.runner = null;
    setTimeout(() => this.start(), againMs).unref();
  }
}

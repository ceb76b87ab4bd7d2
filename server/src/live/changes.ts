import type { OnApplicationBootstrap, OnApplicationShutdown } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import pg from 'pg';
import { z } from 'zod';
import type { CourseId } from '@jigsaw/core/ids';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';

const Change = z.object({
  courseId: z.string(),
  type: z.string(),
  /** Of whose act it is; null: of no page that is open. */
  page: z.string().nullable(),
  groupIds: z.array(z.string()),
  enrolmentIds: z.array(z.string()),
  setIds: z.array(z.string()),
  isForAll: z.boolean(),
  isForStaff: z.boolean(),
});
export type Change = z.infer<typeof Change>;

const retryMs = 2000;

/** Hears of every committed change, whichever server process made it, and tells whoever listens here. */
@Injectable()
export class Changes implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly listeners = new Map<string, Set<(change: Change) => void>>();
  private client: pg.Client | null = null;
  private isStopping = false;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly log: PinoLogger,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.connect();
  }

  async onApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    await this.client?.end();
  }

  /** A subscription is the function that ends it. */
  subscribe(courseId: CourseId, listener: (change: Change) => void): () => void {
    const own = this.listeners.get(courseId) ?? new Set();
    this.listeners.set(courseId, own.add(listener));
    return () => {
      own.delete(listener);
      if (own.size === 0 && this.listeners.get(courseId) === own) this.listeners.delete(courseId);
    };
  }

  private async connect(): Promise<void> {
    const client = new pg.Client({ connectionString: this.config.databaseUrl });
    client.on('notification', ({ payload }) => {
      const change = Change.parse(JSON.parse(payload ?? '{}'));
      for (const listener of [...(this.listeners.get(change.courseId) ?? [])]) listener(change);
    });
    client.on('error', (error) => this.reconnect(client, error));
    try {
      await client.connect();
      await client.query('LISTEN course_event');
      this.client = client;
    } catch (error) {
      this.reconnect(client, error);
    }
  }

  private reconnect(client: pg.Client, error: unknown): void {
    if (this.isStopping || (this.client !== null && this.client !== client)) return;
    this.log.warn({ err: error }, 'lost the line to the database for live changes');
    this.client = null;
    setTimeout(() => void (this.isStopping || this.connect()), retryMs).unref();
  }
}

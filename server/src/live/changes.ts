import type { OnApplicationBootstrap, OnApplicationShutdown } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import pg from 'pg';
import { z } from 'zod';
import type {
  CopyId,
  CourseId,
  EnrolmentId,
  GroupId,
  GroupSetId,
  ReleaseId,
  SessionId,
} from '@jigsaw/core/ids';
import type { Act } from '@jigsaw/core/course';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { Happenings } from '../platform/happenings.js';
import { processId } from '../platform/unitOfWork.js';

const id = <Id extends string>() => z.custom<Id>((value) => typeof value === 'string');
const Change = z.object({
  courseId: id<CourseId>(),
  type: z.string(),
  /** Of whose act it is; null: of no page that is open. */
  page: z.string().nullable(),
  /** Which process made it. */
  by: z.string(),
  groupIds: z.array(id<GroupId>()),
  enrolmentIds: z.array(id<EnrolmentId>()),
  setIds: z.array(id<GroupSetId>()),
  isForAll: z.boolean(),
  staff: z.custom<Act>((value) => typeof value === 'string').nullable(),
  staffOf: id<GroupId>().nullable(),
  copies: z
    .object({
      releaseId: id<ReleaseId>(),
      copyIds: z.array(id<CopyId>()).nullable(),
      ownerId: id<EnrolmentId>().nullable(),
      isForStaffOnly: z.boolean(),
      wasOut: z.boolean(),
    })
    .nullable(),
});
/** What happened in a course, and who it concerns. */
export type Change = z.infer<typeof Change>;

export interface ChangeListener {
  changed(change: Change): void;
  sessionEnded(sessionId: SessionId): void;
  /** No one knows what was missed. */
  gap(): void;
}

const retryMs = 2000;

/** Hears of every committed change, whichever server process made it, over one line to the database. */
@Injectable()
export class Changes implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly listeners: ChangeListener[] = [];
  private client: pg.Client | null = null;
  private isStopping = false;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly log: PinoLogger,
    private readonly happenings: Happenings,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.connect();
  }

  async onApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    await this.client?.end();
  }

  tell(listener: ChangeListener): void {
    this.listeners.push(listener);
  }

  private async connect(): Promise<void> {
    const client = new pg.Client({ connectionString: this.config.databaseUrl });
    client.on('notification', ({ channel, payload = '' }) => this.hear(channel, payload));
    client.on('error', (error) => this.reconnect(client, error));
    try {
      await client.connect();
      await client.query('LISTEN course_event; LISTEN session_ended');
      this.client = client;
    } catch (error) {
      this.reconnect(client, error);
    }
  }

  private hear(channel: string, payload: string): void {
    if (channel === 'session_ended') {
      for (const listener of this.listeners) listener.sessionEnded(payload as SessionId);
      return;
    }
    const change = Change.parse(JSON.parse(payload));
    if (change.by !== processId) this.happenings.tell(change);
    for (const listener of this.listeners) listener.changed(change);
  }

  private reconnect(client: pg.Client, error: unknown): void {
    if (this.isStopping || (this.client !== null && this.client !== client)) return;
    this.log.warn({ err: error }, 'lost the line to the database for live changes');
    this.client = null;
    this.happenings.missed();
    for (const listener of this.listeners) listener.gap();
    setTimeout(() => void (this.isStopping || this.connect()), retryMs).unref();
  }
}

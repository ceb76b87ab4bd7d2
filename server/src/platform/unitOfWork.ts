import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import { Clock } from './clock.js';
import { EventRow } from './event.rows.js';
import { newId } from './ids.js';
import { json } from './json.js';

export interface HappenedEvent {
  readonly type: string;
  readonly courseId?: string | null;
  readonly actorId?: string | null;
  readonly subjectId?: string | null;
  readonly facts?: Record<string, unknown>;
  /** Groups whose members may learn that something changed; staff always do. */
  readonly groupIds?: readonly string[];
  /** The same for everybody in any group of these sets. */
  readonly setIds?: readonly string[];
  /** The same for everybody in the course. */
  readonly isForAll?: boolean;
}

export interface Work {
  readonly manager: EntityManager;
  readonly now: Date;
  record(event: HappenedEvent): Promise<void>;
}

/** One use case, all or nothing: the rows and the event that tells of them stand or fall together. */
@Injectable()
export class UnitOfWork {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
  ) {}

  run<Result>(use: (work: Work) => Promise<Result>): Promise<Result> {
    return this.dataSource.transaction(async (manager) => {
      const now = this.clock.now();
      return use({ manager, now, record: (event) => this.record(manager, now, event) });
    });
  }

  private async record(manager: EntityManager, now: Date, event: HappenedEvent): Promise<void> {
    const { type, courseId = null, actorId = null, subjectId = null, facts = {}, groupIds = [], setIds = [], isForAll = false } = event;
    await manager.insert(EventRow, { id: newId(), type, courseId, actorId, subjectId, facts: json(facts), at: now });
    // Sent by PostgreSQL when the transaction commits, and only then.
    if (courseId)
      await manager.query(`SELECT pg_notify('course_event', $1)`, [JSON.stringify({ courseId, type, groupIds: groupIds.slice(0, 150), setIds, isForAll })]);
  }
}

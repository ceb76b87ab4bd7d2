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
  /** Groups whose members may learn that something changed, and whoever looks after them. */
  readonly groupIds?: readonly string[];
  /** The same for these people, by enrolment: whoever was taken out of a group is in none of those named here any more. */
  readonly enrolmentIds?: readonly string[];
  /** The same for everybody in any group of these sets. */
  readonly setIds?: readonly string[];
  /** The same for everybody in the course. */
  readonly isForAll?: boolean;
  /** The same for all staff, also those who see the work of their groups only: who is in which group is open among them. */
  readonly isForStaff?: boolean;
}

export interface Work {
  readonly manager: EntityManager;
  readonly now: Date;
  record(event: HappenedEvent): Promise<void>;
}

/** PostgreSQL carries 8,000 bytes in one notification; an id takes 39. */
const idsInOne = 90;

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
    const {
      type,
      courseId = null,
      actorId = null,
      subjectId = null,
      facts = {},
      groupIds = [],
      enrolmentIds = [],
      setIds = [],
      isForAll = false,
    } = event;
    await manager.insert(EventRow, {
      id: newId(),
      type,
      courseId,
      actorId,
      subjectId,
      facts: json(facts),
      at: now,
    });
    // Sent by PostgreSQL when the transaction commits, and only then.
    if (!courseId) return;
    // What concerns no group by name concerns all staff.
    const isForStaff = event.isForStaff ?? (groupIds.length === 0 && enrolmentIds.length === 0);
    const whole = { courseId, type, setIds, isForAll, isForStaff };
    for (let at = 0; at === 0 || at < Math.max(groupIds.length, enrolmentIds.length); at += idsInOne) {
      const part = {
        ...whole,
        groupIds: groupIds.slice(at, at + idsInOne),
        enrolmentIds: enrolmentIds.slice(at, at + idsInOne),
      };
      await manager.query(`SELECT pg_notify('course_event', $1)`, [JSON.stringify(part)]);
    }
  }
}

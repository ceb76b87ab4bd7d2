import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { Clock } from './clock.js';
import { newId } from './ids.js';
import { pageOfRequest } from './requestContext.js';

export interface HappenedEvent {
  readonly type: string;
  readonly courseId?: CourseId | null;
  readonly actorId?: string | null;
  readonly subjectId?: string | null;
  readonly facts?: Record<string, unknown>;
  /** Groups whose members may learn that something changed, and whoever looks after them. */
  readonly groupIds?: readonly GroupId[];
  /** The same for these people, by enrolment: whoever was taken out of a group is in none of those named here any more. */
  readonly enrolmentIds?: readonly EnrolmentId[];
  /** The same for everybody in any group of these sets. */
  readonly setIds?: readonly GroupSetId[];
  /** The same for everybody in the course. */
  readonly isForAll?: boolean;
  /** The same for all staff, also those who see the work of their groups only: who is in which group is open among them. */
  readonly isForStaff?: boolean;
}

export interface Work {
  readonly manager: EntityManager;
  readonly now: Date;
  readonly record: (event: HappenedEvent) => Promise<void>;
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

  /** The row and what is sent of it in one statement; PostgreSQL sends it when the transaction commits, and only then. */
  private async record(manager: EntityManager, now: Date, event: HappenedEvent): Promise<void> {
    const { type, courseId = null, actorId = null, subjectId = null, facts = {} } = event;
    await manager.query(
      `WITH happened AS (INSERT INTO "event" ("id", "type", "courseId", "actorId", "subjectId", "facts", "at")
                         VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING 1)
       SELECT pg_notify('course_event', part) FROM happened, unnest($8::text[]) AS part`,
      [
        newId(),
        type,
        courseId,
        actorId,
        subjectId,
        JSON.stringify(facts),
        now,
        courseId ? partsOf(event) : [],
      ],
    );
  }
}

/** A change in notifications that PostgreSQL carries. What concerns no group by name concerns all staff. */
function partsOf(event: HappenedEvent): string[] {
  const { type, courseId, groupIds = [], enrolmentIds = [], setIds = [], isForAll = false } = event;
  const isForStaff = event.isForStaff ?? (groupIds.length === 0 && enrolmentIds.length === 0);
  const page = pageOfRequest();
  const parts: string[] = [];
  for (let at = 0; at === 0 || at < Math.max(groupIds.length, enrolmentIds.length); at += idsInOne) {
    const ids = {
      groupIds: groupIds.slice(at, at + idsInOne),
      enrolmentIds: enrolmentIds.slice(at, at + idsInOne),
    };
    parts.push(JSON.stringify({ courseId, type, page, setIds, isForAll, isForStaff, ...ids }));
  }
  return parts;
}

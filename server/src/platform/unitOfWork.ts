import { AsyncLocalStorage } from 'node:async_hooks';
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { ActType } from '@jigsaw/core/audit';
import type { CourseId } from '@jigsaw/core/ids';
import type { Concerns } from '@jigsaw/core/release';
import { Clock } from './clock.js';
import { gaveWayToAnother } from './databaseErrors.js';
import { Happenings } from './happenings.js';
import { newId } from './ids.js';
import { noteCommit, pageOfRequest } from './requestContext.js';

/** What happened, and who it concerns: left out, all staff of the course, or anyone who may read the copies that are named. */
export interface HappenedEvent extends Partial<Concerns> {
  readonly type: ActType;
  readonly courseId?: CourseId | null;
  readonly actorId?: string | null;
  readonly subjectId?: string | null;
  readonly facts?: Record<string, unknown>;
}

export interface Work {
  readonly manager: EntityManager;
  readonly now: Date;
  readonly record: (event: HappenedEvent) => Promise<void>;
}

type InTransaction<Result> = (manager: EntityManager) => Promise<Result>;
interface BeforeAndAfter<Seen> {
  readonly before: Seen;
  readonly after: Seen;
}

/** The transaction in which something is foreseen. */
const foreseeing = new AsyncLocalStorage<EntityManager>();

/** After so many times the course is too busy to be looked at ahead. */
const mostLooks = 6;

/** Of this process, so that it does not take what it did itself for someone else's. */
export const processId: string = randomUUID();

/** PostgreSQL carries 8,000 bytes in one notification; an id takes 39. */
const idsInOne = 60;

/** One use case, all or nothing: the rows and the event that tells of them stand or fall together. */
@Injectable()
export class UnitOfWork {
  private foreseen: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
    private readonly happenings: Happenings,
  ) {}

  async run<Result>(use: (work: Work) => Promise<Result>): Promise<Result> {
    const foreseen = foreseeing.getStore();
    if (foreseen) return use(this.workIn(foreseen));
    const happened: HappenedEvent[] = [];
    const result = await this.dataSource.transaction(async (manager) => {
      const now = this.clock.now();
      const record = (event: HappenedEvent) => {
        happened.push(event);
        return this.record(manager, now, event);
      };
      return use({ manager, now, record });
    });
    noteCommit();
    for (const { courseId, type, copies = null } of happened)
      if (courseId) this.happenings.tell({ courseId, type, copies });
    return result;
  }

  /** What `look` sees as it is, and as it would be after the use cases that `act` calls. They take place in a transaction of one moment that is undone: no one
   * hears of them, and nothing of them stays. One at a time, since each holds a connection and asks for others. */
  foresee<Seen>(act: InTransaction<unknown>, look: InTransaction<Seen>): Promise<BeforeAndAfter<Seen>> {
    const next = this.foreseen.then(() => this.lookAhead(act, look, mostLooks));
    this.foreseen = next.catch(() => undefined);
    return next;
  }

  /** What changed since its moment cannot be changed in it: then it looks again, from a later moment. */
  private async lookAhead<Seen>(
    act: InTransaction<unknown>,
    look: InTransaction<Seen>,
    tries: number,
  ): Promise<BeforeAndAfter<Seen>> {
    const runner = this.dataSource.createQueryRunner();
    const { manager } = runner;
    try {
      await runner.startTransaction('REPEATABLE READ');
      // The act comes first, right after the moment is taken: what it changes is hardly ever changed in between.
      await runner.query('SAVEPOINT "as_it_is"');
      const after = await foreseeing.run(manager, async () => {
        await act(manager);
        return look(manager);
      });
      await runner.query('ROLLBACK TO SAVEPOINT "as_it_is"');
      return { before: await look(manager), after };
    } catch (error) {
      if (tries === 1 || !gaveWayToAnother(error)) throw error;
    } finally {
      if (runner.isTransactionActive) await runner.rollbackTransaction();
      await runner.release();
    }
    return this.lookAhead(act, look, tries - 1);
  }

  private workIn(manager: EntityManager): Work {
    const now = this.clock.now();
    return { manager, now, record: (event) => this.record(manager, now, event) };
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

/** A change in notifications that PostgreSQL carries; each concerns some of the people and groups. */
function partsOf(event: HappenedEvent): string[] {
  const { type, courseId, groupIds = [], enrolmentIds = [], setIds = [], isForAll = false } = event;
  const { copies = null, staff = copies ? null : 'read-course', staffOf = null } = event;
  const page = pageOfRequest();
  const copyIds = copies?.copyIds ?? [];
  const parts: string[] = [];
  const most = Math.max(groupIds.length, enrolmentIds.length, copyIds.length);
  for (let at = 0; at === 0 || at < most; at += idsInOne) {
    const some = <Id>(ids: readonly Id[]) => ids.slice(at, at + idsInOne);
    const concerns: Concerns = {
      groupIds: some(groupIds),
      enrolmentIds: some(enrolmentIds),
      setIds,
      isForAll,
      staff,
      staffOf,
      copies: copies && { ...copies, copyIds: copies.copyIds && some(copyIds) },
    };
    parts.push(JSON.stringify({ courseId, type, page, by: processId, ...concerns }));
  }
  return parts;
}

import type { OnModuleDestroy } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { placeCameFree } from '@jigsaw/core/mail';
import { courseOf } from '../course/index.js';
import { MailService } from '../mail/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { setOf } from '../sets/index.js';
import { isOffered, stateOf } from './offered.js';
import { AwaitedPlaceRow } from './placing.rows.js';

const everyMs = 5000;

interface Waiting {
  readonly groupId: GroupId;
  readonly enrolmentId: EnrolmentId;
  readonly setId: GroupSetId;
  readonly group: string;
  readonly personId: PersonId;
  readonly name: string;
  readonly email: string;
}

/** Students who want to hear when a place in a full group comes free. They are looked for again and again, since a place comes free in many ways: someone moves or
 * leaves the course, a group may hold more, or is unlocked. */
@Injectable()
export class AwaitedPlaces implements OnModuleDestroy {
  private timer: NodeJS.Timeout | null = null;
  private underWay: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
    private readonly mail: MailService,
    private readonly log: PinoLogger,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Looks again and again from now on, until the application ends. */
  start(): void {
    let isStuck = false;
    this.timer = setInterval(() => {
      this.underWay = this.tell().then(
        () => (isStuck = false),
        (error: unknown) => {
          if (!isStuck) this.log.error({ err: error }, 'those who wait for a place could not be told');
          isStuck = true;
        },
      );
    }, everyMs);
  }

  async onModuleDestroy(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.underWay;
  }

  async await(
    manager: EntityManager,
    groupId: GroupId,
    enrolmentId: EnrolmentId,
    isAwaited: boolean,
  ): Promise<void> {
    if (!isAwaited) await manager.delete(AwaitedPlaceRow, { groupId, enrolmentId });
    else
      await manager
        .createQueryBuilder()
        .insert()
        .into(AwaitedPlaceRow)
        .values({ groupId, enrolmentId, since: this.clock.now() })
        .orIgnore()
        .execute();
  }

  /** How many wait for each group of a set, and whether this student does; those who left the course wait no more. */
  async of(
    manager: EntityManager,
    setId: GroupSetId,
    enrolmentId: EnrolmentId,
  ): Promise<ReadonlyMap<GroupId, { readonly count: number; readonly isOwn: boolean }>> {
    const rows = await manager.query<{ groupId: GroupId; count: number; isOwn: boolean }[]>(
      `SELECT w."groupId", count(*)::int AS "count", bool_or(w."enrolmentId" = $2) AS "isOwn"
         FROM "awaited_place" w JOIN "set_group" g ON g."groupId" = w."groupId" JOIN "present_student" p ON p."enrolmentId" = w."enrolmentId"
        WHERE g."setId" = $1 GROUP BY 1`,
      [setId, enrolmentId],
    );
    return new Map(rows.map(({ groupId, count, isOwn }) => [groupId, { count, isOwn }]));
  }

  /** Writes to everyone who waits for a group that has a free place now, once, and in one transaction with it. Two servers tell each person
   * once between them.
   * @returns how many were told. */
  async tell(): Promise<number> {
    return this.dataSource.transaction(async (manager) => {
      const waiting = await manager.query<Waiting[]>(
        `SELECT w."groupId", w."enrolmentId", g."setId", g."name" AS "group", p."personId", p."name", p."email"
           FROM "awaited_place" w JOIN "set_group" g ON g."groupId" = w."groupId" JOIN "present_student" p ON p."enrolmentId" = w."enrolmentId"
          WHERE g."setArchivedAt" IS NULL AND NOT g."isLocked"
            AND (g."capacity" IS NULL OR g."capacity" > (SELECT count(*) FROM "seat" s WHERE s."groupId" = g."groupId"))
          ORDER BY g."setId", w."since", w."enrolmentId" FOR UPDATE OF w SKIP LOCKED`,
      );
      let told = 0;
      for (const [setId, these] of groupedBy(waiting, (each) => each.setId))
        told += await this.tellOf(manager, setId, these);
      return told;
    });
  }

  private async tellOf(
    manager: EntityManager,
    setId: GroupSetId,
    waiting: readonly Waiting[],
  ): Promise<number> {
    const now = this.clock.now();
    const set = await setOf(manager, setId);
    if (!isOffered(set) || stateOf(set, now) !== 'open') return 0; // no one may take it
    const { code } = await courseOf(manager, set.courseId);
    const url = `${this.config.publicUrl}/c/${set.courseId}/choose/${setId}`;
    await this.mail.post(
      manager,
      set.courseId,
      now,
      waiting.map(({ personId, name, email, group }) => ({
        personId,
        toName: name,
        toAddress: email,
        text: placeCameFree({ name, group, courseCode: code, url }),
      })),
    );
    await manager.query(
      `DELETE FROM "awaited_place" w USING jsonb_to_recordset($1::jsonb) AS x("groupId" uuid, "enrolmentId" uuid)
        WHERE w."groupId" = x."groupId" AND w."enrolmentId" = x."enrolmentId"`,
      [JSON.stringify(waiting)],
    );
    return waiting.length;
  }
}

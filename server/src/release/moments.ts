import type { OnModuleInit } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { DataSource } from 'typeorm';
import type { ReleaseId } from '@jigsaw/core/ids';
import type { Concerns, Moment } from '@jigsaw/core/release';
import { momentsOf } from '@jigsaw/core/release';
import { Jobs } from '../jobs/index.js';
import { Clock } from '../platform/clock.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { closingsOf } from './closings.js';
import { scheduleOf, stateOf } from './facts.js';
import { hearersOfRelease } from './hearers.js';
import { ActivityRow, ReleaseRow } from './release.rows.js';

/** The event that tells of each. */
const eventOf = {
  'goes-live': 'activity.went-live',
  opens: 'activity.opened',
  closes: 'activity.closed',
} as const satisfies Record<Moment['what'], string>;

/** Releases go live, open and close at their minute, also when no one is there. What they are then is decided by their dates alone, to the
 * millisecond; this tells it: pages that are open ask again, and an event is kept for whatever follows from it. Once for each moment, whichever
 * process does it and however it ended before: what is told and that it was told are written together. */
@Injectable()
export class Moments implements OnModuleInit {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly clock: Clock,
    private readonly jobs: Jobs,
    private readonly log: PinoLogger,
  ) {}

  onModuleInit(): void {
    this.jobs.eachMinute('moments', () => this.tell());
  }

  /** Tells of all that has come by now. One release that cannot be told of does not hold up the others, and is tried again. */
  async tell(): Promise<void> {
    const due = await this.dataSource.query<{ id: ReleaseId }[]>(
      `SELECT r."id" FROM "release" r JOIN "activity" a ON a."id" = r."activityId"
        WHERE r."state" IN ('scheduled', 'live', 'closed')
          AND EXISTS (SELECT FROM unnest(ARRAY[a."opens", a."closes", CASE WHEN r."state" = 'scheduled' THEN r."stateAt" END]
                             || (SELECT array_agg("at") FROM (SELECT unnest(ARRAY["due", "closes"]) FROM "extension" WHERE "activityId" = a."id"
                                                   UNION ALL SELECT unnest(ARRAY["due", "closes"]) FROM "student_extension" WHERE "activityId" = a."id") granted("at"))) AS "at"
                       WHERE "at" > r."toldUntil" AND "at" <= $1)
        ORDER BY r."id"`,
      [this.clock.now()],
    );
    for (const { id } of due)
      try {
        await this.unitOfWork.run((work) => this.tellOf(work, id));
      } catch (error) {
        this.log.error({ err: error, releaseId: id }, 'a moment could not be told');
      }
  }

  private async tellOf({ manager, now, record }: Work, releaseId: ReleaseId): Promise<void> {
    const release = await manager.findOneOrFail(ReleaseRow, {
      where: { id: releaseId },
      lock: { mode: 'pessimistic_write' },
    });
    const activity = await manager.findOneByOrFail(ActivityRow, { id: release.activityId });
    const hasCome = ({ at }: { readonly at: number }) =>
      at > release.toldUntil.getTime() && at <= now.getTime();
    const ofAll = momentsOf(stateOf(release), scheduleOf(activity)).filter(hasCome);
    const ofSome = (await closingsOf(manager, release, activity)).filter(hasCome);
    await manager.update(ReleaseRow, releaseId, { toldUntil: now });
    const tell = ({ what, at }: Moment, concerns: Partial<Concerns>, more: object = {}) =>
      record({
        type: eventOf[what],
        courseId: release.courseId,
        subjectId: releaseId,
        facts: { activityId: activity.id, at: new Date(at).toISOString(), ...more },
        ...concerns,
      });
    for (const moment of ofAll) await tell(moment, hearersOfRelease(releaseId));
    for (const { at, copyIds, enrolmentIds } of ofSome)
      await tell(
        { what: 'closes', at },
        {
          staff: 'read-course',
          enrolmentIds,
          copies: copyIds.length === 0 ? null : { releaseId, copyIds, ownerId: null, isForStaffOnly: false, wasOut: false }, // prettier-ignore
        },
        { copies: copyIds.length, students: enrolmentIds.length },
      );
  }
}

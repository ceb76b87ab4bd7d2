import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Figures } from '@jigsaw/contract/track';
import type { CourseId } from '@jigsaw/core/ids';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { DeskService } from '../marks/index.js';
import { News } from '../news/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, isOut, Kinds, membersOfCopies } from '../release/index.js';
import { Viewers } from '../roster/index.js';

/** The live figures of the track: where somebody is needed. */
@Injectable()
export class TrackService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly clock: Clock,
    private readonly desk: DeskService,
  ) {}

  async figures(person: SignedIn, courseId: CourseId): Promise<Figures> {
    const viewer = await this.viewers.enter(person, courseId);
    return may(viewer.role, 'read-course')
      ? this.forStaff(person, viewer)
      : this.forStudent(person, courseId);
  }

  private async forStaff(person: SignedIn, { courseId, seesOnlyLed, leads }: Viewer): Promise<Figures> {
    const [counts] = await this.dataSource.query<
      { enrolled: number; unplaced: number; live: number; drafts: number; rooms: number }[]
    >(
      `WITH student AS (SELECT "id" FROM "enrolment" WHERE "courseId" = $1 AND "role" = 'student' AND "leftAt" IS NULL),
            set AS (SELECT "id", "isExclusive" AND NOT "isFormedAtHandIn" AS "isForEach", "signUp" IS NOT NULL AND "frozenAt" IS NULL AND ("signUp"->>'closes' IS NULL OR ("signUp"->>'closes')::timestamptz > $2) AS "isChosen"
                      FROM "group_set" WHERE "courseId" = $1 AND "putAwayAt" IS NULL)
       SELECT (SELECT count(*)::int FROM student) AS "enrolled",
              (SELECT count(*)::int FROM student WHERE EXISTS (SELECT 1 FROM set WHERE "isForEach" AND NOT "isChosen" AND NOT EXISTS
                 (SELECT 1 FROM "membership" m WHERE m."setId" = set."id" AND m."enrolmentId" = student."id" AND m."until" IS NULL))) AS "unplaced",
              (SELECT count(*)::int FROM "release" WHERE "courseId" = $1 AND "state" IN ('live', 'scheduled', 'closed')) AS "live",
              (SELECT count(*)::int FROM "activity" a WHERE a."courseId" = $1 AND NOT EXISTS
                 (SELECT 1 FROM "release" r WHERE r."activityId" = a."id" AND r."state" <> 'withdrawn')) AS "drafts",
              (SELECT count(*)::int FROM "course_group" g JOIN set ON set."id" = g."setId") AS "rooms"`,
      [courseId, this.clock.now()],
    );
    const { activities } = await this.desk.list(person, courseId);
    const unread = await this.unread((await this.gate.enterAll(person, courseId)).entered);
    return {
      kind: 'staff',
      ...counts!,
      ...(seesOnlyLed && { rooms: leads.length }),
      unread,
      toMark: activities.reduce((sum, activity) => sum + activity.toMark, 0),
    };
  }

  private async forStudent(person: SignedIn, courseId: CourseId): Promise<Figures> {
    const { viewer, entered } = await this.gate.enterAll(person, courseId);
    const own = entered.filter((access) => access.decision.part === 'member');
    const { manager } = this.dataSource;
    const progress = await this.kinds.progress({
      accesses: own,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, own),
    });
    const [marks] = await this.dataSource.query<{ newMarks: number }[]>(
      `SELECT count(*)::int AS "newMarks" FROM "released_mark" WHERE "enrolmentId" = $1 AND "seenAt" IS NULL`,
      [viewer.enrolmentId],
    );
    return {
      kind: 'student',
      due: [...progress.values()].filter((each) => each.owes).length,
      rooms: viewer.groups.length,
      unread: await this.unread(entered),
      newMarks: marks!.newMarks,
    };
  }

  /** Only what stands in a room counts: nothing of drafts, nor of what was withdrawn. */
  private async unread(entered: readonly CopyAccess[]): Promise<number> {
    const shown = entered.filter((access) => isOut(access, this.clock.now()));
    const news = await this.news.of(shown);
    return shown.reduce((sum, access) => sum + news(access.copy.id).unread, 0);
  }
}

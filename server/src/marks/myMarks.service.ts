import { Injectable } from '@nestjs/common';
import { DataSource, IsNull, LessThanOrEqual } from 'typeorm';
import type { MarksSeen, MyMark, MyMarks } from '@jigsaw/contract/marks';
import type { CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Viewers } from '../course/index.js';
import { groupTags } from '../sets/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Gate, Kinds, plainDecimal } from '../release/index.js';
import { Markings } from './markings.js';
import { ReleasedMarkRow } from './marks.rows.js';

/** A student's own marks. Credit for handed-in work stays, whatever group they are in now. */
@Injectable()
export class MyMarksService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly markings: Markings,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, courseId: CourseId): Promise<MyMarks> {
    const { viewer, entered } = await this.gate.enterAll(person, courseId);
    const rows = await this.dataSource.query<
      (Omit<MyMark, 'releasedAt' | 'handedInAt' | 'group' | 'markFor'> & {
        groupId: GroupId | null;
        kind: string;
        mode: string;
        settings: unknown;
        releasedAt: Date;
        handedInAt: Date | null;
      })[]
    >(
      `SELECT r."copyId", c."title", coalesce(r."points", c."points") AS "points", c."groupId", r."groupMark", r."mark", r."steps", r."rubric", r."feedback", c."kind",
              c."settings", c."mode", r."lateMinutes", r."latePolicy", r."handedInAt", r."releasedAt", p."name" AS "markedBy", r."seenAt" IS NULL AS "isNew"
         FROM "released_mark" r JOIN "released_copy" c ON c."copyId" = r."copyId" JOIN "account" p ON p."personId" = r."releasedBy"
        WHERE r."enrolmentId" = $1 AND c."courseId" = $2 AND c."state" <> 'withdrawn' ORDER BY r."releasedAt" DESC`,
      [viewer.enrolmentId, courseId],
    );
    const tags = await groupTags(
      this.dataSource.manager,
      rows.map((row) => row.groupId),
    );
    const marked = new Set<string>(rows.map((row) => row.copyId));
    const own =
      viewer.role === 'student'
        ? entered.filter((access) => access.decision.part === 'member' && !marked.has(access.copy.id))
        : [];
    const markings = (await this.markings.of(own, this.dataSource.manager)).filter((marking) =>
      marking.work.credited.includes(viewer.enrolmentId),
    );
    return {
      marks: rows.map(({ kind, mode, settings, ...row }) => ({
        ...row,
        markFor: mode === 'common' ? ('student' as const) : this.markFor(kind, settings),
        points: plainDecimal(row.points),
        groupMark: row.groupMark === null ? null : plainDecimal(row.groupMark),
        mark: row.mark === null ? null : plainDecimal(row.mark),
        group: row.groupId === null ? null : (tags.get(row.groupId) ?? null),
        handedInAt: row.handedInAt?.toISOString() ?? null,
        releasedAt: row.releasedAt.toISOString(),
      })),
      waiting: markings
        .filter((marking) => marking.work.isComplete)
        .map(({ access, sheet }) => ({
          title: access.activity.title,
          points: sheet.points,
        })),
    };
  }

  /** They have looked at those that they were shown; what was released since is still new. */
  async see(person: SignedIn, courseId: CourseId, { until }: MarksSeen): Promise<void> {
    const { enrolmentId } = await this.viewers.enter(person, courseId);
    await this.dataSource
      .getRepository(ReleasedMarkRow)
      .update(
        { enrolmentId, seenAt: IsNull(), releasedAt: LessThanOrEqual(new Date(until)) },
        { seenAt: this.clock.now() },
      );
  }

  /** Marks that they have not looked at yet. */
  async countNew(enrolmentId: EnrolmentId): Promise<number> {
    return (await this.shown(enrolmentId)).filter((row) => row.isNew).length;
  }

  /** Copies for which they have a mark. */
  async copiesWithMark(enrolmentId: EnrolmentId): Promise<ReadonlySet<string>> {
    return new Set((await this.shown(enrolmentId)).map((row) => row.copyId));
  }

  /** What was withdrawn took its marks with it. */
  private shown(enrolmentId: EnrolmentId): Promise<{ copyId: string; isNew: boolean }[]> {
    return this.dataSource.query(
      `SELECT r."copyId", r."seenAt" IS NULL AS "isNew" FROM "released_mark" r JOIN "released_copy" c ON c."copyId" = r."copyId"
        WHERE r."enrolmentId" = $1 AND c."state" <> 'withdrawn'`,
      [enrolmentId],
    );
  }

  private markFor(kindName: string, settings: unknown): 'group' | 'student' {
    const kind = this.kinds.of({ kind: kindName });
    return kind.markFor(kind.settings.parse(settings));
  }
}

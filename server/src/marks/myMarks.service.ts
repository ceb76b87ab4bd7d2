import { Injectable } from '@nestjs/common';
import { DataSource, IsNull } from 'typeorm';
import type { MyMark, MyMarks } from '@jigsaw/contract/marks';
import type { CourseId } from '@jigsaw/core/ids';
import { groupTags, WorkReader } from '../handin/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Gate, plainDecimal } from '../release/index.js';
import { ReleasedMarkRow } from './marks.rows.js';

/** A student's own marks. Credit for handed-in work stays, whatever group they are in now. */
@Injectable()
export class MyMarksService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly work: WorkReader,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, courseId: CourseId): Promise<MyMarks> {
    const { viewer, entered } = await this.gate.enterAll(person, courseId);
    const rows = await this.dataSource.query<
      (Omit<MyMark, 'releasedAt' | 'handedInAt' | 'group'> & { groupId: string; releasedAt: Date; handedInAt: Date | null })[]
    >(
      `SELECT r."copyId", a."title", a."points", c."groupId", r."groupMark", r."mark", r."steps", r."feedback", r."lateMinutes", r."handedInAt", r."releasedAt", p."name" AS "markedBy", r."seenAt" IS NULL AS "isNew"
         FROM "released_mark" r JOIN "copy" c ON c."id" = r."copyId" JOIN "release" l ON l."id" = c."releaseId"
         JOIN "activity" a ON a."id" = l."activityId" JOIN "person" p ON p."id" = r."releasedBy"
        WHERE r."enrolmentId" = $1 AND l."courseId" = $2 ORDER BY r."releasedAt" DESC`,
      [viewer.enrolmentId, courseId],
    );
    const tags = await groupTags(
      this.dataSource.manager,
      rows.map((row) => row.groupId),
    );
    const marked = new Set<string>(rows.map((row) => row.copyId));
    const own =
      viewer.role === 'student'
        ? entered.filter((access) => viewer.groups.some((group) => group.groupId === access.copy.groupId) && !marked.has(access.copy.id))
        : [];
    const summaries = await this.work.summaries(own);
    await this.dataSource.getRepository(ReleasedMarkRow).update({ enrolmentId: viewer.enrolmentId, seenAt: IsNull() }, { seenAt: this.clock.now() });
    return {
      marks: rows.map((row) => ({
        ...row,
        points: plainDecimal(row.points),
        groupMark: row.groupMark === null ? null : plainDecimal(row.groupMark),
        mark: row.mark === null ? null : plainDecimal(row.mark),
        group: tags.get(row.groupId)!,
        handedInAt: row.handedInAt?.toISOString() ?? null,
        releasedAt: row.releasedAt.toISOString(),
      })),
      waiting: own
        .filter((access) => summaries.get(access.copy.id)!.latest !== null)
        .map(({ activity }) => ({ title: activity.title, points: plainDecimal(activity.points) })),
    };
  }
}

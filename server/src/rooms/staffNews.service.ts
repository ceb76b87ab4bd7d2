import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Viewer } from '@jigsaw/core/course';
import type { ReleaseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import { Gate, isOutForAll } from '../release/index.js';
import type { Released, UnreadCopy } from './news.service.js';
import { News } from './news.service.js';

/** What is unread for staff who see the work of all groups. Every page of theirs shows it, and it is counted over all that a course ever wrote, so it is
 * kept by person and release: until something happens in the release, or they see something. */
@Injectable()
export class StaffNews {
  private readonly kept: KeptByCourse<ReleaseId, readonly UnreadCopy[]>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly news: News,
    private readonly clock: Clock,
    happenings: Happenings,
  ) {
    this.kept = new KeptByCourse(happenings);
  }

  /** What is out, and what of it this person has not seen, copy by copy.
   * @returns null: they see the work of some groups only */
  async of(viewer: Viewer): Promise<{ out: readonly Released[]; unread: readonly UnreadCopy[] } | null> {
    const all = await this.gate.enterReleases(viewer);
    if (!all) return null;
    const now = this.clock.now();
    // Only what stands in a room counts: nothing of drafts, nor of what was withdrawn.
    const out = all.filter((each) => isOutForAll(each, now));
    const byId = keyedBy(out, ({ release }) => release.id);
    const unread = await this.kept.all(
      viewer.courseId,
      [...byId.keys()],
      now.getTime(),
      async (missing) => {
        const rows = await this.news.unreadIn(
          viewer,
          missing.map((id) => sure(byId.get(id))),
        );
        const byRelease = groupedBy(rows, (row) => row.releaseId);
        return new Map(missing.map((id) => [id, { value: byRelease.get(id) ?? [], until: null }]));
      },
      { whom: viewer.enrolmentId, stamp: await this.seenSoFar(viewer) },
    );
    return { out, unread: [...unread.values()].flat() };
  }

  private async seenSoFar({ enrolmentId }: Viewer): Promise<string> {
    const [row] = await this.dataSource.query<{ count: string }[]>(
      `SELECT "count" FROM "seen_count" WHERE "enrolmentId" = $1`,
      [enrolmentId],
    );
    return row?.count ?? '0';
  }
}

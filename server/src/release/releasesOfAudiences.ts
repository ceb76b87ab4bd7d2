import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { AudienceId, CourseId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { audiencesOf, evaluated, isInAudience } from '@jigsaw/core/release';
import type { AudienceHearer, ChangedAudiences } from '../audiences/index.js';
import { Viewers } from '../course/index.js';
import { Copies } from './copies.js';
import { evaluator } from './evaluate.js';
import { isWithGroups } from './facts.js';
import { hearersOfRelease } from './hearers.js';
import { ActivityRow, ReleaseRow } from './release.rows.js';

/** What was released to saved audiences follows them. */
@Injectable()
export class ReleasesOfAudiences implements AudienceHearer {
  constructor(
    private readonly copies: Copies,
    private readonly viewers: Viewers,
  ) {}

  async usesOf(
    manager: EntityManager,
    courseId: CourseId,
  ): Promise<ReadonlyMap<AudienceId, readonly string[]>> {
    const rows = await manager.query<{ audienceId: AudienceId; title: string }[]>(
      `SELECT e->>'audienceId' AS "audienceId", a."title"
         FROM "release" r JOIN "activity" a ON a."id" = r."activityId" CROSS JOIN LATERAL jsonb_array_elements(r."audience"->'include') e
        WHERE r."courseId" = $1 AND e->>'kind' = 'audience' ORDER BY a."title"`,
      [courseId],
    );
    const byAudience = groupedBy(rows, (row) => row.audienceId);
    return new Map([...byAudience].map(([id, own]) => [id, own.map((row) => row.title)]));
  }

  /** New groups get their copies; anyone who is left out hears that it may be gone. */
  async audiencesChanged({ work, courseId, ids, before, person, by }: ChangedAudiences): Promise<void> {
    const { manager } = work;
    const releases = (await manager.findBy(ReleaseRow, { courseId })).filter((release) =>
      audiencesOf(release.audience).some((id) => ids.has(id)),
    );
    if (releases.length === 0) return;
    const students = await this.viewers.students(manager, courseId);
    const { audienceNow } = await evaluator(
      manager,
      courseId,
      releases.map((release) => release.audience),
    );
    for (const release of releases) {
      const activity = await manager.findOneByOrFail(ActivityRow, { id: release.activityId });
      const groupIds = await this.copies.open(work, activity, release, audienceNow(release.audience), by);
      const was = evaluated(release.audience, before.saved);
      const wasOut = isWithGroups(release, activity, work.now);
      await work.record({
        type: 'activity.reach-changed',
        courseId,
        actorId: person.id,
        subjectId: release.id,
        facts: { activityId: activity.id, groups: groupIds.length },
        ...hearersOfRelease(release.id),
        ...(!wasOut
          ? {}
          : release.outsiders === 'listed'
            ? { isForAll: true }
            : {
                enrolmentIds: students
                  .filter((viewer) => isInAudience(viewer, was))
                  .map((viewer) => viewer.enrolmentId),
              }),
      });
    }
  }
}

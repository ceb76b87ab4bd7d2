import type { EntityManager } from 'typeorm';
import { In, IsNull } from 'typeorm';
import type { CourseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { Evaluator } from './evaluate.js';
import { evaluator } from './evaluate.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

export interface ActivityOfCourse {
  readonly activity: Pick<ActivityRow, 'id' | 'title' | 'kind' | 'opens' | 'due' | 'closes'>;
  /** null: it was never released. */
  readonly release: ReleaseRow | null;
  readonly copies: readonly CopyRow[];
  readonly extensions: readonly ExtensionRow[];
  readonly ownTime: readonly StudentExtensionRow[];
}

/** Everything that was written in a course, drafts too, with who it went to and what was granted in it; as many statements in a course of any size.
 * Who may know of it is the caller's to decide. */
export async function releasesOfCourse(
  manager: EntityManager,
  courseId: CourseId,
): Promise<{ readonly activities: readonly ActivityOfCourse[]; readonly evaluator: Evaluator }> {
  const activities = await manager.find(ActivityRow, {
    where: { courseId, deletedAt: IsNull() },
    select: { id: true, title: true, kind: true, opens: true, due: true, closes: true },
    order: { createdAt: 'ASC', id: 'ASC' },
  });
  const releases = await manager.findBy(ReleaseRow, { courseId });
  const copies = await manager.query<CopyRow[]>(
    `SELECT c."id", c."releaseId", c."groupId", c."setId" FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" WHERE r."courseId" = $1 AND c."practiceRound" IS NULL`,
    [courseId],
  );
  const activityId = In(activities.map(({ id }) => id));
  const extensions = groupedBy(await manager.findBy(ExtensionRow, { activityId }), (row) => row.activityId);
  const ownTime = groupedBy(
    await manager.findBy(StudentExtensionRow, { activityId }),
    (row) => row.activityId,
  );
  const releaseOf = keyedBy(releases, (release) => release.activityId);
  const copiesOf = groupedBy(copies, (copy) => copy.releaseId);
  return {
    activities: activities.map((activity) => {
      const release = releaseOf.get(activity.id) ?? null;
      return {
        activity,
        release,
        copies: (release && copiesOf.get(release.id)) ?? [],
        extensions: extensions.get(activity.id) ?? [],
        ownTime: ownTime.get(activity.id) ?? [],
      };
    }),
    evaluator: await evaluator(
      manager,
      courseId,
      releases.map((release) => release.audience),
    ),
  };
}

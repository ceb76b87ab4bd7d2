import type { EntityManager } from 'typeorm';
import { In, IsNull } from 'typeorm';
import type { CopyId, ReleaseId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { Concerns, CopiesInView, CopyFacts } from '@jigsaw/core/release';
import { evaluator } from './evaluate.js';
import { copyFactsOf, factsOf } from './facts.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';

/** What the decision function needs to say who hears of changes in one release; a few statements, however many changes.
 * @returns for each change the copies that it concerns; none: the release is gone. */
export async function copiesInView<Change extends Pick<Concerns, 'copies'>>(
  manager: EntityManager,
  releaseId: ReleaseId,
  changes: readonly Change[],
): Promise<ReadonlyMap<Change, CopiesInView>> {
  const release = await manager.findOneBy(ReleaseRow, { id: releaseId });
  if (!release) return new Map();
  const activity = await manager.findOneByOrFail(ActivityRow, { id: release.activityId });
  const idsOf = ({ copies }: Change) => copies?.copyIds ?? null;
  const isForAll = changes.some((change) => idsOf(change) === null);
  const named = [...new Set(changes.flatMap((change) => idsOf(change) ?? []))];
  const copies = await manager.findBy(CopyRow, {
    releaseId,
    practiceRound: IsNull(),
    ...(isForAll ? {} : { id: In(named) }),
  });
  const extensions = await manager.findBy(ExtensionRow, { activityId: activity.id });
  const extensionOf = new Map(extensions.map((extension) => [extension.groupId as string, extension]));
  const factsById = new Map<CopyId, CopyFacts>(
    copies.map((copy) => [copy.id, copyFactsOf(copy, extensionOf.get(copy.groupId ?? '') ?? null)]),
  );
  const { audienceNow } = await evaluator(manager, release.courseId, [release.audience]);
  const granted = await manager.findBy(StudentExtensionRow, { activityId: activity.id });
  const ownTime = keyedBy(granted, (row) => row.enrolmentId);
  const facts = factsOf(release, activity, audienceNow, ownTime);
  return new Map(
    changes.map((change) => {
      const ids = idsOf(change) ?? [...factsById.keys()];
      return [change, { release: facts, copies: ids.flatMap((id) => factsById.get(id) ?? []) }];
    }),
  );
}

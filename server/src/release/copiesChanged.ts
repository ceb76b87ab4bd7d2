import { isDeepStrictEqual } from 'node:util';
import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import type { CopyId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { briefFor } from '@jigsaw/core/release';
import { contentOf } from './content.js';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';
import { CopyRow } from './release.rows.js';

/** The copies of a release that read otherwise than before: where only a line for one group, or its own time, was changed, the others have no
 * news, and hear of none.
 * @returns null: all of them. */
export async function copiesChanged(
  manager: EntityManager,
  kinds: Kinds,
  releaseId: ReleaseId,
  before: ActivityRow,
  after: ActivityRow,
): Promise<readonly CopyId[] | null> {
  const copies = await manager.find(CopyRow, {
    where: { releaseId, practiceRound: IsNull() },
    select: { id: true, groupId: true },
  });
  const changed = copies.filter(
    ({ groupId }) => !isDeepStrictEqual(readIn(groupId, before, kinds), readIn(groupId, after, kinds)),
  );
  return changed.length === copies.length ? null : changed.map(({ id }) => id);
}

function readIn(groupId: GroupId | null, activity: ActivityRow, kinds: Kinds) {
  const content = contentOf(activity, kinds);
  const brief = briefFor(content.brief, { copyOf: groupId, groups: null });
  return { ...content, brief, settings: kinds.settingsFor(activity, groupId) };
}

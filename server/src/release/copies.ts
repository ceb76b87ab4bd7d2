import { Injectable } from '@nestjs/common';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { newId } from '../platform/ids.js';
import type { Work } from '../platform/unitOfWork.js';
import type { MadeGroups, RemovedGroup, SetHearer } from '../sets/index.js';
import { groupRows } from '../sets/index.js';
import { toOf } from './audience.js';
import { Kinds } from './kinds.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

/** Opens the copies of a release, with what their kind begins them with. */
@Injectable()
export class Copies implements SetHearer {
  constructor(private readonly kinds: Kinds) {}

  /** Makes the copies that are missing.
   * @returns the groups that it reaches; none: a set whose groups come to be later, or the class. */
  async open(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    activity: ActivityRow,
    release: Pick<ReleaseRow, 'id' | 'setId' | 'mode' | 'audience'>,
    by: EnrolmentId,
  ): Promise<string[]> {
    const to = toOf(release);
    const chosen = to.kind === 'groups' ? new Set<string>(to.groupIds) : null;
    const groups = release.setId === null ? [] : await groupRows(manager, release.setId);
    const groupIds = groups.map((group) => group.id).filter((id) => chosen?.has(id) ?? true);
    const wanted: (string | null)[] = release.mode === 'common' ? [null] : groupIds;
    if (wanted.length === 0) return groupIds;
    const { raw } = (await manager
      .createQueryBuilder()
      .insert()
      .into(CopyRow)
      .values(wanted.map((groupId) => ({ id: newId(), releaseId: release.id, groupId })))
      .orIgnore()
      .returning('*')
      .execute()) as { raw: CopyRow[] };
    const kind = this.kinds.of(activity);
    if (raw.length > 0)
      await kind.begin?.({ copies: raw, settings: this.kinds.settingsOf(activity), manager, now, by });
    return groupIds;
  }

  /** What was released to a whole set is for its new groups, too. */
  async groupsMade({ setId, by, ...work }: MadeGroups): Promise<void> {
    for (const release of await work.manager.findBy(ReleaseRow, { setId })) {
      if (toOf(release).kind !== 'set') continue;
      const activity = await work.manager.findOneByOrFail(ActivityRow, { id: release.activityId });
      await this.open(work, activity, release, by);
    }
  }

  /** Copies of a group that nobody was ever in hold nothing of anybody's. */
  async groupRemoved({ manager, group }: RemovedGroup): Promise<void> {
    await manager.query(
      `DELETE FROM "copy" c WHERE c."groupId" = $1 AND NOT EXISTS (SELECT 1 FROM "stay" WHERE "groupId" = $1)`,
      [group.id],
    );
  }
}

import { Injectable } from '@nestjs/common';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { Audience } from '@jigsaw/core/release';
import { reachesGroup, setsOfAudience } from '@jigsaw/core/release';
import { newId } from '../platform/ids.js';
import type { Work } from '../platform/unitOfWork.js';
import type { MadeGroups, RemovedGroup, SetHearer } from '../sets/index.js';
import { groupsOfSets } from '../sets/index.js';
import { evaluator } from './evaluate.js';
import { Kinds } from './kinds.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

/** Opens the copies of a release, with what their kind begins them with. */
@Injectable()
export class Copies implements SetHearer {
  constructor(private readonly kinds: Kinds) {}

  /** Makes the copies that are missing.
   * @param audience of the release, as it is now.
   * @returns the groups that it reaches; none: a set whose groups come to be later, or no set at all. */
  async open(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    activity: ActivityRow,
    release: Pick<ReleaseRow, 'id' | 'mode'>,
    audience: Audience,
    by: EnrolmentId,
  ): Promise<string[]> {
    const groups = (await groupsOfSets(manager, setsOfAudience(audience))).filter(({ id, setId }) =>
      reachesGroup(audience, { groupId: id, setId }),
    );
    const groupIds = groups.map((group) => group.id);
    const wanted =
      release.mode === 'common'
        ? [{ groupId: null, setId: null }]
        : groups.map(({ id, setId }) => ({ groupId: id, setId }));
    if (wanted.length === 0) return groupIds;
    const { raw } = (await manager
      .createQueryBuilder()
      .insert()
      .into(CopyRow)
      .values(wanted.map((copy) => ({ id: newId(), releaseId: release.id, ...copy })))
      .orIgnore()
      .returning('*')
      .execute()) as { raw: CopyRow[] };
    const kind = this.kinds.of(activity);
    if (raw.length > 0)
      await kind.begin?.({ copies: raw, settings: this.kinds.settingsOf(activity), manager, now, by });
    return groupIds;
  }

  /** What was released to a whole set is for its new groups, too; a saved audience may name the set. */
  async groupsMade({ setId, by, ...work }: MadeGroups): Promise<void> {
    const releases = await work.manager
      .createQueryBuilder(ReleaseRow, 'release')
      .where(`release."courseId" = (SELECT "courseId" FROM "course_set" WHERE "setId" = :setId)`, { setId })
      .andWhere(
        `(release."audience"->'include' @> :whole::jsonb OR release."audience"->'include' @> :saved::jsonb)`,
        {
          whole: JSON.stringify([{ kind: 'set', setId }]),
          saved: JSON.stringify([{ kind: 'audience' }]),
        },
      )
      .getMany();
    const [first] = releases;
    if (!first) return;
    const { audienceNow } = await evaluator(
      work.manager,
      first.courseId,
      releases.map((release) => release.audience),
    );
    for (const release of releases) {
      const activity = await work.manager.findOneByOrFail(ActivityRow, { id: release.activityId });
      await this.open(work, activity, release, audienceNow(release.audience), by);
    }
  }

  /** Copies of a group that no one was ever in hold nothing of anybody's. */
  async groupRemoved({ manager, group }: RemovedGroup): Promise<void> {
    const copies = await manager.query<{ copyId: CopyId; kind: string }[]>(
      `SELECT c."copyId", c."kind" FROM "released_copy" c WHERE c."groupId" = $1 AND NOT EXISTS (SELECT 1 FROM "stay" WHERE "groupId" = $1)`,
      [group.id],
    );
    for (const [kind, own] of groupedBy(copies, (copy) => copy.kind))
      await this.kinds.of({ kind }).end?.(manager, own.map((copy) => copy.copyId)); // prettier-ignore
    await manager.query(`DELETE FROM "copy" WHERE "id" = ANY($1)`, [copies.map((copy) => copy.copyId)]);
  }
}

import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
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
      .values(wanted.map((copy) => ({ id: newId(), releaseId: release.id, practiceRound: null, ...copy })))
      .orIgnore()
      .returning('*')
      .execute()) as { raw: CopyRow[] };
    const kind = this.kinds.of(activity);
    if (raw.length > 0)
      await kind.begin?.({ copies: raw, settings: this.kinds.settingsOf(activity), manager, now, by });
    return groupIds;
  }

  /** Makes the copies that are missing for practising in a group: of all that reaches it, and of what is one for all. */
  async openForPractice(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    group: { readonly courseId: CourseId; readonly groupId: GroupId; readonly setId: GroupSetId },
    practiceRound: number,
    by: EnrolmentId,
  ): Promise<void> {
    const releases = await manager.findBy(ReleaseRow, { courseId: group.courseId });
    const { audienceNow } = await evaluator(manager, group.courseId, releases.map(({ audience }) => audience)); // prettier-ignore
    const wanted = releases.flatMap(({ id, mode, audience }) => {
      const of = mode === 'common' ? { groupId: null, setId: null } : { groupId: group.groupId, setId: group.setId }; // prettier-ignore
      const isThere = mode === 'common' || reachesGroup(audienceNow(audience), group);
      return isThere ? [{ id: newId<'copy'>(), releaseId: id, ...of, practiceRound }] : [];
    });
    if (wanted.length === 0) return;
    const { raw } = (await manager
      .createQueryBuilder()
      .insert()
      .into(CopyRow)
      .values(wanted)
      .orIgnore()
      .returning('*')
      .execute()) as { raw: CopyRow[] };
    const activityOf = keyedBy(releases, ({ id }) => id);
    const activities = keyedBy(await manager.findBy(ActivityRow, { courseId: group.courseId }), ({ id }) => id); // prettier-ignore
    for (const [releaseId, copies] of groupedBy(raw, (copy) => copy.releaseId)) {
      const activity = sure(activities.get(sure(activityOf.get(releaseId)).activityId));
      await this.kinds.of(activity).begin?.({ copies, settings: this.kinds.settingsOf(activity), manager, now, by }); // prettier-ignore
    }
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

  /** Copies of a group that no one was ever in hold nothing of anybody's, and those of practice nothing as long as no one did anything in them. */
  async groupRemoved({ manager, group }: RemovedGroup): Promise<void> {
    const copies = await manager.query<{ copyId: CopyId; kind: string }[]>(
      `SELECT c."id" AS "copyId", a."kind" FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"
        WHERE c."groupId" = $1 AND NOT EXISTS (SELECT 1 FROM "stay" WHERE "groupId" = $1)`,
      [group.id],
    );
    for (const [kind, own] of groupedBy(copies, (copy) => copy.kind))
      await this.kinds.of({ kind }).end?.(manager, own.map((copy) => copy.copyId)); // prettier-ignore
    await manager.query(`DELETE FROM "copy" WHERE "id" = ANY($1)`, [copies.map((copy) => copy.copyId)]);
  }
}

/** All that was opened for practising in a course in one round. */
export async function practiceCopies(
  manager: EntityManager,
  courseId: CourseId,
  round: number,
): Promise<readonly CopyId[]> {
  const rows = await manager.query<{ id: CopyId }[]>(
    `SELECT c."id" FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" WHERE r."courseId" = $1 AND c."practiceRound" = $2`,
    [courseId, round],
  );
  return rows.map(({ id }) => id);
}

import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { ActivityView, ReleaseView } from '@jigsaw/contract/release';
import type { ActivityId, GroupId, EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { stateAt } from '@jigsaw/core/release';
import { countStudents } from '../course/index.js';
import { toOf } from './audience.js';
import { contentOf } from './content.js';
import { scheduleOf, stateOf } from './facts.js';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';
import { ReleaseRow } from './release.rows.js';

interface GroupReach {
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
  readonly setName: string;
  readonly enrolmentIds: readonly EnrolmentId[];
}

/** Activities as staff see them, with whom their releases reach; four queries, however many activities. */
export async function activityViews(
  manager: EntityManager,
  kinds: Kinds,
  activities: readonly ActivityRow[],
  now: Date,
): Promise<ActivityView[]> {
  const [first] = activities;
  if (!first) return [];
  const ids = activities.map((activity) => activity.id);
  const releases = await manager.findBy(ReleaseRow, { activityId: In(ids) });
  const groups = await manager.query<GroupReach[]>(
    `SELECT g."groupId", g."setId", g."setName",
            ARRAY(SELECT s."enrolmentId" FROM "seat" s WHERE s."groupId" = g."groupId") AS "enrolmentIds"
       FROM "set_group" g WHERE g."courseId" = $1`,
    [first.courseId],
  );
  const students = await countStudents(manager, first.courseId);
  const extensions = await manager.query<
    {
      activityId: ActivityId;
      groupId: GroupId;
      number: number;
      name: string;
      due: Date;
      closes: Date | null;
      reason: string;
    }[]
  >(
    `SELECT x."activityId", x."groupId", g."number", g."name", x."due", x."closes", x."reason"
       FROM "extension" x JOIN "set_group" g ON g."groupId" = x."groupId" WHERE x."activityId" = ANY($1) ORDER BY g."number"`,
    [ids],
  );
  const releaseOf = keyedBy(releases, (release) => release.activityId);
  const extensionsOf = groupedBy(extensions, (extension) => extension.activityId);
  const groupsOf = groupedBy(groups, (group) => group.setId as string | null);
  return activities.map((activity) => {
    const release = releaseOf.get(activity.id);
    return {
      ...contentOf(activity, kinds),
      id: activity.id,
      version: activity.version,
      updatedAt: activity.updatedAt.toISOString(),
      inWork: activity.inWork,
      release: release
        ? releaseView(release, activity, groupsOf.get(release.setId) ?? [], students, now)
        : null,
      extensions: (extensionsOf.get(activity.id) ?? []).map(
        ({ groupId, number, name, due, closes, reason }) => ({
          groupId,
          number,
          name,
          due: due.toISOString(),
          closes: closes?.toISOString() ?? null,
          reason,
        }),
      ),
    };
  });
}

function releaseView(
  release: ReleaseRow,
  activity: ActivityRow,
  ofSet: readonly GroupReach[],
  allStudents: number,
  now: Date,
): ReleaseView {
  const to = toOf(release);
  const chosen = to.kind === 'groups' ? new Set<string>(to.groupIds) : null;
  const reached = chosen ? ofSet.filter((group) => chosen.has(group.groupId)) : ofSet;
  const { state, at } = stateAt(stateOf(release), scheduleOf(activity), now.getTime());
  return {
    id: release.id,
    to,
    setName: ofSet[0]?.setName ?? null,
    mode: release.mode,
    outsiders: release.outsiders,
    state: { state, at: at === null ? null : new Date(at).toISOString() },
    groups: reached.length,
    students:
      to.kind === 'class' ? allStudents : new Set(reached.flatMap((group) => group.enrolmentIds)).size,
  };
}

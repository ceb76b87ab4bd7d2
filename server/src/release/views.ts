import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { ActivityView, ReleaseView } from '@jigsaw/contract/release';
import type { ActivityId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { toOf } from './audience.js';
import { plainDecimalOrNull } from './decimals.js';
import { stateOf } from './facts.js';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';
import { ReleaseRow } from './release.rows.js';

interface GroupReach {
  readonly groupId: string;
  readonly setId: string;
  readonly setName: string;
  readonly enrolmentIds: readonly string[];
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
    `SELECT g."id" AS "groupId", s."id" AS "setId", s."name" AS "setName",
            ARRAY(SELECT m."enrolmentId" FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId"
                   WHERE m."groupId" = g."id" AND m."until" IS NULL AND e."leftAt" IS NULL) AS "enrolmentIds"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE s."courseId" = $1`,
    [first.courseId],
  );
  const [counted] = await manager.query<{ students: number }[]>(
    `SELECT count(*)::int AS "students" FROM "enrolment" WHERE "courseId" = $1 AND "role" = 'student' AND "leftAt" IS NULL`,
    [first.courseId],
  );
  const extensions = await manager.query<
    { activityId: string; groupId: GroupId; number: number; name: string; due: Date; reason: string }[]
  >(
    `SELECT x."activityId", x."groupId", g."number", g."name", x."due", x."reason"
       FROM "extension" x JOIN "course_group" g ON g."id" = x."groupId" WHERE x."activityId" = ANY($1) ORDER BY g."number"`,
    [ids],
  );
  return activities.map((activity) => {
    const release = releases.find((each) => each.activityId === activity.id);
    return {
      id: activity.id as ActivityId,
      kind: activity.kind,
      title: activity.title,
      brief: activity.brief,
      points: plainDecimalOrNull(activity.points),
      rubric: activity.rubric as ActivityView['rubric'],
      schedule: { opens: iso(activity.opens), due: iso(activity.due), closes: iso(activity.closes) },
      latePolicy: activity.latePolicy,
      settings: kinds.settingsOf(activity) as ActivityView['settings'],
      version: activity.version,
      updatedAt: activity.updatedAt.toISOString(),
      release: release ? releaseView(release, activity, groups, counted!.students, now) : null,
      extensions: extensions
        .filter((each) => each.activityId === activity.id)
        .map(({ groupId, number, name, due, reason }) => ({
          groupId,
          number,
          name,
          due: due.toISOString(),
          reason,
        })),
    };
  });
}

function releaseView(
  release: ReleaseRow,
  activity: ActivityRow,
  groups: readonly GroupReach[],
  allStudents: number,
  now: Date,
): ReleaseView {
  const to = toOf(release);
  const reached = groups.filter(
    (group) =>
      group.setId === release.setId &&
      (to.kind !== 'groups' || to.groupIds.includes(group.groupId as GroupId)),
  );
  return {
    id: release.id as ReleaseId,
    to,
    setName: groups.find((group) => group.setId === release.setId)?.setName ?? null,
    mode: release.mode,
    outsiders: release.outsiders,
    state: shownState(release, activity, now.getTime()),
    groups: reached.length,
    students:
      to.kind === 'class' ? allStudents : new Set(reached.flatMap((group) => group.enrolmentIds)).size,
  };
}

/** What the state amounts to now: a scheduled release whose moment has come is live, a live one past its end is closed. */
function shownState(release: ReleaseRow, activity: ActivityRow, now: number): ReleaseView['state'] {
  const state = stateOf(release);
  if (state.state === 'draft') return { state: 'draft', at: null };
  if (state.state === 'scheduled')
    return {
      state: state.goesLiveAt <= now ? 'live' : 'scheduled',
      at: new Date(state.goesLiveAt).toISOString(),
    };
  const isOver = state.state === 'live' && activity.closes !== null && activity.closes.getTime() <= now;
  return isOver
    ? { state: 'closed', at: iso(activity.closes) }
    : { state: state.state, at: new Date(state.since).toISOString() };
}

const iso = (at: Date | null) => at?.toISOString() ?? null;

import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { ActivityView, ReleaseView, StudentExtensionView } from '@jigsaw/contract/release';
import type { ActivityId, CourseId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { audiencesOf, isInAudience, reachesGroup, setsOfAudience, stateAt } from '@jigsaw/core/release';
import { toldApart } from '../course/index.js';
import { setsOfCourse } from '../sets/index.js';
import { contentOf } from './content.js';
import { evaluator } from './evaluate.js';
import type { Evaluator } from './evaluate.js';
import { scheduleOf, stateOf } from './facts.js';
import { happeningsOf } from './happenings.js';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';
import { ReleaseRow } from './release.rows.js';
import type { Student } from './studentsOf.js';
import { studentsOf } from './studentsOf.js';

interface GroupOfCourse {
  readonly groupId: GroupId;
  readonly setId: GroupSetId;
}
interface Course extends Evaluator {
  readonly groups: readonly GroupOfCourse[];
  readonly setName: ReadonlyMap<GroupSetId, string>;
  readonly students: readonly Student[];
}

/** Activities as staff see them, with the people that their releases reach; six queries at most, however many activities. */
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
       FROM "extension" x JOIN "set_group" g ON g."groupId" = x."groupId" WHERE x."activityId" = ANY($1) ORDER BY g."setPosition", g."number"`,
    [ids],
  );
  const ofStudents = await studentExtensions(manager, ids);
  const happens = await happeningsOf(manager, kinds, activities);
  // Drafts alone, as while one is written, reach no one.
  const course = releases.length === 0 ? null : await reachedIn(manager, first.courseId, releases);
  const releaseOf = keyedBy(releases, (release) => release.activityId);
  const extensionsOf = groupedBy(extensions, (extension) => extension.activityId);
  return activities.map((activity) => {
    const release = releaseOf.get(activity.id);
    return {
      ...contentOf(activity, kinds),
      id: activity.id,
      version: activity.version,
      updatedAt: activity.updatedAt.toISOString(),
      inWork: activity.inWork,
      release: release && course ? releaseView(release, activity, course, now) : null,
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
      studentExtensions: ofStudents.get(activity.id) ?? [],
      happens: happens(activity.id),
    };
  });
}

async function reachedIn(
  manager: EntityManager,
  courseId: CourseId,
  releases: readonly ReleaseRow[],
): Promise<Course> {
  const groups = await manager.query<GroupOfCourse[]>(
    `SELECT "groupId", "setId" FROM "set_group" WHERE "courseId" = $1`,
    [courseId],
  );
  const setName = new Map((await setsOfCourse(manager, courseId)).map((set) => [set.id, set.name]));
  const students = await studentsOf(manager, courseId);
  const audiences = releases.map((release) => release.audience);
  return { groups, setName, students, ...(await evaluator(manager, courseId, audiences)) };
}

/** By activity, in the order of names. Two of one name are told apart. */
async function studentExtensions(
  manager: EntityManager,
  ids: readonly ActivityId[],
): Promise<ReadonlyMap<ActivityId, StudentExtensionView[]>> {
  const rows = await manager.query<
    (Omit<StudentExtensionView, 'due' | 'closes'> & {
      activityId: ActivityId;
      courseId: CourseId;
      due: Date;
      closes: Date | null;
    })[]
  >(
    `SELECT x."activityId", p."courseId", x."enrolmentId", p."name", x."due", x."closes", x."reason",
            ARRAY(SELECT s."groupId" FROM "seat" s WHERE s."enrolmentId" = x."enrolmentId") AS "groups"
       FROM "student_extension" x JOIN "course_person" p ON p."enrolmentId" = x."enrolmentId"
      WHERE x."activityId" = ANY($1) ORDER BY p."name", x."enrolmentId"`,
    [ids],
  );
  const [first] = rows;
  if (!first) return new Map();
  const apart = await toldApart(manager, first.courseId);
  const told = rows.map(({ courseId: _courseId, due, closes, ...row }) => ({
    ...row,
    name: apart(row.enrolmentId, row.name),
    due: due.toISOString(),
    closes: closes?.toISOString() ?? null,
  }));
  return groupedBy(told, (row) => row.activityId);
}

function releaseView(
  release: ReleaseRow,
  activity: ActivityRow,
  { groups, setName, students, audienceNow, audienceName }: Course,
  now: Date,
): ReleaseView {
  const audience = audienceNow(release.audience);
  const { state, at } = stateAt(stateOf(release), scheduleOf(activity), now.getTime());
  return {
    id: release.id,
    to: release.audience,
    audienceNames: audiencesOf(audience).flatMap((id) => audienceName(id) ?? []),
    setNames: setsOfAudience(release.audience).flatMap((setId) => setName.get(setId) ?? []),
    mode: release.mode,
    outsiders: release.outsiders,
    state: { state, at: at === null ? null : new Date(at).toISOString() },
    groups: groups.filter((group) => reachesGroup(audience, group)).length,
    students: students.filter((student) => isInAudience(student, audience)).length,
  };
}

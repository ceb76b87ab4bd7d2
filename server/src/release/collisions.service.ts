import { Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import type { CollisionList } from '@jigsaw/contract/release';
import type { ActivityId, CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { DueFor, Extension } from '@jigsaw/core/release';
import { collisionsOf, datesFor, isInAudience, isReleased, reachesGroup } from '@jigsaw/core/release';
import { courseOf, toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { evaluator } from './evaluate.js';
import type { AudienceNow } from './evaluate.js';
import { extensionOf, scheduleOf } from './facts.js';
import { Kinds } from './kinds.js';
import { ActivityRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';
import type { Student } from './studentsOf.js';
import { studentsOf } from './studentsOf.js';

/** So few are told by name. */
const mostNamed = 5;

/** Where released work falls due on one day for the same students. */
@Injectable()
export class CollisionsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly kinds: Kinds,
  ) {}

  /** By what each student has to do: their groups, and the time that these and they were granted. As many statements in a course of any size. */
  async read(person: SignedIn, courseId: CourseId): Promise<CollisionList> {
    const { manager } = this.dataSource;
    await this.viewers.staff(person, courseId, 'release');
    const { timeZone } = await courseOf(manager, courseId);
    const releases = (await manager.findBy(ReleaseRow, { courseId })).filter(isReleased);
    const activities = await manager.findBy(ActivityRow, { id: In(releases.map((row) => row.activityId)) });
    const work = keyedBy(
      activities.filter((activity) => this.kinds.of(activity).isWork),
      (activity) => activity.id,
    );
    const { audienceNow } = await evaluator(
      manager,
      courseId,
      releases.map((release) => release.audience),
    );
    const students = await studentsOf(manager, courseId);
    const activityId = In([...work.keys()]);
    const granted = new Map<string, Extension>(
      [
        ...(await manager.findBy(ExtensionRow, { activityId })),
        ...(await manager.findBy(StudentExtensionRow, { activityId })),
      ].map((row) => [
        keyOf(row.activityId, 'groupId' in row ? row.groupId : row.enrolmentId),
        extensionOf(row),
      ]),
    );
    const dues = releases.flatMap((release) => {
      const activity = work.get(release.activityId);
      return activity ? [...duesOf(release, activity, students, audienceNow, granted)] : [];
    });
    const nameOf = new Map(students.map(({ enrolmentId, name }) => [enrolmentId, name]));
    const apart = await toldApart(manager, courseId);
    return {
      collisions: collisionsOf(dues, timeZone).map(({ day, activityIds, students: who }) => ({
        day,
        activityIds: [...activityIds],
        students: who.length,
        names: who.length > mostNamed ? [] : who.map((id) => apart(id, nameOf.get(id) ?? '')).sort(),
      })),
    };
  }
}

const keyOf = (activityId: ActivityId, whose: GroupId | EnrolmentId): string => `${activityId} ${whose}`;

function* duesOf(
  release: ReleaseRow,
  activity: ActivityRow,
  students: readonly Student[],
  audienceNow: AudienceNow,
  granted: ReadonlyMap<string, Extension>,
): Iterable<DueFor> {
  const audience = audienceNow(release.audience);
  const schedule = scheduleOf(activity);
  for (const student of students) {
    if (!isInAudience(student, audience)) continue;
    const { enrolmentId, groups } = student;
    const own = granted.get(keyOf(activity.id, enrolmentId)) ?? null;
    const copies =
      release.mode === 'common' ? [null] : groups.filter((group) => reachesGroup(audience, group));
    for (const copy of copies) {
      const ofGroup = (copy && granted.get(keyOf(activity.id, copy.groupId))) ?? null;
      const { due } = datesFor(schedule, ofGroup, own);
      if (due !== null) yield { student: enrolmentId, activityId: activity.id, due };
    }
  }
}

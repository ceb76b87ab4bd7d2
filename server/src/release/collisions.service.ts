import { Injectable } from '@nestjs/common';
import { DataSource, In } from 'typeorm';
import type { CollisionList } from '@jigsaw/contract/release';
import type { CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { Audience, Collision, DueFor, Extension } from '@jigsaw/core/release';
import { collisionsOf, dayAt, datesFor, isInAudience, isReleased, reachesGroup } from '@jigsaw/core/release';
import { courseOf, toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { evaluator } from './evaluate.js';
import { extensionOf, scheduleOf } from './facts.js';
import { Kinds } from './kinds.js';
import { ActivityRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';
import type { Student } from './studentsOf.js';
import { studentsOf } from './studentsOf.js';

/** So few are told by name. */
const mostNamed = 5;
const isFew = ({ length }: readonly EnrolmentId[]): boolean => length <= mostNamed;

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
    const activities = await manager.find(ActivityRow, {
      where: { id: In(releases.map((row) => row.activityId)) },
      select: { id: true, kind: true, opens: true, due: true, closes: true },
    });
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
    const ofGroups = groupedBy(await manager.findBy(ExtensionRow, { activityId }), (row) => row.activityId);
    const ofStudents = groupedBy(
      await manager.findBy(StudentExtensionRow, { activityId }),
      (row) => row.activityId,
    );
    const all = releases.flatMap((release) => {
      const activity = work.get(release.activityId);
      if (!activity) return [];
      const granted = new Map<GroupId | EnrolmentId, Extension>([
        ...(ofGroups.get(activity.id) ?? []).map((row) => [row.groupId, extensionOf(row)] as const),
        ...(ofStudents.get(activity.id) ?? []).map((row) => [row.enrolmentId, extensionOf(row)] as const),
      ]);
      const dues = [activity.due?.getTime() ?? null, ...[...granted.values()].map(({ due }) => due)];
      const days = new Set(dues.flatMap((due) => (due === null ? [] : dayAt(due, timeZone))));
      return [{ release, activity, granted, days }];
    });
    const dues = onSharedDays(all).flatMap((asked) => [
      ...duesOf(asked, students, audienceNow(asked.release.audience)),
    ]);
    const found = collisionsOf(dues, timeZone);
    const nameOf = await this.namesOf(courseId, students, found);
    return {
      collisions: found.map(({ day, activityIds, students: who }) => ({
        day,
        activityIds: [...activityIds],
        students: who.length,
        names: isFew(who) ? who.flatMap((id) => nameOf.get(id) ?? []).sort() : [],
      })),
    };
  }

  /** Of those who are told by name. Two of one name are told apart. */
  private async namesOf(
    courseId: CourseId,
    students: readonly Student[],
    collisions: readonly Collision[],
  ): Promise<ReadonlyMap<EnrolmentId, string>> {
    const named = new Set(collisions.flatMap(({ students: who }) => (isFew(who) ? who : [])));
    const apart = await toldApart(this.dataSource.manager, courseId);
    return new Map(
      students.flatMap(({ enrolmentId, name }) =>
        named.has(enrolmentId) ? [[enrolmentId, apart(enrolmentId, name)]] : [],
      ),
    );
  }
}

interface Asked {
  readonly release: ReleaseRow;
  readonly activity: ActivityRow;
  /** To groups and to students, by their ids. */
  readonly granted: ReadonlyMap<GroupId | EnrolmentId, Extension>;
  /** On which it is due, to anyone. */
  readonly days: ReadonlySet<string>;
}

/** Without what is due alone on its day, so that no student has to be looked at for it. */
function onSharedDays(all: readonly Asked[]): readonly Asked[] {
  const count = new Map<string, number>();
  for (const { days } of all) for (const day of days) count.set(day, (count.get(day) ?? 0) + 1);
  return all.filter(({ days }) => [...days].some((day) => (count.get(day) ?? 0) > 1));
}

function* duesOf(
  { release, activity, granted }: Asked,
  students: readonly Student[],
  audience: Audience,
): Iterable<DueFor> {
  const schedule = scheduleOf(activity);
  for (const student of students) {
    if (!isInAudience(student, audience)) continue;
    const { enrolmentId, groups } = student;
    const own = granted.get(enrolmentId) ?? null;
    const copies =
      release.mode === 'common' ? [null] : groups.filter((group) => reachesGroup(audience, group));
    for (const copy of copies) {
      const ofGroup = (copy && granted.get(copy.groupId)) ?? null;
      const { due } = datesFor(schedule, ofGroup, own);
      if (due !== null) yield { student: enrolmentId, activityId: activity.id, due };
    }
  }
}

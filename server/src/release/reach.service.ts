import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { ReachRequest, ReachView } from '@jigsaw/contract/release';
import type { ActivityId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { ReleaseFacts } from '@jigsaw/core/release';
import type { Viewer } from '@jigsaw/core/course';
import { atLeast, decide, explain } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { courseOf, Viewers } from '../course/index.js';
import { groupRows, setOfCourse } from '../sets/index.js';
import { audienceOf } from './audience.js';
import { factsOf } from './facts.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

/** Whom a release reaches, and whom not and why, before anybody presses. */
@Injectable()
export class ReachService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  async read(
    person: SignedIn,
    activityId: ActivityId,
    { to, mode, outsiders }: ReachRequest,
  ): Promise<ReachView> {
    const { manager } = this.dataSource;
    const activity = await manager.findOneBy(ActivityRow, { id: activityId });
    if (!activity) throw problems.notFound();
    await this.viewers.staff(person, activity.courseId, 'release');
    const setId = to.kind === 'class' ? null : to.setId;
    const set = setId === null ? null : await setOfCourse(manager, setId, activity.courseId);
    const course = await courseOf(manager, activity.courseId);
    const groups = setId === null ? [] : await groupRows(manager, setId);
    const release = await manager.findOneBy(ReleaseRow, { activityId });
    const copies = release ? await manager.findBy(CopyRow, { releaseId: release.id }) : [];
    const copyOf = keyedBy(copies, (copy) => copy.groupId);
    const students = await manager.query<
      { enrolmentId: EnrolmentId; name: string; reading: string | null; groupIds: GroupId[] }[]
    >(
      `SELECT p."enrolmentId", p."name", p."reading",
              ARRAY(SELECT s."groupId" FROM "seat" s WHERE s."enrolmentId" = p."enrolmentId" AND s."setId" = $2) AS "groupIds"
         FROM "present_student" p WHERE p."courseId" = $1 ORDER BY p."name"`,
      [activity.courseId, setId],
    );
    const sizeOf = new Map<GroupId, number>();
    for (const id of students.flatMap((student) => student.groupIds))
      sizeOf.set(id, (sizeOf.get(id) ?? 0) + 1);
    const now = this.clock.now().getTime();
    const facts: ReleaseFacts = {
      ...factsOf(
        {
          courseId: activity.courseId,
          mode,
          outsiders,
          state: 'live',
          stateAt: new Date(now),
          audience: audienceOf(to),
        } as ReleaseRow,
        activity,
      ),
      schedule: { opens: null, due: null, closes: null },
    };
    const dateTime = new Intl.DateTimeFormat('en-GB', {
      dateStyle: 'medium',
      timeStyle: 'short',
      timeZone: course.timeZone,
    });
    const groupName = new Map(groups.map((group) => [group.id, group.name]));
    const wording = {
      dateTime: (at: number) => dateTime.format(at),
      groupName: (id: GroupId) => groupName.get(id) ?? 'a group',
      setName: () => set?.name ?? 'the class',
    };
    const isIn = (id: GroupId) => to.kind === 'set' || (to.kind === 'groups' && to.groupIds.includes(id));
    const decided = students.map((student) => {
      const viewer: Viewer = {
        courseId: activity.courseId,
        enrolmentId: student.enrolmentId,
        role: 'student',
        hasLeft: false,
        groups: setId === null ? [] : student.groupIds.map((groupId) => ({ groupId, setId })),
        leads: [],
        seesOnlyLed: false,
      };
      // Of several groups, one that it is released to.
      const own = mode === 'common' ? null : (student.groupIds.find(isIn) ?? student.groupIds[0] ?? null);
      return {
        student,
        decision: decide(
          viewer,
          facts,
          { groupId: own, setId: own === null ? null : setId, extension: null },
          now,
        ),
      };
    });
    return {
      groups: groups.map((group) => ({
        groupId: group.id,
        number: group.number,
        name: group.name,
        members: sizeOf.get(group.id) ?? 0,
        isIn: isIn(group.id),
        copyId: copyOf.get(group.id)?.id ?? null,
      })),
      students: decided.filter(({ decision }) => atLeast(decision.access, 'open')).length,
      outside: decided.flatMap(({ student, decision }) =>
        atLeast(decision.access, 'open')
          ? []
          : [{ name: student.name, reading: student.reading, why: explain(decision, wording) }],
      ),
    };
  }
}

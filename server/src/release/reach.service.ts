import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { ReachRequest, ReachView } from '@jigsaw/contract/release';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { ReleaseFacts } from '@jigsaw/core/release';
import type { Viewer } from '@jigsaw/core/course';
import { atLeast, decide, explain } from '@jigsaw/core/release';
import { GroupRow, GroupSetRow } from '../groups/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { CourseRow, Viewers } from '../roster/index.js';
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
    const activity = await this.dataSource.getRepository(ActivityRow).findOneBy({ id: activityId });
    if (!activity) throw problems.notFound();
    await this.viewers.staff(person, activity.courseId, 'release');
    const setId = to.kind === 'class' ? null : to.setId;
    const set =
      setId === null
        ? null
        : await this.dataSource
            .getRepository(GroupSetRow)
            .findOneBy({ id: setId, courseId: activity.courseId });
    if (setId !== null && !set) throw problems.notFound();
    const course = await this.dataSource.getRepository(CourseRow).findOneByOrFail({ id: activity.courseId });
    const groups =
      setId === null
        ? []
        : await this.dataSource.getRepository(GroupRow).find({ where: { setId }, order: { number: 'ASC' } });
    const release = await this.dataSource.getRepository(ReleaseRow).findOneBy({ activityId });
    const copies = release
      ? await this.dataSource.getRepository(CopyRow).findBy({ releaseId: release.id })
      : [];
    const students = await this.dataSource.query<
      { enrolmentId: EnrolmentId; name: string; reading: string | null; groupIds: GroupId[] }[]
    >(
      `SELECT e."id" AS "enrolmentId", p."name", p."reading",
              ARRAY(SELECT m."groupId" FROM "membership" m WHERE m."enrolmentId" = e."id" AND m."setId" = $2 AND m."until" IS NULL) AS "groupIds"
         FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
        WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL ORDER BY p."name"`,
      [activity.courseId, setId],
    );
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
      groupName: (id: string) => groupName.get(id) ?? 'a group',
      setName: () => set?.name ?? 'the class',
    };
    const isIn = (id: string) =>
      to.kind === 'set' || (to.kind === 'groups' && to.groupIds.includes(id as GroupId));
    const decided = students.map((student) => {
      const viewer: Viewer = {
        courseId: activity.courseId as CourseId,
        enrolmentId: student.enrolmentId,
        role: 'student',
        hasLeft: false,
        groups: student.groupIds.map((groupId) => ({ groupId, setId: setId as GroupSetId })),
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
        groupId: group.id as GroupId,
        number: group.number,
        name: group.name,
        members: students.filter((student) => student.groupIds.includes(group.id as GroupId)).length,
        isIn: isIn(group.id),
        copyId: (copies.find((copy) => copy.groupId === group.id)?.id ?? null) as CopyId | null,
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

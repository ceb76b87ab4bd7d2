import { Injectable } from '@nestjs/common';
import { DataSource, IsNull } from 'typeorm';
import type { ReachRequest, ReachView } from '@jigsaw/contract/release';
import type { ActivityId, AudienceId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { ReleaseFacts } from '@jigsaw/core/release';
import type { Viewer } from '@jigsaw/core/course';
import { atLeast, decide, explain, isInAudience, reachesGroup, setsOfAudience } from '@jigsaw/core/release';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { courseOf, toldApart, Viewers } from '../course/index.js';
import { groupsOfSets, setOfCourse } from '../sets/index.js';
import { evaluator } from './evaluate.js';
import { factsOf } from './facts.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

interface Student {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly reading: string | null;
  /** In the sets that it goes to. */
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
}

/** Who a release reaches, and who not and why, before anybody presses. */
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
    const { audienceNow, audienceName } = await evaluator(manager, activity.courseId, [to]);
    const audience = audienceNow(to);
    const sets = await Promise.all(
      setsOfAudience(audience).map((setId) => setOfCourse(manager, setId, activity.courseId)),
    );
    const setIds = sets.map((set) => set.id);
    const course = await courseOf(manager, activity.courseId);
    const bySet = groupedBy(await groupsOfSets(manager, setIds), (group) => group.setId);
    const groups = setIds.flatMap((setId) => bySet.get(setId) ?? []);
    const release = await manager.findOneBy(ReleaseRow, { activityId });
    const copies = release
      ? await manager.findBy(CopyRow, { releaseId: release.id, practiceRound: IsNull() })
      : [];
    const copyOf = keyedBy(copies, (copy) => copy.groupId);
    const students = await manager.query<Student[]>(
      `SELECT p."enrolmentId", p."name", p."reading",
              coalesce((SELECT jsonb_agg(jsonb_build_object('groupId', s."groupId", 'setId', s."setId") ORDER BY g."setPosition", g."number")
                 FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId"
                WHERE s."enrolmentId" = p."enrolmentId" AND s."setId" = ANY($2)), '[]'::jsonb) AS "groups"
         FROM "present_student" p WHERE p."courseId" = $1 ORDER BY p."name"`,
      [activity.courseId, setIds],
    );
    const sizeOf = new Map<GroupId, number>();
    // Someone who is left out, by name or by a saved audience, is in no group's copy.
    const counted = students.filter((student) => isInAudience(student, audience));
    const inGroups = students.flatMap((student) =>
      student.groups.filter((group) => !reachesGroup(audience, group) || isInAudience(student, audience)),
    );
    for (const { groupId } of inGroups) sizeOf.set(groupId, (sizeOf.get(groupId) ?? 0) + 1);
    const now = this.clock.now().getTime();
    const facts: ReleaseFacts = {
      ...factsOf(
        {
          courseId: activity.courseId,
          mode,
          outsiders,
          state: 'live',
          stateAt: new Date(now),
          audience: to,
        } as ReleaseRow,
        activity,
        audienceNow,
        new Map(),
      ),
      schedule: { opens: null, due: null, closes: null },
    };
    const dateTime = new Intl.DateTimeFormat('en-GB', {
      dateStyle: 'medium',
      timeStyle: 'short',
      timeZone: course.timeZone,
    });
    const groupName = new Map(groups.map((group) => [group.id, group.name]));
    const setName = new Map(sets.map((set) => [set.id, set.name]));
    const wording = {
      dateTime: (at: number) => dateTime.format(at),
      groupName: (id: GroupId) => groupName.get(id) ?? 'a group',
      audienceName: (id: AudienceId) => audienceName(id) ?? 'a saved audience',
      setName: (id: GroupSetId) => setName.get(id) ?? 'a group set',
    };
    const decided = students.map((student) => {
      const viewer: Viewer = {
        courseId: activity.courseId,
        enrolmentId: student.enrolmentId,
        role: 'student',
        hasLeft: false,
        groups: student.groups,
        leads: [],
        seesOnlyLed: false,
      };
      // Of several groups, one that it is released to.
      const own =
        mode === 'common'
          ? undefined
          : (student.groups.find((group) => reachesGroup(audience, group)) ?? student.groups[0]);
      const copy = { groupId: own?.groupId ?? null, setId: own?.setId ?? null, extension: null };
      return { student, decision: decide(viewer, facts, copy, now) };
    });
    const apart = await toldApart(manager, activity.courseId);
    const nameOf = new Map(students.map(({ enrolmentId, name }) => [enrolmentId, apart(enrolmentId, name)]));
    const byName = (ids: readonly EnrolmentId[]) =>
      ids.map((enrolmentId) => ({ enrolmentId, name: nameOf.get(enrolmentId) ?? 'someone who left' }));
    return {
      groups: groups.map((group) => ({
        groupId: group.id,
        setId: group.setId,
        number: group.number,
        name: group.name,
        members: sizeOf.get(group.id) ?? 0,
        isIn: reachesGroup(audience, { groupId: group.id, setId: group.setId }),
        copyId: copyOf.get(group.id)?.id ?? null,
      })),
      students: decided.filter(({ decision }) => atLeast(decision.access, 'open')).length,
      outside: decided.flatMap(({ student, decision }) =>
        atLeast(decision.access, 'open')
          ? []
          : [{ name: student.name, reading: student.reading, why: explain(decision, wording) }],
      ),
      several:
        mode === 'common'
          ? []
          : counted.flatMap((student) => {
              const own = student.groups.filter((group) => reachesGroup(audience, group));
              if (own.length < 2) return [];
              const { name, reading } = student;
              return [{ name, reading, groups: own.map(({ groupId }) => wording.groupName(groupId)) }];
            }),
      named: byName(to.include.flatMap((entry) => (entry.kind === 'person' ? [entry.enrolmentId] : []))),
      leftOut: byName(to.exclude),
    };
  }
}

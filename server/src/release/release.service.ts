import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { z } from 'zod';
import type { ActivityDraft, ActivityList, ActivityView, EditActivity, ReachView, ReleaseRequest, ReleaseView } from '@jigsaw/contract/release';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId, ReleaseId } from '@jigsaw/core/ids';
import type { ReleaseFacts, Viewer } from '@jigsaw/core/release';
import { decide, explain, transition } from '@jigsaw/core/release';
import { GroupRow, GroupSetRow } from '../groups/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { CourseRow, Viewers } from '../roster/index.js';
import { factsOf, stateColumns, stateOf } from './facts.js';
import { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';

@Injectable()
export class ReleaseService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<ActivityList> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const activities = await this.dataSource.getRepository(ActivityRow).find({ where: { courseId }, order: { updatedAt: 'DESC' } });
    const views = await this.views(this.dataSource.manager, activities);
    return { activities: viewer.role === 'observer' ? views.filter((view) => view.release !== null && view.release.state.state !== 'draft') : views };
  }

  async read(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId, 'release');
    return this.view(this.dataSource.manager, activity);
  }

  async create(person: SignedIn, courseId: CourseId, draft: z.output<typeof ActivityDraft>): Promise<ActivityView> {
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const id = newId<'activity'>();
      await manager.insert(ActivityRow, { id, courseId, kind: 'assignment', ...columnsOf(draft), version: 1, createdAt: now, updatedAt: now });
      await record({ type: 'activity.drafted', courseId, actorId: person.id, subjectId: id });
      return this.view(manager, await manager.findOneByOrFail(ActivityRow, { id }));
    });
  }

  /** Saved as typed; what two people changed at once is shown to both, not lost. */
  async edit(person: SignedIn, activityId: ActivityId, edit: z.output<typeof EditActivity>): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId, 'release');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const { affected } = await manager.update(
        ActivityRow,
        { id: activityId, version: edit.version },
        { ...columnsOf(edit), version: edit.version + 1, updatedAt: now },
      );
      const saved = await this.view(manager, await manager.findOneByOrFail(ActivityRow, { id: activityId }));
      if (affected === 0) throw problems.staleWrite(saved);
      await record({ type: 'activity.edited', courseId: activity.courseId, actorId: person.id, subjectId: activityId, facts: { version: saved.version } });
      return saved;
    });
  }

  /** Each group of the set gets its own copy; whoever is in no group of it sees nothing. */
  async release(person: SignedIn, activityId: ActivityId, request: ReleaseRequest): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId, 'release');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const set = await manager.findOneBy(GroupSetRow, { id: request.setId, courseId: activity.courseId });
      if (!set) throw problems.notFound();
      const locked = await manager.findOneOrFail(ActivityRow, { where: { id: activityId }, lock: { mode: 'pessimistic_write' } });
      if (locked.version !== request.version)
        throw problems.staleWrite(await this.view(manager, locked), 'This draft was changed meanwhile. Look at it once more before you release it.');

      const earlier = await manager.findOneBy(ReleaseRow, { activityId });
      if (earlier && earlier.setId !== set.id) throw problems.conflict('This was released to another set before. Make a copy of it to release it here.');
      const goesLiveAt = request.goesLiveAt === null ? null : Date.parse(request.goesLiveAt);
      const next = transition(earlier ? stateOf(earlier) : { state: 'draft' }, { type: 'released', at: now.getTime(), goesLiveAt });
      if (!next.ok) throw problems.conflict('This is released already.');

      const id = earlier?.id ?? newId<'release'>();
      await manager.save(ReleaseRow, {
        id,
        activityId,
        courseId: activity.courseId,
        setId: set.id,
        mode: 'own',
        audience: { include: [{ kind: 'set', setId: set.id as GroupSetId }], exclude: [] },
        outsiders: 'hidden',
        ...stateColumns(next.state),
        version: (earlier?.version ?? 0) + 1,
      });
      const groups = await manager.findBy(GroupRow, { setId: set.id });
      await manager
        .createQueryBuilder()
        .insert()
        .into(CopyRow)
        .values(groups.map((group) => ({ id: newId(), releaseId: id, groupId: group.id })))
        .orIgnore()
        .execute();
      await record({
        type: 'activity.released',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: id,
        facts: { activityId, state: next.state.state, groups: groups.length },
        groupIds: groups.map((group) => group.id),
      });
      return this.view(manager, locked);
    });
  }

  /** Taken back at once; copies and all that was done in them stay, and come back if it is released again. */
  async withdraw(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId, 'release');
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const release = await manager.findOne(ReleaseRow, { where: { activityId }, lock: { mode: 'pessimistic_write' } });
      if (!release) throw problems.conflict('This is still a draft; nobody has seen it.');
      const next = transition(stateOf(release), { type: 'withdrawn', at: now.getTime() });
      if (!next.ok) throw problems.conflict('This was withdrawn already.');
      await manager.update(ReleaseRow, release.id, { ...stateColumns(next.state), version: release.version + 1 });
      const copies = await manager.findBy(CopyRow, { releaseId: release.id });
      await record({
        type: 'activity.withdrawn',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: release.id,
        facts: { activityId },
        groupIds: copies.flatMap((copy) => copy.groupId ?? []),
      });
      return this.view(manager, activity);
    });
  }

  /** Whom a release to this set reaches, and whom not and why, before anybody presses. */
  async reach(person: SignedIn, activityId: ActivityId, setId: GroupSetId): Promise<ReachView> {
    const activity = await this.staffActivity(person, activityId, 'release');
    const set = await this.dataSource.getRepository(GroupSetRow).findOneBy({ id: setId, courseId: activity.courseId });
    if (!set) throw problems.notFound();
    const course = await this.dataSource.getRepository(CourseRow).findOneByOrFail({ id: activity.courseId });
    const groups = await this.dataSource.getRepository(GroupRow).find({ where: { setId }, order: { number: 'ASC' } });
    const release = await this.dataSource.getRepository(ReleaseRow).findOneBy({ activityId });
    const copies = release ? await this.dataSource.getRepository(CopyRow).findBy({ releaseId: release.id }) : [];
    const students = await this.dataSource.query<{ enrolmentId: EnrolmentId; name: string; reading: string | null; groupId: GroupId | null }[]>(
      `SELECT e."id" AS "enrolmentId", p."name", p."reading", m."groupId"
         FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"
         LEFT JOIN "membership" m ON m."enrolmentId" = e."id" AND m."setId" = $2 AND m."until" IS NULL
        WHERE e."courseId" = $1 AND e."role" = 'student' AND e."leftAt" IS NULL ORDER BY p."name"`,
      [activity.courseId, setId],
    );
    const now = this.clock.now().getTime();
    const facts: ReleaseFacts = {
      ...factsOf({ courseId: activity.courseId, mode: 'own', outsiders: 'hidden', state: 'live', stateAt: new Date(now) } as ReleaseRow, activity),
      audience: { include: [{ kind: 'set', setId }], exclude: [] },
      schedule: { opens: null, due: null, closes: null },
    };
    const dateTime = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: course.timeZone });
    const outside = students.flatMap((student) => {
      const viewer: Viewer = {
        courseId: activity.courseId as CourseId,
        enrolmentId: student.enrolmentId,
        role: 'student',
        hasLeft: false,
        groups: student.groupId === null ? [] : [{ groupId: student.groupId, setId }],
      };
      const decision = decide(viewer, facts, { groupId: student.groupId, setId }, now);
      if (decision.access === 'open') return [];
      const wording = { dateTime: (at: number) => dateTime.format(at), groupName: () => 'a group', setName: () => set.name };
      return [{ name: student.name, reading: student.reading, why: explain(decision, wording) }];
    });
    return {
      groups: groups.map((group) => ({
        groupId: group.id as GroupId,
        number: group.number,
        name: group.name,
        members: students.filter((student) => student.groupId === group.id).length,
        copyId: (copies.find((copy) => copy.groupId === group.id)?.id ?? null) as CopyId | null,
      })),
      outside,
    };
  }

  private async staffActivity(person: SignedIn, activityId: ActivityId, act: 'release' | 'read-course'): Promise<ActivityRow> {
    const activity = await this.dataSource.getRepository(ActivityRow).findOneBy({ id: activityId });
    if (!activity) throw problems.notFound();
    await this.viewers.staff(person, activity.courseId, act);
    return activity;
  }

  private async view(manager: EntityManager, activity: ActivityRow): Promise<ActivityView> {
    return (await this.views(manager, [activity]))[0]!;
  }

  private async views(manager: EntityManager, activities: readonly ActivityRow[]): Promise<ActivityView[]> {
    const releases = activities.length === 0 ? [] : await manager.findBy(ReleaseRow, { activityId: In(activities.map((activity) => activity.id)) });
    const reach = new Map<string, Pick<ReleaseView, 'setName' | 'groups' | 'students'>>();
    if (releases.length > 0) {
      const rows = await manager.query<{ setId: string; setName: string; groups: number; students: number }[]>(
        `SELECT s."id" AS "setId", s."name" AS "setName",
                (SELECT count(*)::int FROM "course_group" g WHERE g."setId" = s."id") AS "groups",
                (SELECT count(DISTINCT m."enrolmentId")::int FROM "membership" m WHERE m."setId" = s."id" AND m."until" IS NULL) AS "students"
           FROM "group_set" s WHERE s."id" = ANY($1)`,
        [releases.map((release) => release.setId)],
      );
      for (const row of rows) reach.set(row.setId, row);
    }
    const now = this.clock.now().getTime();
    return activities.map((activity) => {
      const release = releases.find((each) => each.activityId === activity.id);
      return {
        id: activity.id as ActivityId,
        kind: activity.kind,
        title: activity.title,
        brief: activity.brief,
        points: plainDecimal(activity.points),
        schedule: { opens: iso(activity.opens), due: iso(activity.due), closes: iso(activity.closes) },
        latePolicy: activity.latePolicy,
        version: activity.version,
        updatedAt: activity.updatedAt.toISOString(),
        release: release
          ? { id: release.id as ReleaseId, setId: release.setId as GroupSetId, ...reach.get(release.setId)!, state: shownState(release, activity, now) }
          : null,
      };
    });
  }
}

/** What the state amounts to now: a scheduled release whose moment has come is live, a live one past its end is closed. */
function shownState(release: ReleaseRow, activity: ActivityRow, now: number): ReleaseView['state'] {
  const state = stateOf(release);
  if (state.state === 'draft') return { state: 'draft', at: null };
  if (state.state === 'scheduled') return { state: state.goesLiveAt <= now ? 'live' : 'scheduled', at: new Date(state.goesLiveAt).toISOString() };
  const isOver = state.state === 'live' && activity.closes !== null && activity.closes.getTime() <= now;
  return isOver ? { state: 'closed', at: iso(activity.closes) } : { state: state.state, at: new Date(state.since).toISOString() };
}

function columnsOf(draft: z.output<typeof ActivityDraft>) {
  const { opens, due, closes } = draft.schedule;
  return {
    title: draft.title,
    brief: json(draft.brief),
    points: draft.points,
    opens: dateOrNull(opens),
    due: dateOrNull(due),
    closes: dateOrNull(closes),
    latePolicy: draft.latePolicy,
  };
}

const dateOrNull = (at: string | null) => (at === null ? null : new Date(at));
const iso = (at: Date | null) => at?.toISOString() ?? null;
/** PostgreSQL writes 40.00 for 40. */
export const plainDecimal = (numeric: string) => (numeric.includes('.') ? numeric.replace(/\.?0+$/, '') : numeric);

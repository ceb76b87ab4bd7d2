import { isDeepStrictEqual as isEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { ActivityView, ChangeReach, ReleasedTo, ReleaseRequest } from '@jigsaw/contract/release';
import type { ActivityId, CourseId, EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import type { Concerns, ReleaseState } from '@jigsaw/core/release';
import { audiencesOf, isInAudience, setsOfAudience, transition, wholeSet } from '@jigsaw/core/release';
import { startingWithArticle } from '@jigsaw/core/text';
import { audiencesNow } from '../audiences/index.js';
import { areEnrolled, lockCourse, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { eventsAbout } from '../platform/events.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { areGroupsOfSet, setOfCourse } from '../sets/index.js';
import { announceAgain } from './announced.js';
import { ActivitiesService } from './activities.service.js';
import { lockActivity } from './locks.js';
import { columnsOf, withContent } from './content.js';
import { Copies } from './copies.js';
import { evaluate } from './evaluate.js';
import { isWithGroups, stateColumns, stateOf } from './facts.js';
import { hearersOfRelease } from './hearers.js';
import { Kinds } from './kinds.js';
import { ActivityRow, ReleaseRow } from './release.rows.js';

/** Who it goes to, how and from when. */
@Injectable()
export class ReleaseService {
  constructor(
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly activities: ActivitiesService,
    private readonly copies: Copies,
    private readonly kinds: Kinds,
  ) {}

  /** Each group gets its own copy, or all get one; anyone who is outside sees nothing, or that it exists. */
  async release(person: SignedIn, activityId: ActivityId, request: ReleaseRequest): Promise<ActivityView> {
    const { courseId } = await this.activities.forStaff(person, activityId);
    const viewer = await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      await lockForAudiences(manager, courseId, request.to);
      const locked = await lockActivity(manager, activityId);
      await this.refuseReach(manager, locked, request.to, request.mode);
      if (locked.version !== request.version)
        throw problems.staleWrite(
          await this.activities.view(manager, locked),
          'This draft was changed meanwhile. Look at it again before you release it.',
        );

      // What was in work when it was withdrawn is what the person had in view.
      const activity = locked.inWork ? withContent(locked, locked.inWork) : locked;
      this.kinds.refuseUnready(activity);

      const earlier = await manager.findOneBy(ReleaseRow, { activityId });
      if (earlier && earlier.mode !== request.mode)
        throw problems.conflict(
          'This was released in another way before, and groups have worked in it. Make a copy of it to release it like this.',
        );
      const goesLiveAt = request.goesLiveAt === null ? null : Date.parse(request.goesLiveAt);
      const next = transition(earlier ? stateOf(earlier) : { state: 'draft' }, {
        type: 'released',
        at: now.getTime(),
        goesLiveAt,
      });
      if (!next.ok) throw problems.conflict('This is released already.');

      const row = {
        id: earlier?.id ?? newId<'release'>(),
        activityId,
        courseId,
        mode: request.mode,
        audience: request.to,
        outsiders: request.outsiders,
        ...stateColumns(next.state),
        toldUntil: now,
        version: (earlier?.version ?? 0) + 1,
      };
      if (locked.inWork)
        await manager.update(ActivityRow, activityId, { ...columnsOf(locked.inWork), inWork: null });
      if (locked.inWork && earlier) await announceAgain(manager, earlier.id, now);
      await this.letOut(work, activity, row, viewer.enrolmentId, person);
      return this.activities.view(manager, await manager.findOneByOrFail(ActivityRow, { id: activityId }));
    });
  }

  /** A draft of new groups goes to all of them, a private copy each; within the transaction of the caller, who has made sure that this person may.
   * @returns how many groups it reaches. */
  async releaseToNewSet(
    work: Work,
    activity: ActivityRow,
    setId: GroupSetId,
    by: EnrolmentId,
    person: SignedIn,
  ): Promise<number> {
    const audience = wholeSet(setId);
    await this.refuseReach(work.manager, activity, audience, 'own');
    this.kinds.refuseUnready(activity);
    const row = {
      id: newId<'release'>(),
      activityId: activity.id,
      courseId: activity.courseId,
      mode: 'own',
      audience,
      outsiders: 'hidden',
      ...stateColumns({ state: 'live', since: work.now.getTime() }),
      toldUntil: work.now,
      version: 1,
    } as const;
    return this.letOut(work, activity, row, by, person);
  }

  /** Writes a release and opens its copies.
   * @returns how many groups it reaches. */
  private async letOut(
    work: Work,
    activity: ActivityRow,
    row: NewRelease,
    by: EnrolmentId,
    person: SignedIn,
  ): Promise<number> {
    await work.manager.save(ReleaseRow, row);
    const audience = await evaluate(work.manager, row.courseId, row.audience);
    const groupIds = await this.copies.open(work, activity, row, audience, by);
    await work.record({
      type: 'activity.released',
      courseId: row.courseId,
      actorId: person.id,
      subjectId: row.id,
      facts: { activityId: activity.id, state: row.state, mode: row.mode, groups: groupIds.length },
      ...hearersOfRelease(row.id),
    });
    return groupIds.length;
  }

  /** Others than before, or another word for outsiders. Anyone who is left out keeps what they did and no longer sees it. */
  async changeReach(
    person: SignedIn,
    activityId: ActivityId,
    { to, outsiders, was }: ChangeReach,
  ): Promise<ActivityView> {
    const activity = await this.activities.forStaff(person, activityId);
    const viewer = await this.viewers.staff(person, activity.courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager, record } = work;
      await lockForAudiences(manager, activity.courseId, to);
      const release = await manager.findOne(ReleaseRow, {
        where: { activityId },
        lock: { mode: 'pessimistic_write' },
      });
      if (!release) throw problems.conflict('This is still a draft; choose who gets it when you release it.');
      const now = { to: release.audience, outsiders: release.outsiders };
      if (isEqual(now, { to, outsiders })) return this.activities.view(manager, activity);
      if (!isEqual(now, was))
        throw problems.staleWrite(
          await this.activities.view(manager, activity),
          `Someone else changed who gets “${activity.title}” meanwhile. Look at who gets it now, then change that.`,
        );
      await this.refuseReach(manager, activity, to, release.mode);
      const row = { ...release, audience: to, outsiders, version: release.version + 1 };
      await manager.save(ReleaseRow, row);
      const audience = await evaluate(manager, row.courseId, row.audience);
      const groupIds = await this.copies.open(work, activity, row, audience, viewer.enrolmentId);
      await record({
        type: 'activity.reach-changed',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: release.id,
        facts: { activityId, groups: groupIds.length },
        ...hearersOfRelease(release.id),
        ...(await this.hadIt(manager, release, isWithGroups(release, activity, work.now))),
      });
      return this.activities.view(manager, activity);
    });
  }

  /** Withdrawn at once; copies and all that was done in them stay, and come back if it is released again. */
  async withdraw(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    const activity = await this.activities.forStaff(person, activityId);
    return this.unitOfWork.run(async (work) => {
      await this.withdrawIn(work, person, activity);
      return this.activities.view(work.manager, activity);
    });
  }

  /** Within the transaction of the caller, who has made sure that this person may. */
  async withdrawIn({ manager, now, record }: Work, person: SignedIn, activity: ActivityRow): Promise<void> {
    const release = await lockRelease(manager, activity.id);
    if (!release) throw problems.conflict(`“${activity.title}” is still a draft; no one has seen it.`);
    const from = stateOf(release);
    const next = transition(from, { type: 'withdrawn', at: now.getTime() });
    if (!next.ok) throw problems.conflict(`“${activity.title}” was withdrawn already.`);
    await manager.update(ReleaseRow, release.id, {
      ...stateColumns(next.state),
      version: release.version + 1,
    });
    await record({
      type: 'activity.withdrawn',
      courseId: activity.courseId,
      actorId: person.id,
      subjectId: release.id,
      facts: { activityId: activity.id, from },
      ...hearersOfRelease(release.id, { wasOut: isWithGroups(release, activity, now) }),
    });
  }

  /** As it was before it was withdrawn: scheduled or live since the same moment. Within the transaction of the caller, who has made sure that this person
   * may. */
  async releaseAgainIn(
    { manager, now, record }: Work,
    person: SignedIn,
    activity: ActivityRow,
  ): Promise<void> {
    const release = await lockRelease(manager, activity.id);
    if (release?.state !== 'withdrawn')
      throw problems.conflict(`“${activity.title}” is not withdrawn any more.`);
    this.kinds.refuseUnready(activity);
    const [withdrawn] = await eventsAbout(manager, release.id, 'activity.withdrawn', { unit: 'group' }, 1);
    const from = withdrawn?.facts['from'] as ReleaseState | undefined;
    if (!from) throw problems.conflict(`Open “${activity.title}” and release it again there.`);
    await manager.update(ReleaseRow, release.id, {
      ...stateColumns(from),
      toldUntil: now,
      version: release.version + 1,
    });
    await record({
      type: 'activity.released',
      courseId: activity.courseId,
      actorId: person.id,
      subjectId: release.id,
      facts: { activityId: activity.id, state: from.state, isAgain: true },
      ...hearersOfRelease(release.id),
    });
  }

  /** Who could read it, or know of it, before others were chosen: they hear that it may be gone. */
  private async hadIt(
    manager: EntityManager,
    release: ReleaseRow,
    wasOut: boolean,
  ): Promise<Partial<Pick<Concerns, 'enrolmentIds' | 'isForAll'>>> {
    if (!wasOut) return {};
    if (release.outsiders === 'listed') return { isForAll: true };
    const viewers = await this.viewers.students(manager, release.courseId);
    const audience = await evaluate(manager, release.courseId, release.audience);
    const had = viewers.filter((viewer) => isInAudience(viewer, audience));
    return { enrolmentIds: had.map((viewer) => viewer.enrolmentId) };
  }

  private async refuseReach(
    manager: EntityManager,
    activity: ActivityRow,
    to: ReleasedTo,
    mode: ReleaseRequest['mode'],
  ): Promise<void> {
    if (!this.kinds.modesOf(activity).includes(mode))
      throw problems.invalidInput(
        `${startingWithArticle(activity.kind)} cannot be released in this way with these settings.`,
      );
    if (mode !== 'common' && to.include.some(({ kind }) => hasNoGroups.has(kind)))
      throw problems.invalidInput(
        'The class, staff and single students cannot get a copy per group. Choose one copy for all, or remove them.',
      );
    for (const setId of setsOfAudience(to)) {
      await setOfCourse(manager, setId, activity.courseId);
      const groupIds = to.include.flatMap((entry) =>
        entry.kind === 'group' && entry.setId === setId ? [entry.groupId] : [],
      );
      if (!(await areGroupsOfSet(manager, groupIds, setId))) throw problems.notFound();
    }
    const saved = audiencesOf(to);
    if (saved.length > 0) {
      const { rows } = await audiencesNow(manager, activity.courseId);
      const known = new Set(rows.map((row) => row.id));
      if (!saved.every((id) => known.has(id))) throw problems.notFound();
    }
    const named = to.include.flatMap((entry) => (entry.kind === 'person' ? [entry.enrolmentId] : []));
    if (!(await areEnrolled(manager, activity.courseId, [...named, ...to.exclude])))
      throw problems.notFound();
  }
}

const lockRelease = (manager: EntityManager, activityId: ActivityId): Promise<ReleaseRow | null> =>
  manager.findOne(ReleaseRow, { where: { activityId }, lock: { mode: 'pessimistic_write' } });

const hasNoGroups: ReadonlySet<string> = new Set(['class', 'person', 'staff']);

/** A saved audience that something is being released to cannot be deleted meanwhile. Before anything else is locked: acts on audiences hold the course
 * and then ask for releases. */
async function lockForAudiences(manager: EntityManager, courseId: CourseId, to: ReleasedTo): Promise<void> {
  if (audiencesOf(to).length > 0) await lockCourse(manager, courseId);
}

type NewRelease = Pick<
  ReleaseRow,
  | 'id'
  | 'activityId'
  | 'courseId'
  | 'mode'
  | 'audience'
  | 'outsiders'
  | 'state'
  | 'stateAt'
  | 'toldUntil'
  | 'version'
>;

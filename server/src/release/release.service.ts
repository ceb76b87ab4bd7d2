import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { z } from 'zod';
import type {
  ActivityDraft,
  ActivityList,
  ActivityView,
  ChangeReach,
  CopyActivity,
  EditActivity,
  GrantExtension,
  ReleasedTo,
  ReleaseRequest,
} from '@jigsaw/contract/release';
import type { MadeActivity } from '@jigsaw/contract/setUp';
import type { ActivityId, CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { transition } from '@jigsaw/core/release';
import { GroupRow, GroupSetRow } from '../groups/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { MadeGroups, MadeSet } from '../roster/index.js';
import { Joining, NewGroups, NewSets, Viewers } from '../roster/index.js';
import { audienceOf, toOf } from './audience.js';
import { stateColumns, stateOf } from './facts.js';
import { hearersOfRelease } from './gate.js';
import { Kinds } from './kinds.js';
import { joinAudiences } from './joinAudiences.js';
import { ActivityRow, CopyRow, ExtensionRow, ReleaseRow } from './release.rows.js';
import { activityViews } from './views.js';

@Injectable()
export class ReleaseService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly kinds: Kinds,
    private readonly clock: Clock,
    joining: Joining,
    newGroups: NewGroups,
    newSets: NewSets,
  ) {
    joining.addStep(joinAudiences);
    newGroups.whenMade((made) => this.openForNewGroups(made));
    newSets.whenMade((made) => this.equip(made));
  }

  async list(person: SignedIn, courseId: CourseId): Promise<ActivityList> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const activities = await this.dataSource
      .getRepository(ActivityRow)
      .find({ where: { courseId }, order: { updatedAt: 'DESC' } });
    const views = await activityViews(this.dataSource.manager, this.kinds, activities, this.clock.now());
    const isTheirs = (groupId: GroupId) => !viewer.seesOnlyLed || viewer.leads.includes(groupId);
    const shown = views.map((view) => ({
      ...view,
      extensions: view.extensions.filter((each) => isTheirs(each.groupId)),
    }));
    return {
      activities:
        viewer.role === 'observer'
          ? shown.filter((view) => view.release !== null && view.release.state.state !== 'draft')
          : shown,
    };
  }

  async read(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    return this.view(this.dataSource.manager, await this.staffActivity(person, activityId));
  }

  async create(
    person: SignedIn,
    courseId: CourseId,
    draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityView> {
    await this.viewers.staff(person, courseId, 'release');
    const columns = this.columnsOf(draft);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const id = newId<'activity'>();
      await manager.insert(ActivityRow, {
        id,
        courseId,
        ...columns,
        version: 1,
        createdAt: now,
        updatedAt: now,
      });
      await record({
        type: 'activity.drafted',
        courseId,
        actorId: person.id,
        subjectId: id,
        facts: { kind: draft.kind },
      });
      return this.view(manager, await manager.findOneByOrFail(ActivityRow, { id }));
    });
  }

  /** A draft with the same settings and no release: to release the same again, elsewhere or otherwise. */
  async copy(person: SignedIn, activityId: ActivityId, { keepsTitle }: CopyActivity): Promise<ActivityView> {
    const { createdAt: _at, ...written } = await this.staffActivity(person, activityId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const id = newId<'activity'>();
      const title = keepsTitle ? written.title : `${written.title.slice(0, 190)} (copy)`;
      await manager.insert(ActivityRow, {
        ...written,
        id,
        title,
        brief: json(written.brief),
        settings: json(written.settings),
        rubric: written.rubric && json(written.rubric),
        version: 1,
        createdAt: now,
        updatedAt: now,
      });
      await record({
        type: 'activity.drafted',
        courseId: written.courseId,
        actorId: person.id,
        subjectId: id,
        facts: { copyOf: activityId },
      });
      return this.view(manager, await manager.findOneByOrFail(ActivityRow, { id }));
    });
  }

  /** Saved as typed; what two people changed at once is shown to both, not lost. */
  async edit(
    person: SignedIn,
    activityId: ActivityId,
    edit: z.output<typeof EditActivity>,
  ): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId);
    const columns = this.columnsOf(edit);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const release = await manager.findOneBy(ReleaseRow, { activityId });
      if (release && edit.kind !== activity.kind)
        throw problems.conflict(
          `Groups have this as a ${activity.kind} already. Make a copy of it to release it as something else.`,
        );
      if (release) await this.refuseOtherUnit(manager, activity, columns);
      const { affected } = await manager.update(
        ActivityRow,
        { id: activityId, version: edit.version },
        { ...columns, version: edit.version + 1, updatedAt: now },
      );
      const saved = await this.view(manager, await manager.findOneByOrFail(ActivityRow, { id: activityId }));
      if (affected === 0) throw problems.staleWrite(saved);
      await record({
        type: 'activity.edited',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: activityId,
        facts: { version: saved.version },
        ...(release ? hearersOfRelease(release) : {}),
      });
      return saved;
    });
  }

  /** Each group gets its own copy, or all get one; whoever is outside sees nothing, or that it exists. */
  async release(person: SignedIn, activityId: ActivityId, request: ReleaseRequest): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId);
    const viewer = await this.viewers.staff(person, activity.courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager, now } = work;
      const locked = await manager.findOneOrFail(ActivityRow, {
        where: { id: activityId },
        lock: { mode: 'pessimistic_write' },
      });
      await this.refuseReach(manager, locked, request.to, request.mode);
      if (locked.version !== request.version)
        throw problems.staleWrite(
          await this.view(manager, locked),
          'This draft was changed meanwhile. Look at it once more before you release it.',
        );

      const earlier = await manager.findOneBy(ReleaseRow, { activityId });
      const setId = request.to.kind === 'class' ? null : request.to.setId;
      if (earlier && (earlier.setId !== setId || earlier.mode !== request.mode))
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
        courseId: activity.courseId,
        setId,
        mode: request.mode,
        audience: audienceOf(request.to),
        outsiders: request.outsiders,
        ...stateColumns(next.state),
        version: (earlier?.version ?? 0) + 1,
      };
      await this.letOut(work, locked, row, viewer.enrolmentId, person);
      return this.view(manager, locked);
    });
  }

  /** Writes a release and opens its copies.
   * @returns how many groups it reaches */
  private async letOut(
    work: Work,
    activity: ActivityRow,
    row: NewRelease,
    by: EnrolmentId,
    person: SignedIn,
  ): Promise<number> {
    await work.manager.save(ReleaseRow, row);
    const groupIds = await this.openCopies(work, activity, row, by);
    await work.record({
      type: 'activity.released',
      courseId: row.courseId,
      actorId: person.id,
      subjectId: row.id,
      facts: { activityId: activity.id, state: row.state, mode: row.mode, groups: groupIds.length },
      ...hearersOfRelease(row),
    });
    return groupIds.length;
  }

  /** What each group of a new set gets, a private copy each; all of it with the set, or nothing. */
  private async equip({ work, person, courseId, setId, activities }: MadeSet): Promise<MadeActivity[]> {
    const { manager, now, record } = work;
    const viewer = await this.viewers.staff(person, courseId, 'release');
    const made: MadeActivity[] = [];
    for (const { draft, isReleased } of activities) {
      const id = newId<'activity'>();
      await manager.insert(ActivityRow, {
        id,
        courseId,
        ...this.columnsOf(draft),
        version: 1,
        createdAt: now,
        updatedAt: now,
      });
      await record({
        type: 'activity.drafted',
        courseId,
        actorId: person.id,
        subjectId: id,
        facts: { kind: draft.kind },
      });
      let copies = 0;
      if (isReleased) {
        const activity = await manager.findOneByOrFail(ActivityRow, { id });
        const to = { kind: 'set', setId } as const;
        await this.refuseReach(manager, activity, to, 'own');
        const live = stateColumns({ state: 'live', since: now.getTime() });
        const row = {
          id: newId<'release'>(),
          activityId: id,
          courseId,
          setId,
          mode: 'own',
          audience: audienceOf(to),
          outsiders: 'hidden',
          ...live,
          version: 1,
        } as const;
        copies = await this.letOut(work, activity, row, viewer.enrolmentId, person);
      }
      made.push({ id, title: draft.title, kind: draft.kind, isReleased, copies });
    }
    return made;
  }

  /** Other groups of the same set, or another word for outsiders. Whoever is left out keeps what they did and no longer sees it. */
  async changeReach(
    person: SignedIn,
    activityId: ActivityId,
    { to, outsiders }: ChangeReach,
  ): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId);
    const viewer = await this.viewers.staff(person, activity.courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager, record } = work;
      const release = await manager.findOne(ReleaseRow, {
        where: { activityId },
        lock: { mode: 'pessimistic_write' },
      });
      if (!release)
        throw problems.conflict('This is still a draft; choose whom it reaches when you release it.');
      await this.refuseReach(manager, activity, to, release.mode);
      if (release.setId !== (to.kind === 'class' ? null : to.setId))
        throw problems.conflict('Make a copy of it to release it to another set.');
      const before = hearersOfRelease(release);
      const row = { ...release, audience: audienceOf(to), outsiders, version: release.version + 1 };
      await manager.save(ReleaseRow, row);
      const groupIds = await this.openCopies(work, activity, row, viewer.enrolmentId);
      const after = hearersOfRelease(row);
      await record({
        type: 'activity.reach-changed',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: release.id,
        facts: { activityId, groups: groupIds.length },
        groupIds: [...before.groupIds, ...after.groupIds],
        setIds: [...before.setIds, ...after.setIds],
        isForAll: after.isForAll,
      });
      return this.view(manager, activity);
    });
  }

  /** Taken back at once; copies and all that was done in them stay, and come back if it is released again. */
  async withdraw(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const release = await manager.findOne(ReleaseRow, {
        where: { activityId },
        lock: { mode: 'pessimistic_write' },
      });
      if (!release) throw problems.conflict('This is still a draft; nobody has seen it.');
      const next = transition(stateOf(release), { type: 'withdrawn', at: now.getTime() });
      if (!next.ok) throw problems.conflict('This was withdrawn already.');
      await manager.update(ReleaseRow, release.id, {
        ...stateColumns(next.state),
        version: release.version + 1,
      });
      await record({
        type: 'activity.withdrawn',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: release.id,
        facts: { activityId },
        ...hearersOfRelease(release),
      });
      return this.view(manager, activity);
    });
  }

  /** Gives one group longer, or its time back (null). */
  async extend(
    person: SignedIn,
    activityId: ActivityId,
    groupId: GroupId,
    grant: GrantExtension | null,
  ): Promise<ActivityView> {
    const activity = await this.staffActivity(person, activityId);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      const group = await manager.query<unknown[]>(
        `SELECT 1 FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = $1 AND s."courseId" = $2`,
        [groupId, activity.courseId],
      );
      if (group.length === 0) throw problems.notFound();
      if (grant && activity.opens && Date.parse(grant.due) < activity.opens.getTime())
        throw problems.invalidInput('This is before it opens. Choose a later time.', {
          issues: [{ path: 'due', message: 'Choose a later time.' }],
        });
      const before = await manager.findOneBy(ExtensionRow, { activityId, groupId });
      if (grant)
        await manager.save(ExtensionRow, {
          activityId,
          groupId,
          due: new Date(grant.due),
          reason: grant.reason,
          grantedBy: person.id,
          grantedAt: now,
        });
      else await manager.delete(ExtensionRow, { activityId, groupId });
      await record({
        type: grant ? 'extension.granted' : 'extension.taken-back',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: activityId,
        facts: { groupId, from: before?.due.toISOString() ?? null, to: grant?.due ?? null },
        groupIds: [groupId],
      });
      return this.view(manager, activity);
    });
  }

  /** What was released to a whole set is for its new groups, too. */
  private async openForNewGroups({ setId, by, ...work }: MadeGroups): Promise<void> {
    for (const release of await work.manager.findBy(ReleaseRow, { setId })) {
      if (toOf(release).kind !== 'set') continue;
      await this.openCopies(
        work,
        await work.manager.findOneByOrFail(ActivityRow, { id: release.activityId }),
        release,
        by,
      );
    }
  }

  /** Makes the copies that are missing, with what the kind begins them with. */
  private async openCopies(
    { manager, now }: Pick<Work, 'manager' | 'now'>,
    activity: ActivityRow,
    release: ReleaseRow,
    by: EnrolmentId,
  ): Promise<string[]> {
    const to = toOf(release);
    const groups = release.setId === null ? [] : await manager.findBy(GroupRow, { setId: release.setId });
    const groupIds = groups
      .map((group) => group.id)
      .filter((id) => to.kind !== 'groups' || to.groupIds.includes(id as GroupId));
    const wanted: (string | null)[] = release.mode === 'common' ? [null] : groupIds;
    if (wanted.length === 0) return groupIds; // a set whose groups come to be later
    const { raw } = (await manager
      .createQueryBuilder()
      .insert()
      .into(CopyRow)
      .values(wanted.map((groupId) => ({ id: newId(), releaseId: release.id, groupId })))
      .orIgnore()
      .returning('*')
      .execute()) as { raw: CopyRow[] };
    if (raw.length > 0)
      await this.kinds
        .of(activity)
        .begin?.({ copies: raw, settings: this.kinds.settingsOf(activity), manager, now, by });
    return groupIds;
  }

  private async refuseReach(
    manager: EntityManager,
    activity: ActivityRow,
    to: ReleasedTo,
    mode: ReleaseRequest['mode'],
  ): Promise<void> {
    if (!this.kinds.modesOf(activity).includes(mode))
      throw problems.invalidInput(`A ${activity.kind} cannot be released in this way with these settings.`);
    if (to.kind === 'class') {
      if (mode !== 'common')
        throw problems.invalidInput(
          'The class has no groups to give copies to. Choose one copy for all, or a group set.',
        );
      return;
    }
    const set = await manager.findOneBy(GroupSetRow, { id: to.setId, courseId: activity.courseId });
    if (!set) throw problems.notFound();
    if (
      to.kind === 'groups' &&
      (await manager.countBy(GroupRow, { id: In(to.groupIds), setId: to.setId })) !==
        new Set(to.groupIds).size
    )
      throw problems.notFound();
  }

  /** Marks hang on what gets them: once there are some, they stay the group's or each student's. */
  private async refuseOtherUnit(
    manager: EntityManager,
    activity: ActivityRow,
    next: { settings: object },
  ): Promise<void> {
    const kind = this.kinds.of(activity);
    if (kind.markFor(this.kinds.settingsOf(activity)) === kind.markFor(kind.settings.parse(next.settings)))
      return;
    const [used] = await manager.query<{ used: boolean }[]>(
      `SELECT EXISTS (SELECT 1 FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" WHERE r."activityId" = $1 AND
         (EXISTS (SELECT 1 FROM "mark" m WHERE m."copyId" = c."id") OR EXISTS (SELECT 1 FROM "hand_in" h WHERE h."copyId" = c."id"))) AS "used"`,
      [activity.id],
    );
    if (used!.used)
      throw problems.conflict(
        'There is work or a mark for it already, so who gets the mark stays as it is. Make a copy to change that.',
      );
  }

  private async staffActivity(person: SignedIn, activityId: ActivityId): Promise<ActivityRow> {
    const activity = await this.dataSource.getRepository(ActivityRow).findOneBy({ id: activityId });
    if (!activity) throw problems.notFound();
    await this.viewers.staff(person, activity.courseId, 'release');
    return activity;
  }

  private async view(manager: EntityManager, activity: ActivityRow): Promise<ActivityView> {
    return (await activityViews(manager, this.kinds, [activity], this.clock.now()))[0]!;
  }

  private columnsOf(draft: z.output<typeof ActivityDraft>) {
    const { opens, due, closes } = draft.schedule;
    return {
      kind: draft.kind,
      title: draft.title,
      brief: json(draft.brief),
      points: draft.points,
      rubric: draft.rubric && json(draft.rubric),
      opens: dateOrNull(opens),
      due: dateOrNull(due),
      closes: dateOrNull(closes),
      latePolicy: draft.latePolicy,
      settings: json(this.kinds.check(draft.kind, draft.settings)),
    };
  }
}

type NewRelease = Pick<
  ReleaseRow,
  | 'id'
  | 'activityId'
  | 'courseId'
  | 'setId'
  | 'mode'
  | 'audience'
  | 'outsiders'
  | 'state'
  | 'stateAt'
  | 'version'
>;

const dateOrNull = (at: string | null) => (at === null ? null : new Date(at));

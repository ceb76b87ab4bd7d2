import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import type { z } from 'zod';
import type {
  ActivityDraft,
  ActivityList,
  ActivityView,
  CopyActivity,
  EditActivity,
} from '@jigsaw/contract/release';
import { hearersOfAudience } from '@jigsaw/core/release';
import type { ActivityId, CourseId, GroupId, CopyId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { Kinds } from './kinds.js';
import { ActivityRow, ReleaseRow } from './release.rows.js';
import { activityViews } from './views.js';

/** What is written once for all copies: drafted, edited, copied. */
type ActivityColumns = Omit<QueryDeepPartialEntity<ActivityRow>, 'courseId'> & {
  readonly courseId: CourseId;
};

@Injectable()
export class ActivitiesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly kinds: Kinds,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<ActivityList> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const activities = await manager.find(ActivityRow, { where: { courseId }, order: { updatedAt: 'DESC' } });
    const views = await activityViews(manager, this.kinds, activities, this.clock.now());
    const isTheirs = (groupId: GroupId) => !viewer.seesOnlyLed || viewer.leads.includes(groupId);
    const shown = views.map((view) => ({
      ...view,
      extensions: view.extensions.filter((each) => isTheirs(each.groupId)),
    }));
    const isOut = (view: ActivityView) => view.release !== null && view.release.state.state !== 'draft';
    return { activities: viewer.role === 'observer' ? shown.filter(isOut) : shown };
  }

  async read(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    return this.view(this.dataSource.manager, await this.forStaff(person, activityId));
  }

  async create(
    person: SignedIn,
    courseId: CourseId,
    draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityView> {
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) =>
      this.view(work.manager, await this.draft(work, person, courseId, draft)),
    );
  }

  /** Within the transaction of whoever asks, who has made sure that this person may. */
  async draft(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityRow> {
    return this.insert(work, person, { courseId, ...this.columnsOf(draft) }, { kind: draft.kind });
  }

  /** A draft with the same settings and no release: to release the same again, elsewhere or otherwise. */
  async copy(person: SignedIn, activityId: ActivityId, { keepsTitle }: CopyActivity): Promise<ActivityView> {
    const original = await this.forStaff(person, activityId);
    const { courseId, kind, title, brief, points, rubric, opens, due, closes, latePolicy, settings } =
      original;
    const columns = {
      courseId,
      kind,
      title: keepsTitle ? title : `${title.slice(0, 190)} (copy)`,
      brief: json(brief),
      points,
      rubric: rubric && json(rubric),
      opens,
      due,
      closes,
      latePolicy,
      settings: json(settings),
    };
    return this.unitOfWork.run(async (work) =>
      this.view(work.manager, await this.insert(work, person, columns, { copyOf: activityId })),
    );
  }

  /** Saved as typed; what two people changed at once is shown to both, not lost. */
  async edit(
    person: SignedIn,
    activityId: ActivityId,
    edit: z.output<typeof EditActivity>,
  ): Promise<ActivityView> {
    const activity = await this.forStaff(person, activityId);
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
        ...(release ? hearersOfAudience(release.audience) : {}),
      });
      return saved;
    });
  }

  /** @throws not-found unless this person releases in its course. */
  async forStaff(person: SignedIn, activityId: ActivityId): Promise<ActivityRow> {
    const activity = await this.dataSource.manager.findOneBy(ActivityRow, { id: activityId });
    if (!activity) throw problems.notFound();
    await this.viewers.staff(person, activity.courseId, 'release');
    return activity;
  }

  async view(manager: EntityManager, activity: ActivityRow): Promise<ActivityView> {
    return sure((await activityViews(manager, this.kinds, [activity], this.clock.now()))[0]);
  }

  private async insert(
    { manager, now, record }: Work,
    person: SignedIn,
    columns: ActivityColumns,
    facts: Record<string, unknown>,
  ): Promise<ActivityRow> {
    const id = newId<'activity'>();
    await manager.insert(ActivityRow, { ...columns, id, version: 1, createdAt: now, updatedAt: now });
    await record({
      type: 'activity.drafted',
      courseId: columns.courseId,
      actorId: person.id,
      subjectId: id,
      facts,
    });
    return manager.findOneByOrFail(ActivityRow, { id });
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
    const copies = await manager.query<{ copyId: CopyId }[]>(
      `SELECT "copyId" FROM "released_copy" WHERE "activityId" = $1`,
      [activity.id],
    );
    const copyIds = copies.map((copy) => copy.copyId);
    if (await this.kinds.hasTraces(manager, copyIds))
      throw problems.conflict(
        'There is work or a mark for it already, so who gets the mark stays as it is. Make a copy to change that.',
      );
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

const dateOrNull = (at: string | null) => (at === null ? null : new Date(at));

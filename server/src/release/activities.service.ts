import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, IsNull } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import type { z } from 'zod';
import type { Done } from '@jigsaw/contract/common';
import type {
  ActivityContent,
  ActivityDraft,
  ActivityList,
  ActivityView,
  CopyActivity,
  EditActivity,
  SeenActivity,
} from '@jigsaw/contract/release';
import type { ActType } from '@jigsaw/core/audit';
import { partsChanged } from '@jigsaw/core/release';
import type { ActivityId, CourseId, GroupId, CopyId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { withArticle } from '@jigsaw/core/text';
import { Viewers } from '../course/index.js';
import { FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { announceAgain } from './announced.js';
import { copiesChanged } from './copiesChanged.js';
import { columnsOf, contentOf, contentOfCopy, contentOfDraft, withColumns } from './content.js';
import { lockActivity } from './locks.js';
import { knownFiles } from './knownFiles.js';
import { isWithGroups } from './facts.js';
import { hearersOfRelease } from './hearers.js';
import { Kinds } from './kinds.js';
import { ActivityFileRow, ActivityRow, ReleaseRow } from './release.rows.js';
import { activityViews } from './views.js';

/** What is written once for all copies: drafted, edited, copied. */
type ActivityColumns = Omit<QueryDeepPartialEntity<ActivityRow>, 'courseId'> & {
  readonly courseId: CourseId;
};

/** Observers are shown no drafts, and so hear of none. */
export const toTeachers = { staff: 'mark' } as const;

@Injectable()
export class ActivitiesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly kinds: Kinds,
    private readonly files: FilesService,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<ActivityList> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const activities = await manager.find(ActivityRow, {
      where: { courseId, deletedAt: IsNull() },
      order: { updatedAt: 'DESC' },
    });
    const views = await activityViews(manager, this.kinds, activities, this.clock.now());
    const isTheirs = (groupId: GroupId) => !viewer.seesOnlyLed || viewer.leads.includes(groupId);
    const shown = views.map((view) => ({
      ...view,
      extensions: view.extensions.filter((each) => isTheirs(each.groupId)),
      // Why one student has longer is for those who answer for them.
      studentExtensions:
        viewer.role === 'observer'
          ? []
          : view.studentExtensions.filter((each) => each.groups.some(isTheirs) || !viewer.seesOnlyLed),
    }));
    const isOut = (view: ActivityView) => view.release !== null && view.release.state.state !== 'draft';
    return {
      activities:
        viewer.role === 'observer' ? shown.filter(isOut).map((view) => ({ ...view, inWork: null })) : shown,
    };
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

  /** Within the transaction of the caller, who has made sure that this person may. */
  async draft(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    draft: z.output<typeof ActivityDraft>,
  ): Promise<ActivityRow> {
    if (draft.files.length > 0) throw problems.invalidInput('Create the activity first, then add its files.');
    return this.insert(
      work,
      person,
      { courseId, ...columnsOf(contentOfDraft(draft, this.kinds)) },
      { kind: draft.kind },
    );
  }

  /** A draft with the same settings and no release: to release the same again, elsewhere or otherwise. */
  async copy(person: SignedIn, activityId: ActivityId, { keepsTitle }: CopyActivity): Promise<ActivityView> {
    const original = await this.forStaff(person, activityId);
    return this.unitOfWork.run(async (work) =>
      this.view(work.manager, await this.copyIn(work, person, original, { keepsTitle })),
    );
  }

  /** Within the transaction of the caller, who has made sure that this person may. */
  async copyIn(
    work: Work,
    person: SignedIn,
    original: ActivityRow,
    {
      keepsTitle,
      keepsDates = true,
      courseId = original.courseId,
    }: CopyActivity & { readonly keepsDates?: boolean; readonly courseId?: CourseId },
  ): Promise<ActivityRow> {
    const written = original.inWork ?? contentOf(original, this.kinds);
    const content = contentOfCopy(written, this.kinds, {
      isElsewhere: courseId !== original.courseId,
      keepsDates,
    });
    const title = keepsTitle ? content.title : `${content.title.slice(0, 190)} (copy)`;
    const columns = { courseId, ...columnsOf(content), title };
    const copy = await this.insert(work, person, columns, { copyOf: original.id });
    await work.manager.insert(ActivityFileRow, content.files.map(({ id }) => ({ activityId: copy.id, fileId: id }))); // prettier-ignore
    return copy;
  }

  /** Saved as typed; what two people changed at once is shown to both, not lost. What groups have already changes for them only once it is
   * published. */
  async edit(
    person: SignedIn,
    activityId: ActivityId,
    edit: z.output<typeof EditActivity>,
  ): Promise<ActivityView> {
    const { version, ...draft } = edit;
    const written = contentOfDraft(draft, this.kinds);
    return this.write(person, activityId, version, undefined, async ({ manager, now }, activity, release) => {
      const files = await knownFiles(manager, this.files, activityId, written.files);
      const content = { ...written, files };
      await this.refuseOtherForm(manager, activity, release, content);
      if (!release || !isWithGroups(release, activity, now)) {
        // What is scheduled goes live as it is, without anyone looking at it again.
        if (release?.state === 'scheduled') this.kinds.refuseUnready(content);
        return { ...columnsOf(content), inWork: null };
      }
      const isSame = partsChanged(contentOf(activity, this.kinds), content).length === 0;
      return { inWork: isSame ? null : json(content) };
    });
  }

  /** Its groups have the changed activity from now on. */
  async publish(person: SignedIn, activityId: ActivityId, { version }: SeenActivity): Promise<ActivityView> {
    return this.write(
      person,
      activityId,
      version,
      'Someone changed this while you had it open. Review the changes, then publish them.',
      async ({ manager }, activity, release) => {
        if (!activity.inWork) throw problems.conflict('There are no changes to publish.');
        await this.refuseOtherForm(manager, activity, release, activity.inWork);
        if (release) this.kinds.refuseUnready(activity.inWork);
        return { ...columnsOf(activity.inWork), inWork: null };
      },
    );
  }

  /** Discards the changes that are not published; its groups have what they had. */
  async discardChanges(
    person: SignedIn,
    activityId: ActivityId,
    { version }: SeenActivity,
  ): Promise<ActivityView> {
    return this.write(
      person,
      activityId,
      version,
      'Someone changed this while you had it open. Review the changes, then discard them.',
      () => Promise.resolve({ inWork: null }),
    );
  }

  /** Deletes a draft; it can be restored. What was released is withdrawn instead. */
  async remove(person: SignedIn, activityId: ActivityId): Promise<Done> {
    await this.forStaff(person, activityId);
    return this.unitOfWork.run(async (work) => {
      await this.removeIn(work, person, await lockActivity(work.manager, activityId));
      return { done: true };
    });
  }

  /** Within the transaction of the caller, who holds the activity and has made sure that this person may. */
  async removeIn(
    { manager, now, record }: Work,
    person: SignedIn,
    { id, courseId, title }: ActivityRow,
  ): Promise<void> {
    if (await manager.existsBy(ReleaseRow, { activityId: id }))
      throw problems.conflict(
        `“${title}” was released, so it cannot be deleted. Withdraw it instead; all work is kept.`,
      );
    await manager.update(ActivityRow, id, { deletedAt: now });
    await record(ofDraft('activity.deleted', person, { id, courseId }));
  }

  async restore(person: SignedIn, activityId: ActivityId): Promise<ActivityView> {
    const activity = await this.forStaff(person, activityId, { isDeleted: true });
    return this.unitOfWork.run(async (work) => {
      await this.restoreIn(work, person, activity);
      return this.view(work.manager, await work.manager.findOneByOrFail(ActivityRow, { id: activityId }));
    });
  }

  /** Within the transaction of the caller, who has made sure that this person may. */
  async restoreIn({ manager, record }: Work, person: SignedIn, { id, courseId }: ActivityRow): Promise<void> {
    await manager.update(ActivityRow, id, { deletedAt: null });
    await record(ofDraft('activity.restored', person, { id, courseId }));
  }

  /** One write of what is in an activity, on top of the version that the person has seen.
   * @param sentence told where that is not the newest. */
  private async write(
    person: SignedIn,
    activityId: ActivityId,
    version: number,
    sentence: string | undefined,
    columnsFor: (
      work: Work,
      activity: ActivityRow,
      release: ReleaseRow | null,
    ) => Promise<QueryDeepPartialEntity<ActivityRow>>,
  ): Promise<ActivityView> {
    await this.forStaff(person, activityId);
    return this.unitOfWork.run(async (work) => {
      const { manager, now, record } = work;
      const activity = await lockActivity(manager, activityId);
      if (activity.version !== version)
        throw problems.staleWrite(await this.view(manager, activity), sentence);
      const release = await manager.findOneBy(ReleaseRow, { activityId });
      const columns = await columnsFor(work, activity, release);
      await manager.update(ActivityRow, activityId, { ...columns, version: version + 1, updatedAt: now });
      // What is in work is not with groups, whatever was released before.
      const reaches = release && 'title' in columns;
      const copyIds = reaches
        ? await copiesChanged(manager, this.kinds, release.id, activity, withColumns(activity, columns))
        : null;
      if (reaches) await announceAgain(manager, release.id, now, copyIds);
      await record({
        type: 'activity.edited',
        courseId: activity.courseId,
        actorId: person.id,
        subjectId: activityId,
        facts: { version: version + 1, isVisible: Boolean(reaches && isWithGroups(release, activity, now)) },
        ...(reaches ? hearersOfRelease(release.id, { copyIds }) : toTeachers),
      });
      return this.view(manager, await manager.findOneByOrFail(ActivityRow, { id: activityId }));
    });
  }

  /** @throws not-found unless this person releases in its course, and for a deleted draft. */
  async forStaff(
    person: SignedIn,
    activityId: ActivityId,
    { isDeleted = false }: { readonly isDeleted?: boolean } = {},
  ): Promise<ActivityRow> {
    const activity = await this.dataSource.manager.findOneBy(ActivityRow, { id: activityId });
    if (!activity || (activity.deletedAt !== null && !isDeleted)) throw problems.notFound();
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
    await record(ofDraft('activity.drafted', person, { id, courseId: columns.courseId }, facts));
    return manager.findOneByOrFail(ActivityRow, { id });
  }

  /** What groups have stays of its kind; and marks hang on what gets them: once there are some, they stay the group's or each student's. */
  private async refuseOtherForm(
    manager: EntityManager,
    activity: ActivityRow,
    release: ReleaseRow | null,
    next: ActivityContent,
  ): Promise<void> {
    if (!release) return;
    if (next.kind !== activity.kind)
      throw problems.conflict(
        `Groups have this as ${withArticle(activity.kind)} already. Make a copy of it to release it as something else.`,
      );
    const kind = this.kinds.of(activity);
    const isUnmarked = activity.points !== null && next.points === null;
    const [before, after] = [this.kinds.settingsOf(activity), kind.settings.parse(next.settings)];
    const isOtherUnit = kind.markFor(before) !== kind.markFor(after);
    if (!isUnmarked && !isOtherUnit && !kind.whyNotChanged) return;
    const copies = await manager.query<{ copyId: CopyId }[]>(
      `SELECT "copyId" FROM "released_copy" WHERE "activityId" = $1`,
      [activity.id],
    );
    const copyIds = copies.map((copy) => copy.copyId);
    const why = (await kind.whyNotChanged?.({ manager, copyIds, before, after })) ?? null;
    if (why !== null) throw problems.conflict(why);
    if (isUnmarked && (await this.kinds.hasTraces(manager, copyIds, ['mark'])))
      throw problems.conflict(
        'This already has marks, so it must have points. Recall the marks first, or make a copy.',
      );
    if (isOtherUnit && (await this.kinds.hasTraces(manager, copyIds)))
      throw problems.conflict(
        'There is work or a mark for it already, so who gets the mark stays as it is. Make a copy to change that.',
      );
  }
}

/** What happened to a draft. */
const ofDraft = (
  type: ActType,
  person: SignedIn,
  { id, courseId }: Pick<ActivityRow, 'id' | 'courseId'>,
  facts: Record<string, unknown> = {},
) => ({ type, courseId, actorId: person.id, subjectId: id, facts, ...toTeachers });

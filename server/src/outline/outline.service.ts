import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, IsNull } from 'typeorm';
import type {
  ActivityPlaced,
  HeadingMoved,
  MoveHeading,
  NewHeading,
  OutlineView,
  PlaceActivity,
  RenameHeading,
} from '@jigsaw/contract/outline';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { ActivityId, CourseId, HeadingId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Heading, Outline } from '@jigsaw/core/outline';
import { headingMoved, outlineOf, placed, seenIn } from '@jigsaw/core/outline';
import { lockCourse, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { ActivityIds } from '../release/index.js';
import {
  ActivitiesService,
  activityIdsOf,
  Gate,
  hearersOfRelease,
  isOut,
  toTeachers,
} from '../release/index.js';
import { HeadingRow, OutlinePlaceRow } from './outline.rows.js';

const mostHeadings = 200;

interface KeptHeading extends Heading {
  readonly title: string;
  readonly version: number;
}
interface Kept {
  readonly outline: Outline<KeptHeading>;
  readonly activities: readonly ActivityIds[];
}

/** The order in which a course shows its activities: the same for all, to each as far as they see what is in it. */
@Injectable()
export class OutlineService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly activities: ActivitiesService,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, courseId: CourseId): Promise<OutlineView> {
    const viewer = await this.viewers.enter(person, courseId);
    const { outline, activities } = await kept(this.dataSource.manager, courseId);
    if (may(viewer.role, 'release')) return forStaff(outline);
    const seen = await this.seenBy(person, viewer, activities);
    const { headings, loose } = seenIn(outline, seen);
    return view({ headings: headings.map((heading) => ({ ...heading, version: null })), loose });
  }

  async create(person: SignedIn, courseId: CourseId, { title }: NewHeading): Promise<OutlineView> {
    await this.viewers.staff(person, courseId, 'release');
    return this.change(courseId, async (work, { outline: { headings } }) => {
      if (headings.length >= mostHeadings)
        throw problems.conflict(`${mostHeadings} headings are the most. Delete one that you do not need.`);
      const id = newId<'heading'>();
      await work.manager.insert(HeadingRow, { id, courseId, title, position: 0, createdAt: work.now });
      await writeOrder(work.manager, [...headings.map((heading) => heading.id), id]);
      await record(work, person, courseId, id);
    });
  }

  async rename(person: SignedIn, id: HeadingId, { title, version }: RenameHeading): Promise<OutlineView> {
    const { courseId } = await this.found(person, id);
    return this.change(courseId, async (work, { outline, activities }) => {
      const heading = headingIn(outline, id);
      if (heading.version !== version)
        throw problems.staleWrite(
          forStaff(outline),
          `Someone renamed this heading to “${heading.title}” meanwhile. Your title is kept here.`,
        );
      await work.manager.update(HeadingRow, id, { title, version: version + 1 });
      await this.recordFor(work, person, courseId, id, heading.activityIds, activities);
    });
  }

  async move(person: SignedIn, id: HeadingId, { before }: MoveHeading): Promise<HeadingMoved> {
    const { courseId } = await this.found(person, id);
    let was: MoveHeading = { before: null };
    const outline = await this.change(courseId, async (work, now) => {
      const heading = headingIn(now.outline, id);
      const ids = now.outline.headings.map((each) => each.id);
      if (before !== null && !ids.includes(before)) throw problems.notFound();
      was = { before: ids[ids.indexOf(id) + 1] ?? null };
      const next = sure(headingMoved(now.outline, id, before));
      await writeOrder(work.manager, next.headings.map((each) => each.id)); // prettier-ignore
      await this.recordFor(work, person, courseId, id, heading.activityIds, now.activities);
    });
    return { outline, was };
  }

  /** Its activities stand under no heading until it is restored. */
  async remove(person: SignedIn, id: HeadingId): Promise<OutlineView> {
    const { courseId } = await this.found(person, id);
    return this.change(courseId, async (work, { outline, activities }) => {
      const { activityIds } = headingIn(outline, id);
      await work.manager.update(HeadingRow, id, { deletedAt: work.now });
      await this.recordFor(work, person, courseId, id, activityIds, activities);
    });
  }

  async restore(person: SignedIn, id: HeadingId): Promise<OutlineView> {
    const { courseId } = await this.found(person, id, { isDeleted: true });
    return this.change(courseId, async (work) => {
      await work.manager.update(HeadingRow, id, { deletedAt: null });
      const { outline, activities } = await kept(work.manager, courseId);
      await this.recordFor(work, person, courseId, id, headingIn(outline, id).activityIds, activities);
    });
  }

  async place(
    person: SignedIn,
    activityId: ActivityId,
    { headingId, before }: PlaceActivity,
  ): Promise<ActivityPlaced> {
    const { courseId } = await this.activities.forStaff(person, activityId);
    let was: PlaceActivity = { headingId: null, before: null };
    const outline = await this.change(courseId, async (work, now) => {
      was = placeOf(now.outline, activityId);
      if (headingId !== null) headingIn(now.outline, headingId);
      const next = placed(now.outline, activityId, { headingId, before });
      const isBeforeIn = before === null || now.activities.some((each) => each.activityId === before);
      if (!next || !isBeforeIn) throw problems.notFound();
      const ids = headingId === null ? next.loose : headingIn(next, headingId).activityIds;
      await writePlaces(work.manager, courseId, headingId, ids);
      await this.recordFor(work, person, courseId, activityId, [activityId], now.activities);
    });
    return { outline, was };
  }

  /** One change of a course's outline after the other.
   * @returns the outline as it is after it. */
  private change(courseId: CourseId, use: (work: Work, now: Kept) => Promise<void>): Promise<OutlineView> {
    return this.unitOfWork.run(async (work) => {
      await lockCourse(work.manager, courseId);
      await use(work, await kept(work.manager, courseId));
      return forStaff((await kept(work.manager, courseId)).outline);
    });
  }

  private async found(
    person: SignedIn,
    id: HeadingId,
    { isDeleted = false } = {},
  ): Promise<Pick<HeadingRow, 'courseId'>> {
    const row = await this.dataSource.manager.findOneBy(HeadingRow, { id });
    if (!row || (row.deletedAt !== null) !== isDeleted) throw problems.notFound();
    await this.viewers.staff(person, row.courseId, 'release');
    return row;
  }

  private async seenBy(
    person: SignedIn,
    viewer: Viewer,
    activities: readonly ActivityIds[],
  ): Promise<ReadonlySet<ActivityId>> {
    if (may(viewer.role, 'mark')) return new Set(activities.map(({ activityId }) => activityId));
    // Observers are shown no drafts.
    if (may(viewer.role, 'read-course'))
      return new Set(activities.flatMap(({ activityId, releaseId }) => (releaseId ? activityId : [])));
    const { entered } = await this.gate.enterAll(person, viewer.courseId);
    const now = this.clock.now();
    return new Set(entered.filter((access) => isOut(access, now)).map(({ activity }) => activity.id));
  }

  /** Students hear of it who have something that stands there, and no one else. */
  private async recordFor(
    work: Work,
    person: SignedIn,
    courseId: CourseId,
    subjectId: HeadingId | ActivityId,
    activityIds: readonly ActivityId[],
    activities: readonly ActivityIds[],
  ): Promise<void> {
    const releaseOf = new Map(activities.map(({ activityId, releaseId }) => [activityId, releaseId]));
    const releaseIds = activityIds.flatMap((id) => releaseOf.get(id) ?? []);
    if (releaseIds.length === 0) return record(work, person, courseId, subjectId);
    for (const releaseId of releaseIds)
      await work.record({ ...changed(person, courseId, subjectId), ...hearersOfRelease(releaseId) });
  }
}

const changed = (person: SignedIn, courseId: CourseId, subjectId: HeadingId | ActivityId) => ({
  type: 'outline.changed' as const,
  courseId,
  actorId: person.id,
  subjectId,
});
const record = (work: Work, person: SignedIn, courseId: CourseId, subjectId: HeadingId | ActivityId) =>
  work.record({ ...changed(person, courseId, subjectId), ...toTeachers });

/** The whole outline, also what is a draft; three statements. */
async function kept(manager: EntityManager, courseId: CourseId): Promise<Kept> {
  const headings = await manager.find(HeadingRow, {
    where: { courseId, deletedAt: IsNull() },
    order: { position: 'ASC', id: 'ASC' },
  });
  const places = await manager.find(OutlinePlaceRow, {
    where: { courseId },
    order: { position: 'ASC', activityId: 'ASC' },
  });
  const activities = await activityIdsOf(manager, courseId);
  const all = activities.map(({ activityId }) => activityId);
  return {
    outline: outlineOf(
      headings.map(({ id, title, version }) => ({ id, title, version })),
      places,
      all,
    ),
    activities,
  };
}

/** @throws conflict where someone deleted it while this page was open. */
function headingIn<Of extends Heading>({ headings }: Outline<Of>, id: HeadingId): Of {
  const heading = headings.find((each) => each.id === id);
  if (!heading) throw problems.conflict('This heading was deleted meanwhile. Nothing was changed.');
  return heading;
}

function placeOf({ headings, loose }: Outline, activityId: ActivityId): PlaceActivity {
  const under = headings.find(({ activityIds }) => activityIds.includes(activityId));
  const ids = under?.activityIds ?? loose;
  return { headingId: under?.id ?? null, before: ids[ids.indexOf(activityId) + 1] ?? null };
}

const forStaff = ({ headings, loose }: Outline<KeptHeading>): OutlineView => view({ headings, loose });
const view = ({
  headings,
  loose,
}: Outline<Heading & { title: string; version: number | null }>): OutlineView => ({
  headings: headings.map(({ id, title, version, activityIds }) => ({
    id,
    title,
    version,
    activityIds: [...activityIds],
  })),
  loose: [...loose],
});

const writeOrder = (manager: EntityManager, ids: readonly HeadingId[]): Promise<unknown> =>
  manager.query(
    `UPDATE "heading" h SET "position" = o.at FROM unnest($1::uuid[]) WITH ORDINALITY AS o(id, at) WHERE h."id" = o.id`,
    [ids],
  );

const writePlaces = (
  manager: EntityManager,
  courseId: CourseId,
  headingId: HeadingId | null,
  ids: readonly ActivityId[],
): Promise<unknown> =>
  manager.query(
    `INSERT INTO "outline_place" ("activityId", "courseId", "headingId", "position")
     SELECT o.id, $1, $2, o.at FROM unnest($3::uuid[]) WITH ORDINALITY AS o(id, at)
         ON CONFLICT ("activityId") DO UPDATE SET "headingId" = excluded."headingId", "position" = excluded."position"`,
    [courseId, headingId, ids],
  );

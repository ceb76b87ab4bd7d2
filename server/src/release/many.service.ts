import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull } from 'typeorm';
import type { ChangeMany, CopyFromCourse, ManyChanged } from '@jigsaw/contract/release';
import type { ActivityId, CourseId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { Schedule } from '@jigsaw/core/release';
import { daysLater, scheduleLater } from '@jigsaw/core/release';
import { courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { ActivitiesService, toTeachers } from './activities.service.js';
import { announceAgain } from './announced.js';
import { isWithGroups, scheduleOf, stateOf } from './facts.js';
import { hearersOfRelease } from './hearers.js';
import { Kinds } from './kinds.js';
import { ActivityRow, ExtensionRow, ReleaseRow, StudentExtensionRow } from './release.rows.js';
import { ReleaseService } from './release.service.js';
import { activityViews } from './views.js';

/** One act on several activities of a course: all of it or nothing. */
@Injectable()
export class ManyService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly activities: ActivitiesService,
    private readonly releases: ReleaseService,
    private readonly kinds: Kinds,
    private readonly clock: Clock,
  ) {}

  async change(
    person: SignedIn,
    courseId: CourseId,
    { activities: seen, act }: ChangeMany,
  ): Promise<ManyChanged> {
    await this.viewers.staff(person, courseId, 'release');
    return this.unitOfWork.run(async (work) => {
      const { manager } = work;
      const rows = await lockActivities(manager, courseId, seen, act.kind === 'restore');
      const made: ActivityRow[] = [];
      if (act.kind === 'move') await this.move(work, person, rows, act.days);
      else
        for (const row of rows)
          switch (act.kind) {
            case 'withdraw':
              await this.releases.withdrawIn(work, person, row);
              break;
            case 'release-again':
              await this.releases.releaseAgainIn(work, person, row);
              break;
            case 'copy':
              made.push(await this.activities.copyIn(work, person, row, { keepsTitle: false }));
              break;
            case 'delete':
              await this.activities.removeIn(work, person, row);
              break;
            case 'restore':
              await this.activities.restoreIn(work, person, row);
              break;
          }
      if (act.kind === 'delete')
        return { activities: [], deleted: rows.map(({ id, version }) => ({ id, version })) };
      const ids = (act.kind === 'copy' ? made : rows).map(({ id }) => id);
      const shown = await manager.findBy(ActivityRow, { id: In(ids) });
      return { activities: await activityViews(manager, this.kinds, shown, this.clock.now()), deleted: [] };
    });
  }

  /** As drafts of this course, in the order that was asked. What names groups of the other course names none here.
   * @throws not-found unless this person releases in the course of each. */
  async copyFrom(
    person: SignedIn,
    courseId: CourseId,
    { activityIds, keepsDates }: CopyFromCourse,
  ): Promise<ManyChanged> {
    await this.viewers.staff(person, courseId, 'release');
    const { manager } = this.dataSource;
    const found = keyedBy(await manager.findBy(ActivityRow, { id: In(activityIds), deletedAt: IsNull() }), ({ id }) => id); // prettier-ignore
    const originals = [...new Set(activityIds)].map((id) => found.get(id));
    if (!originals.every((row) => row !== undefined)) throw problems.notFound();
    for (const from of new Set(originals.map((row) => row.courseId)))
      await this.viewers.staff(person, from, 'release');
    return this.unitOfWork.run(async (work) => {
      const made: ActivityRow[] = [];
      for (const row of originals)
        made.push(
          await this.activities.copyIn(work, person, row, { keepsTitle: true, keepsDates, courseId }),
        );
      return {
        activities: await activityViews(work.manager, this.kinds, made, this.clock.now()),
        deleted: [],
      };
    });
  }

  /** Every date so many days later at the same time of day: what is in work, what was granted and when a scheduled one goes live, too. */
  private async move(
    { manager, now, record }: Work,
    person: SignedIn,
    rows: readonly ActivityRow[],
    days: number,
  ): Promise<void> {
    const [first] = rows;
    if (!first) return;
    const { timeZone } = await courseOf(manager, first.courseId);
    const ids = rows.map(({ id }) => id);
    const later = (at: Date) => new Date(daysLater(at.getTime(), days, timeZone));
    const releases = await manager.find(ReleaseRow, {
      where: { activityId: In(ids) },
      order: { id: 'ASC' },
      lock: { mode: 'pessimistic_write' },
    });
    const releaseOf = keyedBy(releases, (release) => release.activityId);
    for (const row of rows) {
      const release = releaseOf.get(row.id);
      const schedule = scheduleLater(scheduleOf(row), days, timeZone);
      refuseFarAway(row, schedule);
      const version = row.version + 1;
      const settingsLater = (settings: unknown) => {
        const kind = this.kinds.of(row);
        if (!kind.moved) return {};
        const next = kind.settings.safeParse(kind.moved(kind.settings.parse(settings), (at) => later(new Date(at)).toISOString())); // prettier-ignore
        if (!next.success) throw tooFar(row);
        return { settings: json(next.data) };
      };
      await manager.update(ActivityRow, row.id, {
        ...datesOfRow(schedule),
        ...settingsLater(row.settings),
        inWork: row.inWork && json({ ...row.inWork, schedule: moved(row.inWork.schedule, days, timeZone), ...settingsLater(row.inWork.settings) }), // prettier-ignore
        version,
        updatedAt: now,
      });
      const hasMoved =
        this.kinds.of(row).moved !== undefined || Object.values(schedule).some((at) => at !== null);
      if (release && hasMoved) await announceAgain(manager, release.id, now);
      if (release) {
        const state = stateOf(release);
        if (state.state === 'scheduled' && state.goesLiveAt > now.getTime()) {
          const stateAt = later(new Date(state.goesLiveAt));
          if (stateAt <= now)
            throw problems.conflict(
              `“${row.title}” would be released at once. Move it by fewer days, or release it now.`,
            );
          await manager.update(ReleaseRow, release.id, { stateAt, version: release.version + 1 });
        }
      }
      await record({
        type: 'activity.edited',
        courseId: row.courseId,
        actorId: person.id,
        subjectId: row.id,
        facts: { version, days, isVisible: Boolean(release && isWithGroups(release, row, now)) },
        ...(release ? hearersOfRelease(release.id) : toTeachers),
      });
    }
    for (const granted of [
      ...(await manager.findBy(ExtensionRow, { activityId: In(ids) })),
      ...(await manager.findBy(StudentExtensionRow, { activityId: In(ids) })),
    ])
      await manager.save(Object.assign(granted, { due: later(granted.due), closes: granted.closes && later(granted.closes) })); // prettier-ignore
  }
}

/** Held until the transaction ends, in one order, so that two who change several do not wait for each other.
 * @throws not-found unless each is of this course; conflict where someone changed one meanwhile. */
async function lockActivities(
  manager: EntityManager,
  courseId: CourseId,
  seen: ChangeMany['activities'],
  isDeleted: boolean,
): Promise<ActivityRow[]> {
  const versionOf = new Map<ActivityId, number>(seen.map(({ id, version }) => [id, version]));
  const rows = await manager.find(ActivityRow, {
    where: { id: In([...versionOf.keys()]), courseId },
    order: { id: 'ASC' },
    lock: { mode: 'pessimistic_write' },
  });
  const found = rows.filter((row) => isDeleted || row.deletedAt === null);
  if (found.length < versionOf.size) throw problems.notFound();
  const changed = found.find((row) => row.version !== versionOf.get(row.id));
  if (changed)
    throw problems.conflict(
      `“${changed.title}” was changed meanwhile. Look at the list as it is now, then do it again.`,
    );
  return found;
}

const datesOfRow = ({ opens, due, closes }: Schedule) => {
  const date = (at: number | null) => (at === null ? null : new Date(at));
  return { opens: date(opens), due: date(due), closes: date(closes) };
};

function moved(
  { opens, due, closes }: { opens: string | null; due: string | null; closes: string | null },
  days: number,
  timeZone: string,
) {
  const later = (at: string | null) =>
    at === null ? null : new Date(daysLater(Date.parse(at), days, timeZone)).toISOString();
  return { opens: later(opens), due: later(due), closes: later(closes) };
}

/** A year that a date field could not show. */
function refuseFarAway(row: ActivityRow, { opens, due, closes }: Schedule): void {
  for (const at of [opens, due, closes]) {
    const year = at === null ? null : new Date(at).getUTCFullYear();
    if (year !== null && (year < 2000 || year >= 2200)) throw tooFar(row);
  }
}

const tooFar = ({ title }: ActivityRow) =>
  problems.invalidInput(`The dates of “${title}” cannot be moved that far.`);

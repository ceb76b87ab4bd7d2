import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { DeskList } from '@jigsaw/contract/marks';
import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { isReleased } from '@jigsaw/core/release';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import type { CountedUntil } from '../platform/keptByCourse.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, Kinds, nextDue, plainDecimal } from '../release/index.js';
import { Markings } from './markings.js';

interface Counts {
  readonly copies: number;
  readonly units: number;
  readonly toMark: number;
}

type Released = Pick<CopyAccess, 'release' | 'activity'>;
type Counted = Released & Counts;

/** How much of each activity there is to be marked by someone. Every page of staff asks for it, so it is kept by release until something happens to one
 * of its copies. */
@Injectable()
export class DeskCounts {
  private readonly kept: KeptByCourse<ReleaseId, Counts>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly markings: Markings,
    private readonly clock: Clock,
    happenings: Happenings,
  ) {
    this.kept = new KeptByCourse(happenings);
  }

  async list(person: SignedIn, courseId: CourseId): Promise<DeskList> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const due = ({ activity }: Released) => activity.due?.getTime() ?? Infinity;
    return {
      activities: (await this.counted(person, viewer))
        .toSorted((a, b) => due(a) - due(b))
        .map(({ release, activity, toMark, units }) => ({
          activityId: activity.id,
          releaseId: release.id,
          kind: activity.kind,
          title: activity.title,
          points: plainDecimal(sure(activity.points)),
          toMark,
          unitCount: units,
          markFor: this.kinds.markFor({ release, activity }),
        })),
    };
  }

  async toMark(person: SignedIn, viewer: Viewer): Promise<number> {
    return (await this.counted(person, viewer)).reduce((sum, each) => sum + each.toMark, 0);
  }

  /** Everything that is marked and out, as far as this viewer sees its copies. */
  private async counted(person: SignedIn, viewer: Viewer): Promise<Counted[]> {
    const all = await this.gate.enterReleases(viewer);
    if (!all) return this.countedOfTheirs(person, viewer);
    const out = all.filter(isMarked);
    const now = this.clock.now().getTime();
    const ids = out.map(({ release }) => release.id);
    const counts = await this.kept.all(viewer.courseId, ids, now, (missing) =>
      this.count(person, viewer.courseId, missing, now),
    );
    return out
      .map((each) => ({ ...each, ...sure(counts.get(each.release.id)) }))
      .filter((each) => each.copies > 0);
  }

  private async count(
    person: SignedIn,
    courseId: CourseId,
    releaseIds: readonly ReleaseId[],
    now: number,
  ): Promise<ReadonlyMap<ReleaseId, CountedUntil<Counts>>> {
    const { entered } = await this.gate.enterAll(person, courseId, { releases: releaseIds });
    const units = groupedBy(
      await this.markings.toMark(entered, this.dataSource.manager),
      (unit) => unit.access.release.id,
    );
    const copies = groupedBy(entered, (access) => access.release.id);
    return new Map(
      releaseIds.map((id) => {
        const [own, all] = [units.get(id) ?? [], copies.get(id) ?? []];
        const toMark = own.filter((unit) => unit.needsMarking).length;
        // Some work is ready to be marked once its time is over.
        const until = nextDue(all, now);
        return [id, { value: { copies: all.length, units: own.length, toMark }, until }];
      }),
    );
  }

  private async countedOfTheirs(person: SignedIn, viewer: Viewer): Promise<Counted[]> {
    const entered = (await this.gate.enterAll(person, viewer.courseId)).entered.filter(isMarked);
    const units = await this.markings.toMark(entered, this.dataSource.manager);
    const unitsOf = groupedBy(units, (unit) => unit.access.release.id);
    return [...keyedBy(entered, ({ release }) => release.id).values()].map(({ release, activity }) => {
      const own = unitsOf.get(release.id) ?? [];
      const toMark = own.filter((unit) => unit.needsMarking).length;
      return { release, activity, copies: own.length, units: own.length, toMark };
    });
  }
}

const isMarked = ({ release, activity }: Released) => isReleased(release) && activity.points !== null;

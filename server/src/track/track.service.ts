import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Figures } from '@jigsaw/contract/track';
import type { CourseId } from '@jigsaw/core/ids';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { DeskService, MyMarksService } from '../marks/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess } from '../release/index.js';
import { countActivities, Gate, isOut, Kinds, membersOfCopies } from '../release/index.js';
import { News } from '../rooms/index.js';
import type { GroupSetRow } from '../sets/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';
import { countStudents, Viewers } from '../course/index.js';
import { countStudentsToPlace } from '../placing/index.js';

/** The live figures of the track: where somebody is needed. */
@Injectable()
export class TrackService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly clock: Clock,
    private readonly desk: DeskService,
    private readonly marks: MyMarksService,
  ) {}

  async figures(person: SignedIn, courseId: CourseId): Promise<Figures> {
    const viewer = await this.viewers.enter(person, courseId);
    return may(viewer.role, 'read-course')
      ? this.forStaff(person, viewer)
      : this.forStudent(person, courseId);
  }

  private async forStaff(person: SignedIn, { courseId, seesOnlyLed, leads }: Viewer): Promise<Figures> {
    const { manager } = this.dataSource;
    const sets = (await setsOfCourse(manager, courseId)).filter((set) => set.putAwayAt === null);
    const rooms = seesOnlyLed ? leads.length : (await groupsOfSets(manager, idsOf(sets))).length;
    const { activities } = await this.desk.list(person, courseId);
    const unread = await this.unread((await this.gate.enterAll(person, courseId)).entered);
    return {
      kind: 'staff',
      enrolled: await countStudents(manager, courseId),
      ...(await countStudentsToPlace(manager, courseId, this.clock.now())),
      ...(await countActivities(manager, courseId, this.clock.now())),
      rooms,
      unread,
      toMark: activities.reduce((sum, activity) => sum + activity.toMark, 0),
    };
  }

  private async forStudent(person: SignedIn, courseId: CourseId): Promise<Figures> {
    const { viewer, entered } = await this.gate.enterAll(person, courseId);
    const own = entered.filter((access) => access.decision.part === 'member');
    const { manager } = this.dataSource;
    const progress = await this.kinds.progress({
      accesses: own,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, own),
    });
    return {
      kind: 'student',
      due: [...progress.values()].filter((each) => each.owes).length,
      rooms: viewer.groups.length,
      unread: await this.unread(entered),
      newMarks: await this.marks.countNew(viewer.enrolmentId),
    };
  }

  /** Only what stands in a room counts: nothing of drafts, nor of what was withdrawn. */
  private async unread(entered: readonly CopyAccess[]): Promise<number> {
    const shown = entered.filter((access) => isOut(access, this.clock.now()));
    const news = await this.news.of(shown);
    return shown.reduce((sum, access) => sum + news(access.copy.id).unread, 0);
  }
}

const idsOf = (sets: readonly GroupSetRow[]) => sets.map((set) => set.id);

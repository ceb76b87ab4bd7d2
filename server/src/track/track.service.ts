import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { Figures } from '@jigsaw/contract/track';
import type { CourseId } from '@jigsaw/core/ids';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { SignedIn } from '../identity/index.js';
import { DeskCounts, MyMarksService } from '../marks/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess } from '../release/index.js';
import { countActivities, Gate, isOut, Kinds, membersOfCopies } from '../release/index.js';
import { News, StaffNews } from '../rooms/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';
import { countStudents, Viewers } from '../course/index.js';
import { countStudentsToPlace } from '../placing/index.js';

/** The live figures of the track: where someone is needed. */
@Injectable()
export class TrackService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly staffNews: StaffNews,
    private readonly clock: Clock,
    private readonly desk: DeskCounts,
    private readonly marks: MyMarksService,
  ) {}

  async figures(person: SignedIn, courseId: CourseId): Promise<Figures> {
    const viewer = await this.viewers.enter(person, courseId);
    return may(viewer.role, 'read-course')
      ? this.forStaff(person, viewer)
      : this.forStudent(person, courseId);
  }

  private async forStaff(person: SignedIn, viewer: Viewer): Promise<Figures> {
    const { courseId, seesOnlyLed, leads } = viewer;
    const { manager } = this.dataSource;
    const now = this.clock.now();
    return {
      kind: 'staff',
      enrolled: await countStudents(manager, courseId),
      ...(await countStudentsToPlace(manager, courseId, now)),
      ...(await countActivities(manager, courseId, now)),
      rooms: seesOnlyLed ? leads.length : await countRooms(manager, courseId),
      unread: await this.unreadOfStaff(person, viewer),
      toMark: await this.desk.toMark(person, viewer),
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

  private async unreadOfStaff(person: SignedIn, viewer: Viewer): Promise<number> {
    const kept = await this.staffNews.of(viewer);
    if (!kept) return this.unread((await this.gate.enterAll(person, viewer.courseId)).entered);
    return kept.unread.reduce((sum, copy) => sum + copy.unread, 0);
  }

  /** Only what stands in a room counts: nothing of drafts, nor of what was withdrawn. */
  private unread(entered: readonly CopyAccess[]): Promise<number> {
    const now = this.clock.now();
    return this.news.count(entered.filter((access) => isOut(access, now)));
  }
}

async function countRooms(manager: EntityManager, courseId: CourseId): Promise<number> {
  const shown = (await setsOfCourse(manager, courseId)).filter((set) => set.archivedAt === null);
  const ids = shown.map((set) => set.id);
  return (await groupsOfSets(manager, ids)).length;
}

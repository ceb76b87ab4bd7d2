import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { RoomLines } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CopyId, CourseId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, isOut } from '../release/index.js';
import { groupsOfSets, groupTags, setsOfCourse } from '../sets/index.js';
import { dayIn } from './days.js';
import { membersByName } from './members.js';
import { News } from './news.service.js';
import { RoomsService } from './rooms.service.js';
import { needKey, needsOf, newsOf } from './needs.js';
import { StaffNews } from './staffNews.service.js';
import { StopAnswerRow } from './rooms.rows.js';
import { Stands } from './stands.js';
import type { Stand } from './stands.js';

/** All rooms at a glance, a line each, for staff. What hangs on the work of a whole course is kept, release by release, until something happens there. */
@Injectable()
export class RoomLinesService {
  private readonly kept: KeptByCourse<ReleaseId, readonly Stand[]>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly news: News,
    private readonly staffNews: StaffNews,
    private readonly rooms: RoomsService,
    private readonly stands: Stands,
    private readonly clock: Clock,
    happenings: Happenings,
  ) {
    this.kept = new KeptByCourse(happenings);
  }

  async list(person: SignedIn, courseId: CourseId): Promise<RoomLines> {
    const viewer = await this.viewers.staff(person, courseId, 'read-course');
    const { manager } = this.dataSource;
    const groupIds = await this.groupIdsFor(viewer);
    const tags = await groupTags(manager, groupIds);
    const membersOf = groupedBy(await membersByName(manager, groupIds), (member) => member.groupId);
    const { stands, unread, common } = await this.work(person, viewer);
    const standsOf = groupedBy(stands, (stand) => stand.groupId);
    const { enrolmentId } = viewer;
    const answersIn = groupedBy(await manager.findBy(StopAnswerRow, { enrolmentId }), (row) => row.groupId);
    const { timeZone } = await courseOf(manager, courseId);
    const when = { now: this.clock.now().getTime(), today: dayIn(timeZone, this.clock.now()) };
    return {
      lines: [...tags.values()].map((group) => {
        const members = membersOf.get(group.id) ?? [];
        const own = standsOf.get(group.id) ?? [];
        const answers = keyedBy(answersIn.get(group.id) ?? [], (row) => needKey(row.code, row.subjectId));
        return {
          group,
          isLed: viewer.leads.includes(group.id),
          members: members.map((member) => member.name),
          ...newsOf(own, unread),
          ...needsOf({ stands: own, members, mayMark: may(viewer.role, 'mark'), answers }, when),
        };
      }),
      common,
    };
  }

  /** Whose rooms staff may look into: those of all groups, or of the groups they lead. */
  private async groupIdsFor({ courseId, seesOnlyLed, leads }: Viewer): Promise<GroupId[]> {
    if (seesOnlyLed) return [...leads];
    const { manager } = this.dataSource;
    const sets = await setsOfCourse(manager, courseId);
    return (
      await groupsOfSets(
        manager,
        sets.map((set) => set.id),
      )
    ).map((row) => row.id);
  }

  private async work(
    person: SignedIn,
    viewer: Viewer,
  ): Promise<{ stands: readonly Stand[]; unread: ReadonlyMap<CopyId, number> } & Pick<RoomLines, 'common'>> {
    const now = this.clock.now();
    const news = await this.staffNews.of(viewer);
    if (!news) {
      const { entered } = await this.gate.enterAll(person, viewer.courseId);
      const out = entered.filter((access) => isOut(access, now));
      const unreadOf = await this.news.of(out);
      return {
        stands: await this.stands.in(out, now),
        unread: new Map(out.map(({ copy }) => [copy.id, unreadOf(copy.id).unread])),
        common: await this.rooms.common(viewer, ofNoGroup(out)),
      };
    }
    const ids = news.out.map(({ release }) => release.id);
    const stands = await this.kept.all(
      viewer.courseId,
      ids,
      now.getTime(),
      (missing) => this.stands.ofReleases(person, viewer.courseId, missing, now),
      { whom: viewer.role, stamp: '' }, // an observer is told less than those who mark
    );
    const ofAll = news.out.flatMap(({ release }) => (release.mode === 'common' ? [release.id] : []));
    const entered =
      ofAll.length === 0
        ? []
        : (await this.gate.enterAll(person, viewer.courseId, { releases: ofAll })).entered;
    return {
      stands: [...stands.values()].flat(),
      unread: new Map(news.unread.map(({ copyId, unread }) => [copyId, unread])),
      common: await this.rooms.common(viewer, entered),
    };
  }
}

const ofNoGroup = (accesses: readonly CopyAccess[]) =>
  accesses.filter((access) => access.copy.groupId === null);

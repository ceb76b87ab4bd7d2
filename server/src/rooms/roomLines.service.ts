import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { RoomLine, RoomLines } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import type { CopyId, CourseId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Happenings } from '../platform/happenings.js';
import type { CountedUntil } from '../platform/keptByCourse.js';
import { KeptByCourse } from '../platform/keptByCourse.js';
import type { CopyAccess } from '../release/index.js';
import { dueOf, Gate, isOut, Kinds, membersOfCopies, nextDue } from '../release/index.js';
import { groupsOfSets, groupTags, setsOfCourse } from '../sets/index.js';
import { membersByName } from './members.js';
import { News } from './news.service.js';
import { RoomsService } from './rooms.service.js';
import { StaffNews } from './staffNews.service.js';

/** Where one group is with one activity. */
interface Stand {
  readonly groupId: GroupId;
  readonly copyId: CopyId;
  readonly title: string;
  readonly latest: { readonly at: string; readonly by: string } | null;
  readonly isMissing: boolean;
}

/** All rooms at a glance, a line each, for staff. What hangs on the work of a whole course is kept, release by release, until something happens there. */
@Injectable()
export class RoomLinesService {
  private readonly kept: KeptByCourse<ReleaseId, readonly Stand[]>;

  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly staffNews: StaffNews,
    private readonly rooms: RoomsService,
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
    return {
      lines: [...tags.values()].map((group) => ({
        group,
        members: (membersOf.get(group.id) ?? []).map((member) => member.name),
        ...lineOf(standsOf.get(group.id) ?? [], unread),
      })),
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
        stands: await this.standsIn(out, now),
        unread: new Map(out.map(({ copy }) => [copy.id, unreadOf(copy.id).unread])),
        common: await this.rooms.common(viewer, ofNoGroup(out)),
      };
    }
    const ids = news.out.map(({ release }) => release.id);
    const stands = await this.kept.all(
      viewer.courseId,
      ids,
      now.getTime(),
      (missing) => this.standsOf(person, viewer.courseId, missing, now),
      { whom: viewer.role, stamp: '' }, // an observer is told less than those who mark
    );
    const ofAll = news.out.flatMap(({ release }) => (release.mode === 'common' ? [release.id] : []));
    const { entered } = await this.gate.enterAll(person, viewer.courseId, { releases: ofAll });
    return {
      stands: [...stands.values()].flat(),
      unread: new Map(news.unread.map(({ copyId, unread }) => [copyId, unread])),
      common: await this.rooms.common(viewer, entered),
    };
  }

  private async standsOf(
    person: SignedIn,
    courseId: CourseId,
    releases: readonly ReleaseId[],
    now: Date,
  ): Promise<ReadonlyMap<ReleaseId, CountedUntil<readonly Stand[]>>> {
    const { entered } = await this.gate.enterAll(person, courseId, { releases });
    const accesses = groupedBy(entered, (access) => access.release.id);
    const stands = keyedBy(await this.standsIn(entered, now), (stand) => stand.copyId);
    return new Map(
      releases.map((id) => {
        const own = accesses.get(id) ?? [];
        const value = own.flatMap(({ copy }) => stands.get(copy.id) ?? []);
        // Work is missing from a moment on.
        return [id, { value, until: nextDue(own, now.getTime()) }];
      }),
    );
  }

  private async standsIn(accesses: readonly CopyAccess[], now: Date): Promise<Stand[]> {
    const own = accesses.filter(({ copy }) => copy.groupId !== null);
    const due = own.filter((access) => {
      const at = dueOf(access);
      return this.kinds.of(access.activity).isHandedIn && at !== null && at < now;
    });
    const { manager } = this.dataSource;
    const membersOf = await membersOfCopies(manager, due);
    const progress = await this.kinds.progress({ accesses: due, manager, now, membersOf });
    const latest = keyedBy(
      await this.news.latestIn([...keyedBy(own, ({ release }) => release.id).values()]),
      (each) => each.copyId,
    );
    return own.map(({ copy, activity }) => {
      const last = latest.get(copy.id);
      const stand = progress.get(copy.id);
      return {
        groupId: sure(copy.groupId),
        copyId: copy.id,
        title: activity.title,
        latest: last ? { at: last.at.toISOString(), by: last.by } : null,
        isMissing: stand !== undefined && stand.state !== 'done' && stand.at === null,
      };
    });
  }
}

function lineOf(
  stands: readonly Stand[],
  unreadOf: ReadonlyMap<CopyId, number>,
): Omit<RoomLine, 'group' | 'members'> {
  let unread = 0;
  let firstUnread: CopyId | null = null;
  let last: RoomLine['latest'] = null;
  for (const { copyId, title, latest } of stands) {
    const count = unreadOf.get(copyId) ?? 0;
    unread += count;
    if (count > 0) firstUnread ??= copyId;
    if (latest && (!last || latest.at > last.at)) last = { ...latest, title, copyId };
  }
  const missing = stands.filter((stand) => stand.isMissing).map((stand) => stand.title);
  return { items: stands.length, unread, firstUnread, missing, latest: last };
}

const ofNoGroup = (accesses: readonly CopyAccess[]) =>
  accesses.filter((access) => access.copy.groupId === null);

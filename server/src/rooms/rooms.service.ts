import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Progress } from '@jigsaw/contract/release';
import type { LockedItem, RoomItem, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { explain } from '@jigsaw/core/release';
import { courseOf } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess, Listed } from '../release/index.js';
import { dueOf, Gate, isOut, Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { groupsForMembers, groupsOfSets, groupTags, setsOfCourse } from '../sets/index.js';
import { MarksInRooms } from './marksInRooms.js';
import type { CopyNews } from './news.service.js';
import { News } from './news.service.js';

/** The rooms a person may enter, and what is in each: a student's own groups, all of them for staff. */
@Injectable()
export class RoomsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly marks: MarksInRooms,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<RoomList> {
    const { viewer, entered, listed } = await this.gate.enterAll(person, courseId);
    const { manager } = this.dataSource;
    const isStaff = may(viewer.role, 'read-course');
    const groupIds = isStaff ? await this.groupIdsFor(viewer) : viewer.groups.map((group) => group.groupId);
    const tags = await groupTags(manager, groupIds);
    const members = await manager.query<
      {
        groupId: GroupId;
        enrolmentId: EnrolmentId;
        name: string;
        reading: string | null;
        isLeader: boolean;
      }[]
    >(
      `SELECT s."groupId", p."enrolmentId", p."name", p."reading", s."isLeader"
         FROM "seat" s JOIN "present_student" p ON p."enrolmentId" = s."enrolmentId"
        WHERE s."groupId" = ANY($1) ORDER BY p."name"`,
      [groupIds],
    );
    const now = this.clock.now();
    // Staff look into rooms as they are: what its members cannot see yet, or no longer, is not in them.
    const shown = entered.filter(
      (access) => isOut(access, now) && (access.copy.groupId === null || tags.has(access.copy.groupId)),
    );
    const progress = await this.kinds.progress({
      accesses: shown,
      manager,
      now,
      membersOf: await membersOfCopies(manager, shown),
    });
    const news = await this.news.of(shown);
    const marked = await this.marks.copiesWithMarkFor(viewer.enrolmentId);
    const itemsOf = groupedBy(shown, (access) => access.copy.groupId);
    const items = (groupId: GroupId | null) =>
      (itemsOf.get(groupId) ?? [])
        .map((access) =>
          itemOf(
            access,
            sure(progress.get(access.copy.id)),
            news(access.copy.id),
            marked.has(access.copy.id),
          ),
        )
        .sort(byDue);
    const membersOf = groupedBy(members, (member) => member.groupId);
    const named = await groupsForMembers(manager, groupIds);
    const rooms = [...tags.values()].map((group): RoomView => ({
      group,
      about: sure(named.get(group.id)).about,
      motto: sure(named.get(group.id)).motto,
      namingVersion: isStaff ? null : sure(named.get(group.id)).namingVersion,
      members: (membersOf.get(group.id) ?? []).map(({ enrolmentId, name, reading, isLeader }) => ({
        enrolmentId,
        name,
        reading,
        isLeader,
        isYou: enrolmentId === viewer.enrolmentId,
      })),
      items: items(group.id),
    }));
    return {
      rooms,
      common: items(null),
      locked: await this.locked(courseId, listed),
    };
  }

  private async locked(courseId: CourseId, listed: readonly Listed[]): Promise<LockedItem[]> {
    if (listed.length === 0) return [];
    const { timeZone } = await courseOf(this.dataSource.manager, courseId);
    const dateTime = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone });
    // To whom it was released is not told: that it exists is all that outsiders learn.
    const wording = {
      dateTime: (at: number) => dateTime.format(at),
      groupName: () => 'a group',
      setName: () => 'a group set',
      isToYou: true,
    };
    return listed.map(({ activity, decision }) => ({
      title: activity.title,
      kind: activity.kind,
      why: explain(decision, wording),
    }));
  }

  /** Whose rooms staff may look into: those of all groups, or of the groups they look after. */
  private async groupIdsFor({ courseId, seesOnlyLed, leads }: Viewer): Promise<GroupId[]> {
    if (seesOnlyLed) return [...leads];
    const sets = await setsOfCourse(this.dataSource.manager, courseId);
    const rows = await groupsOfSets(
      this.dataSource.manager,
      sets.map((set) => set.id),
    );
    return rows.map((row) => row.id);
  }
}

function itemOf(
  access: CopyAccess,
  progress: Progress,
  { unread, latest }: CopyNews,
  hasMark: boolean,
): RoomItem {
  const { copy, release, activity, extension, decision } = access;
  return {
    copyId: copy.id,
    releaseId: release.id,
    kind: activity.kind,
    title: activity.title,
    points: activity.points === null ? null : plainDecimal(activity.points),
    due: dueOf(access)?.toISOString() ?? null,
    isExtended: extension !== null,
    access: decision.access,
    mode: release.mode,
    progress,
    unread,
    latest,
    hasMark,
  };
}

const byDue = (a: RoomItem, b: RoomItem) =>
  (a.due ?? '9999').localeCompare(b.due ?? '9999') || a.title.localeCompare(b.title);

import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Progress } from '@jigsaw/contract/release';
import type { CopiesOfActivity, LockedItem, RoomItem, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import type { ActivityId, CourseId, GroupId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { explain } from '@jigsaw/core/release';
import { courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import type { CopyAccess, Listed } from '../release/index.js';
import { dueOf, Gate, isOut, Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { groupsForMembers, groupTags } from '../sets/index.js';
import { staffOfRoom } from './entering.js';
import { MarksInRooms } from './marksInRooms.js';
import type { CopyNews } from './news.service.js';
import { membersByName } from './members.js';
import { News } from './news.service.js';

/** The rooms of someone's own groups, and what is in each; of any group for its staff. */
@Injectable()
export class RoomsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly marks: MarksInRooms,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<RoomList> {
    const { viewer, entered, listed } = await this.gate.enterAll(person, courseId);
    const groupIds = viewer.groups.map((group) => group.groupId);
    const { rooms, common } = await this.furnish(viewer, groupIds, entered);
    return { rooms, common, locked: await this.locked(courseId, listed) };
  }

  /** One room, for staff.
   * @throws not-found for a group that is not theirs to look into, too. */
  async room(person: SignedIn, groupId: GroupId): Promise<RoomView> {
    const { manager } = this.dataSource;
    const viewer = await staffOfRoom(manager, this.viewers, person, groupId, 'read-course');
    const { entered } = await this.gate.enterAll(person, viewer.courseId, { group: groupId });
    const { rooms } = await this.furnish(viewer, [groupId], entered);
    return sure(rooms[0]);
  }

  /** @throws not-found where there is none for this person, whatever the reason. */
  async copiesOf(person: SignedIn, activityId: ActivityId): Promise<CopiesOfActivity> {
    const now = this.clock.now();
    const found = (await this.gate.enterActivity(person, activityId)).filter((access) => isOut(access, now));
    if (found.length === 0) throw problems.notFound();
    const copyOf = keyedBy(found, ({ copy }) => copy.groupId);
    const groupIds = found.flatMap(({ copy }) => copy.groupId ?? []);
    const tags = await groupTags(this.dataSource.manager, groupIds);
    return {
      copies: [null, ...tags.values()].flatMap((group) => {
        const access = copyOf.get(group?.id ?? null);
        return access ? [{ copyId: access.copy.id, group }] : [];
      }),
    };
  }

  /** What several groups or the class have in one copy, for staff. */
  async common(viewer: Viewer, entered: readonly CopyAccess[]): Promise<RoomItem[]> {
    return (await this.furnish(viewer, [], entered)).common;
  }

  private async furnish(
    viewer: Viewer,
    groupIds: readonly GroupId[],
    entered: readonly CopyAccess[],
  ): Promise<Pick<RoomList, 'rooms' | 'common'>> {
    const { manager } = this.dataSource;
    const tags = await groupTags(manager, groupIds);
    const membersOf = groupedBy(await membersByName(manager, groupIds), (member) => member.groupId);
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
            this.kinds.happensOf(access.activity, access.copy.groupId),
            sure(progress.get(access.copy.id)),
            news(access.copy.id),
            marked.has(access.copy.id),
          ),
        )
        .sort(byDue);
    const named = await groupsForMembers(manager, groupIds);
    const rooms = [...tags.values()].map((group): RoomView => {
      const { about, motto, namingVersion } = sure(named.get(group.id));
      const members = (membersOf.get(group.id) ?? []).map(
        ({ groupId: _groupId, from: _from, ...member }) => ({
          ...member,
          isYou: member.enrolmentId === viewer.enrolmentId,
        }),
      );
      return {
        group,
        about,
        motto,
        namingVersion: members.some(({ isYou }) => isYou) ? namingVersion : null,
        members,
        items: items(group.id),
      };
    });
    return { rooms, common: items(null) };
  }

  private async locked(courseId: CourseId, listed: readonly Listed[]): Promise<LockedItem[]> {
    if (listed.length === 0) return [];
    const { timeZone } = await courseOf(this.dataSource.manager, courseId);
    const dateTime = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone });
    // Who it was released to is not told: that it exists is all that outsiders learn.
    const wording = {
      dateTime: (at: number) => dateTime.format(at),
      groupName: () => 'a group',
      setName: () => 'a group set',
      audienceName: () => 'some of the class',
      isToYou: true,
    };
    return listed.map(({ activity, decision }) => ({
      title: activity.title,
      kind: activity.kind,
      why: explain(decision, wording),
    }));
  }
}

function itemOf(
  access: CopyAccess,
  happens: RoomItem['happens'],
  progress: Progress,
  { unread, latest }: CopyNews,
  hasMark: boolean,
): RoomItem {
  const { copy, release, activity, schedule, decision } = access;
  return {
    copyId: copy.id,
    releaseId: release.id,
    activityId: activity.id,
    kind: activity.kind,
    title: activity.title,
    points: activity.points === null ? null : plainDecimal(activity.points),
    due: dueOf(access)?.toISOString() ?? null,
    isExtended: schedule.why.due !== 'all',
    happens,
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

import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CopyHead, LockedItem, RoomItem, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { Progress } from '@jigsaw/contract/release';
import type { ActivityId, CopyId, CourseId, EnrolmentId, ReleaseId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import type { Viewer } from '@jigsaw/core/course';
import { explain } from '@jigsaw/core/release';
import { may } from '@jigsaw/core/course';
import { authorsById, groupTags } from '../groups/index.js';
import type { SignedIn } from '../identity/index.js';
import type { CopyNews } from '../news/index.js';
import { News } from '../news/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess, Listed } from '../release/index.js';
import { dueOf, Gate, isOut, Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { CourseRow } from '../roster/index.js';

/** The rooms a person may enter, and what is in each: a student's own groups, all of them for staff. */
@Injectable()
export class RoomsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<RoomList> {
    const { viewer, entered, listed } = await this.gate.enterAll(person, courseId);
    const { manager } = this.dataSource;
    const isStaff = may(viewer.role, 'read-course');
    const groupIds = isStaff
      ? await this.groupIdsFor(viewer)
      : viewer.groups.map((group) => group.groupId as string);
    const tags = await groupTags(manager, groupIds);
    const members = await manager.query<
      { groupId: string; enrolmentId: EnrolmentId; name: string; reading: string | null; isLeader: boolean }[]
    >(
      `SELECT m."groupId", e."id" AS "enrolmentId", p."name", p."reading", m."isLeader"
         FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = e."personId"
        WHERE m."groupId" = ANY($1) AND m."until" IS NULL AND e."leftAt" IS NULL ORDER BY p."name"`,
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
    const marked = await this.copiesWithMarkFor(viewer.enrolmentId);
    const items = (of: (access: CopyAccess) => boolean) =>
      shown
        .filter(of)
        .map((access) =>
          itemOf(access, progress.get(access.copy.id)!, news(access.copy.id), marked.has(access.copy.id)),
        )
        .sort(byDue);
    const dress = await this.dressOf(groupIds);
    const rooms = [...tags.values()].map((group): RoomView => ({
      group,
      about: dress.get(group.id)!.about,
      motto: dress.get(group.id)!.motto,
      dressVersion: isStaff ? null : dress.get(group.id)!.dressVersion,
      members: members
        .filter((member) => member.groupId === group.id)
        .map(({ enrolmentId, name, reading, isLeader }) => ({
          enrolmentId,
          name,
          reading,
          isLeader,
          isYou: enrolmentId === viewer.enrolmentId,
        })),
      items: items((access) => access.copy.groupId === group.id),
    }));
    return {
      rooms,
      common: items((access) => access.copy.groupId === null),
      locked: await this.locked(courseId, listed),
    };
  }

  /** What every copy has, whatever its kind, and which other groups' copies of the same the person may look into. */
  async head(person: SignedIn, copyId: CopyId): Promise<CopyHead> {
    const access = await this.gate.enter(person, copyId);
    const { entered } = await this.gate.enterAll(person, access.release.courseId as CourseId);
    return this.headOf(
      access,
      entered.filter((each) => each.release.id === access.release.id),
    );
  }

  async headOf(access: CopyAccess, siblings: readonly CopyAccess[]): Promise<CopyHead> {
    const { copy, release, activity, extension, schedule, decision, viewer } = access;
    const { manager } = this.dataSource;
    const membersOf = await membersOfCopies(manager, [access]);
    const member = await authorsById(manager, membersOf(copy.id), viewer.enrolmentId);
    const tags = await groupTags(
      manager,
      siblings.map((each) => each.copy.groupId),
    );
    const news = await this.news.of(siblings);
    const progress = await this.kinds.progress({
      accesses: siblings,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, siblings),
    });
    const group = copy.groupId === null ? null : (tags.get(copy.groupId) ?? null);
    assert(copy.groupId === null || group, 'a copy of a group has one');
    return {
      id: copy.id as CopyId,
      releaseId: release.id as ReleaseId,
      activityId: activity.id as ActivityId,
      kind: activity.kind,
      settings: this.kinds.settingsOf(activity) as CopyHead['settings'],
      title: activity.title,
      brief: activity.brief,
      points: activity.points === null ? null : plainDecimal(activity.points),
      rubric: activity.rubric as CopyHead['rubric'],
      schedule: { opens: iso(schedule.opens), due: iso(schedule.due), closes: iso(schedule.closes) },
      extension: extension && { due: extension.due.toISOString(), reason: extension.reason },
      latePolicy: activity.latePolicy,
      access: decision.access,
      part: decision.part,
      mode: release.mode,
      group,
      members: membersOf(copy.id).map(member),
      others: [...tags.values()].flatMap((tag) => {
        const sibling = siblings.find((each) => each.copy.groupId === tag.id)!;
        return sibling.copy.id === copy.id
          ? []
          : [
              {
                copyId: sibling.copy.id as CopyId,
                group: tag,
                unread: news(sibling.copy.id).unread,
                state: progress.get(sibling.copy.id)!.state,
              },
            ];
      }),
      unread: news(copy.id).unread,
      serverTime: this.clock.now().toISOString(),
    };
  }

  private async locked(courseId: CourseId, listed: readonly Listed[]): Promise<LockedItem[]> {
    if (listed.length === 0) return [];
    const { timeZone } = await this.dataSource.getRepository(CourseRow).findOneByOrFail({ id: courseId });
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

  private async copiesWithMarkFor(enrolmentId: EnrolmentId): Promise<Set<string>> {
    const rows = await this.dataSource.query<{ copyId: string }[]>(
      `SELECT "copyId" FROM "released_mark" WHERE "enrolmentId" = $1`,
      [enrolmentId],
    );
    return new Set(rows.map((row) => row.copyId));
  }

  /** Whose rooms staff may look into: those of all groups, or of the groups they look after. */
  private async groupIdsFor({ courseId, seesOnlyLed, leads }: Viewer): Promise<string[]> {
    if (seesOnlyLed) return [...leads];
    const rows = await this.dataSource.query<{ id: string }[]>(
      `SELECT g."id" FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE s."courseId" = $1`,
      [courseId],
    );
    return rows.map((row) => row.id);
  }

  private async dressOf(
    groupIds: readonly string[],
  ): Promise<ReadonlyMap<string, Pick<RoomView, 'about' | 'motto' | 'dressVersion'>>> {
    const rows = await this.dataSource.query<
      (Pick<RoomView, 'about' | 'motto' | 'dressVersion'> & { id: string })[]
    >(
      `SELECT g."id", g."motto", CASE WHEN s."isDescriptionShown" THEN s."description" ELSE '' END AS "about",
              CASE WHEN s."membersDress" AND s."frozenAt" IS NULL AND s."putAwayAt" IS NULL AND NOT g."isLocked" THEN g."version" END AS "dressVersion"
         FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = ANY($1)`,
      [groupIds],
    );
    return new Map(rows.map((row) => [row.id, row]));
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
    copyId: copy.id as CopyId,
    releaseId: release.id as ReleaseId,
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
const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());

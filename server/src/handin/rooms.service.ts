import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { RoomItem, RoomList, RoomView } from '@jigsaw/contract/handin';
import type { CopyId, CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { may } from '@jigsaw/core/roster';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, plainDecimal } from '../release/index.js';
import type { WorkSummary } from './work.js';
import { groupTags, WorkReader } from './work.js';

/** The rooms a person may enter: a student's own groups, all of them for staff. */
@Injectable()
export class RoomsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly work: WorkReader,
    private readonly clock: Clock,
  ) {}

  async list(person: SignedIn, courseId: CourseId): Promise<RoomList> {
    const { viewer, entered } = await this.gate.enterAll(person, courseId);
    const { manager } = this.dataSource;
    const groupIds = may(viewer.role, 'read-course')
      ? await allGroupIds(manager.query.bind(manager), courseId)
      : viewer.groups.map((group) => group.groupId as string);
    const tags = await groupTags(manager, groupIds);
    const members = await manager.query<{ groupId: string; enrolmentId: EnrolmentId; name: string; reading: string | null }[]>(
      `SELECT m."groupId", e."id" AS "enrolmentId", p."name", p."reading"
         FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = e."personId"
        WHERE m."groupId" = ANY($1) AND m."until" IS NULL AND e."leftAt" IS NULL ORDER BY p."name"`,
      [groupIds],
    );
    const now = this.clock.now();
    const shown = entered.filter((access) => isOut(access, now));
    const summaries = await this.work.summaries(shown);
    const marked = await this.copiesWithMarkFor(viewer.enrolmentId);
    const rooms = [...tags.values()].map((group): RoomView => ({
      group,
      members: members
        .filter((member) => member.groupId === group.id)
        .map(({ enrolmentId, name, reading }) => ({ enrolmentId, name, reading, isYou: enrolmentId === viewer.enrolmentId })),
      items: shown
        .filter((access) => access.copy.groupId === group.id)
        .map((access) => itemOf(access, summaries.get(access.copy.id)!, marked.has(access.copy.id)))
        .sort(byDue),
    }));
    return { rooms };
  }

  private async copiesWithMarkFor(enrolmentId: EnrolmentId): Promise<Set<string>> {
    const rows = await this.dataSource.query<{ copyId: string }[]>(`SELECT "copyId" FROM "released_mark" WHERE "enrolmentId" = $1`, [enrolmentId]);
    return new Set(rows.map((row) => row.copyId));
  }
}

function itemOf({ copy, activity, decision }: CopyAccess, { state, latest }: WorkSummary, hasMark: boolean): RoomItem {
  return {
    copyId: copy.id as CopyId,
    title: activity.title,
    points: plainDecimal(activity.points),
    due: activity.due?.toISOString() ?? null,
    access: decision.access,
    state,
    handedInAt: latest?.handedInAt.toISOString() ?? null,
    late: latest?.late ?? null,
    hasMark,
  };
}

/** Staff look into rooms as they are: what its members cannot see yet, or no longer, is not in them. */
function isOut({ release, activity }: CopyAccess, now: Date): boolean {
  if (release.state === 'draft' || release.state === 'withdrawn') return false;
  const isLive = release.state !== 'scheduled' || (release.stateAt !== null && release.stateAt <= now);
  return isLive && (activity.opens === null || activity.opens <= now);
}

const byDue = (a: RoomItem, b: RoomItem) => (a.due ?? '9999').localeCompare(b.due ?? '9999');

async function allGroupIds(query: (sql: string, parameters: unknown[]) => Promise<{ id: string }[]>, courseId: CourseId): Promise<string[]> {
  const rows = await query(`SELECT g."id" FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE s."courseId" = $1`, [courseId]);
  return rows.map((row) => row.id);
}

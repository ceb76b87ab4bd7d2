import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { CopyView, GroupTag, HandInState, HandInView, Member, WorkFile } from '@jigsaw/contract/handin';
import { lateness } from '@jigsaw/core/handin';
import type { CopyId, EnrolmentId, FileId, GroupId, GroupSetId, HandInId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { FileRow } from '../files/index.js';
import { Clock } from '../platform/clock.js';
import type { CopyAccess } from '../release/index.js';
import { plainDecimal } from '../release/index.js';
import { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';

/** Reads the work of copies. Everything here takes the gate's proof. */
@Injectable()
export class WorkReader {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
  ) {}

  async read(access: CopyAccess, manager: EntityManager = this.dataSource.manager): Promise<CopyView> {
    const { copy, activity, decision, viewer } = access;
    const parts = await manager.find(PartRow, { where: { copyId: copy.id }, order: { createdAt: 'ASC' } });
    const workFiles = await manager.find(WorkFileRow, { where: { copyId: copy.id }, order: { addedAt: 'ASC' } });
    const handIns = await manager.find(HandInRow, { where: { copyId: copy.id }, order: { attempt: 'DESC' } });
    const credits = handIns.length === 0 ? [] : await manager.findBy(CreditRow, { handInId: In(handIns.map((handIn) => handIn.id)) });
    const files = workFiles.length === 0 ? [] : await manager.findBy(FileRow, { id: In(workFiles.map((file) => file.fileId)) });
    const memberIds = await membersOf(manager, copy.groupId);
    const group = (await groupTags(manager, [copy.groupId])).get(copy.groupId!);
    assert(group, 'an own copy belongs to a group');

    const everyone = [
      ...memberIds,
      ...parts.map((part) => part.enrolmentId),
      ...workFiles.map((file) => file.addedBy),
      ...handIns.map((handIn) => handIn.handedInBy),
      ...credits.map((credit) => credit.enrolmentId),
    ];
    const member = await membersById(manager, everyone, viewer.enrolmentId);

    const fileView = (row: WorkFileRow): WorkFile => {
      const file = files.find((each) => each.id === row.fileId)!;
      return {
        id: file.id as FileId,
        name: file.name,
        mediaType: file.mediaType,
        sizeBytes: Number(file.sizeBytes),
        addedBy: member(row.addedBy),
        addedAt: row.addedAt.toISOString(),
      };
    };
    const latestAt = handIns[0]?.handedInAt ?? null;
    const here = workFiles.filter((file) => file.takenOutAt === null);
    return {
      id: copy.id as CopyId,
      title: activity.title,
      brief: activity.brief,
      points: plainDecimal(activity.points),
      schedule: { opens: iso(activity.opens), due: iso(activity.due), closes: iso(activity.closes) },
      latePolicy: activity.latePolicy,
      access: decision.access,
      mayHandIn: decision.access === 'open' && memberIds.includes(viewer.enrolmentId),
      group,
      members: memberIds.map(member),
      parts: parts.map((part) => ({
        author: member(part.enrolmentId),
        text: part.text,
        words: part.words,
        version: part.version,
        updatedAt: part.updatedAt.toISOString(),
      })),
      files: here.map(fileView),
      handIns: handIns.map((handIn): HandInView => ({
        id: handIn.id as HandInId,
        attempt: handIn.attempt,
        handedInAt: handIn.handedInAt.toISOString(),
        handedInBy: member(handIn.handedInBy),
        late: lateOf(access, handIn.handedInAt),
        credited: credits.filter((credit) => credit.handInId === handIn.id).map((credit) => member(credit.enrolmentId)),
        parts: handIn.parts.map((part) => ({ author: member(part.enrolmentId), text: part.text, words: part.words })),
        files: handIn.fileIds.map((fileId) => fileView(workFiles.find((file) => file.fileId === fileId)!)),
      })),
      state: workState(latestAt, [
        ...parts.map((part) => part.updatedAt),
        ...here.map((file) => file.addedAt),
        ...workFiles.flatMap((file) => file.takenOutAt ?? []),
      ]),
      lateNow: lateOf(access, this.clock.now()),
      serverTime: this.clock.now().toISOString(),
    };
  }

  /** For many copies at once: how far the work is. Three queries, however many copies. */
  async summaries(accesses: readonly CopyAccess[], manager: EntityManager = this.dataSource.manager): Promise<Map<string, WorkSummary>> {
    const copyIds = accesses.map((access) => access.copy.id);
    if (copyIds.length === 0) return new Map();
    const rows = await manager.query<
      { copyId: string; handInId: string | null; attempt: number | null; handedInAt: Date | null; handedInBy: string | null; changedAt: Date | null }[]
    >(
      `SELECT c."id" AS "copyId", h."id" AS "handInId", h."attempt", h."handedInAt", p."name" AS "handedInBy",
              GREATEST((SELECT max("updatedAt") FROM "part" WHERE "copyId" = c."id"),
                       (SELECT max(GREATEST("addedAt", "takenOutAt")) FROM "work_file" WHERE "copyId" = c."id")) AS "changedAt"
         FROM "copy" c
         LEFT JOIN LATERAL (SELECT * FROM "hand_in" WHERE "copyId" = c."id" ORDER BY "attempt" DESC LIMIT 1) h ON true
         LEFT JOIN "enrolment" e ON e."id" = h."handedInBy" LEFT JOIN "person" p ON p."id" = e."personId"
        WHERE c."id" = ANY($1)`,
      [copyIds],
    );
    const accessById = new Map(accesses.map((access) => [access.copy.id, access]));
    return new Map(
      rows.map((row) => [
        row.copyId,
        {
          state: workState(row.handedInAt, row.changedAt ? [row.changedAt] : []),
          latest:
            row.handInId && row.handedInAt
              ? {
                  id: row.handInId,
                  attempt: row.attempt!,
                  handedInAt: row.handedInAt,
                  by: row.handedInBy!,
                  late: lateOf(accessById.get(row.copyId)!, row.handedInAt),
                }
              : null,
        },
      ]),
    );
  }
}

export interface WorkSummary {
  readonly state: HandInState;
  readonly latest: {
    readonly id: string;
    readonly attempt: number;
    readonly handedInAt: Date;
    readonly by: string;
    readonly late: { minutes: number; deduction: string };
  } | null;
}

export function lateOf({ activity }: CopyAccess, at: Date): { minutes: number; deduction: string } {
  const { minutes, deduction } = lateness(at.getTime(), activity.due?.getTime() ?? null, activity.latePolicy, activity.points);
  return { minutes, deduction };
}

function workState(handedInAt: Date | null, changes: readonly Date[]): HandInState {
  if (handedInAt === null) return changes.length === 0 ? 'not-started' : 'in-work';
  return changes.some((at) => at > handedInAt) ? 'changed-since' : 'handed-in';
}

export async function membersOf(manager: EntityManager, groupId: string | null): Promise<EnrolmentId[]> {
  const rows = await manager.query<{ id: EnrolmentId }[]>(
    `SELECT e."id" FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId" JOIN "person" p ON p."id" = e."personId"
      WHERE m."groupId" = $1 AND m."until" IS NULL AND e."leftAt" IS NULL ORDER BY p."name"`,
    [groupId],
  );
  return rows.map((row) => row.id);
}

export async function membersById(manager: EntityManager, enrolmentIds: readonly string[], you: string): Promise<(id: string) => Member> {
  const rows = await manager.query<{ id: EnrolmentId; name: string; reading: string | null }[]>(
    `SELECT e."id", p."name", p."reading" FROM "enrolment" e JOIN "person" p ON p."id" = e."personId" WHERE e."id" = ANY($1)`,
    [[...new Set(enrolmentIds)]],
  );
  const byId = new Map(rows.map((row) => [row.id as string, { enrolmentId: row.id, name: row.name, reading: row.reading, isYou: row.id === you }]));
  return (id) => {
    const member = byId.get(id);
    assert(member, 'whoever worked in a copy is enrolled');
    return member;
  };
}

export async function groupTags(manager: EntityManager, groupIds: readonly (string | null)[]): Promise<Map<string, GroupTag>> {
  const rows = await manager.query<{ id: GroupId; setId: GroupSetId; setName: string; number: number; name: string }[]>(
    `SELECT g."id", g."setId", s."name" AS "setName", g."number", g."name"
       FROM "course_group" g JOIN "group_set" s ON s."id" = g."setId" WHERE g."id" = ANY($1) ORDER BY s."position", g."number"`,
    [groupIds.filter((id) => id !== null)],
  );
  return new Map(rows.map((row) => [row.id as string, row]));
}

const iso = (at: Date | null) => at?.toISOString() ?? null;

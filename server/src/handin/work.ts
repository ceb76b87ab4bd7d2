import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import type { HandInView, WorkFile, WorkView } from '@jigsaw/contract/handin';
import type { WorkState } from '@jigsaw/contract/release';
import type { HandInRules } from '@jigsaw/core/handin';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import { FilesService } from '../files/index.js';
import { authorsById } from '../course/index.js';
import type { CopyAccess } from '../release/index.js';
import { lateOf } from '../release/index.js';
import { CreditRow, HandInRow, PartRow, WorkFileRow } from './handin.rows.js';

/** What one group, or one student, has in one copy. */
export interface OwnWork {
  readonly copyId: CopyId;
  /** null: the group's. */
  readonly ownerId: EnrolmentId | null;
  readonly changedAt: Date | null;
  /** The latest; earlier ones stay. */
  readonly handIn: {
    readonly id: string;
    readonly attempt: number;
    readonly handedInAt: Date;
    readonly by: string;
    readonly credited: readonly EnrolmentId[];
  } | null;
}

/** Reads the work of copies. Everything here takes the gate's proof. */
@Injectable()
export class WorkReader {
  constructor(
    private readonly dataSource: DataSource,
    private readonly files: FilesService,
  ) {}

  /** As far as it is the asker's to see: where each student hands in alone, a student sees no one else's. */
  async read(
    access: CopyAccess,
    rules: HandInRules,
    manager: EntityManager = this.dataSource.manager,
  ): Promise<WorkView> {
    const { copy, decision, viewer } = access;
    const isOnlyOwn = rules.by === 'student' && decision.part !== 'staff' && viewer.role === 'student';
    const isShown = (ownerId: EnrolmentId) => !isOnlyOwn || ownerId === viewer.enrolmentId;
    const parts = (
      await manager.find(PartRow, { where: { copyId: copy.id }, order: { createdAt: 'ASC' } })
    ).filter((part) => isShown(part.enrolmentId));
    const workFiles = (
      await manager.find(WorkFileRow, { where: { copyId: copy.id }, order: { addedAt: 'ASC' } })
    ).filter((file) => isShown(file.addedBy));
    const handIns = (
      await manager.find(HandInRow, {
        where: { copyId: copy.id },
        order: { handedInAt: 'DESC', attempt: 'DESC' },
      })
    ).filter((handIn) => isShown(handIn.ownerId ?? viewer.enrolmentId));
    const credits =
      handIns.length === 0
        ? []
        : await manager.findBy(CreditRow, { handInId: In(handIns.map((handIn) => handIn.id)) });
    const files = await this.files.named(
      manager,
      workFiles.map((file) => file.fileId),
    );
    const fileOf = keyedBy(files, (file) => file.id);
    const workFileOf = keyedBy(workFiles, (file) => file.fileId);
    const member = await authorsById(
      manager,
      [
        ...parts.map((part) => part.enrolmentId),
        ...workFiles.map((file) => file.addedBy),
        ...handIns.map((handIn) => handIn.handedInBy),
        ...credits.map((credit) => credit.enrolmentId),
      ],
      viewer.enrolmentId,
    );
    const handedIn = new Set(handIns.flatMap((handIn) => handIn.fileIds));
    const fileView = (row: WorkFileRow): WorkFile => {
      const file = sure(fileOf.get(row.fileId));
      return {
        id: file.id,
        name: file.name,
        mediaType: file.mediaType,
        sizeBytes: Number(file.sizeBytes),
        addedBy: member(row.addedBy),
        addedAt: row.addedAt.toISOString(),
        isHandedIn: handedIn.has(file.id),
      };
    };
    const own = handIns.filter((handIn) => rules.by === 'group' || handIn.ownerId === viewer.enrolmentId);
    const isMine = (id: string) => rules.by === 'group' || id === viewer.enrolmentId;
    const changes = [
      ...parts.flatMap((part) => (isMine(part.enrolmentId) ? [part.updatedAt] : [])),
      ...workFiles.flatMap((file) =>
        isMine(file.addedBy) ? [file.addedAt, ...(file.deletedAt ? [file.deletedAt] : [])] : [],
      ),
    ];
    const isOver = rules.attempts === 'one' && own.length > 0;
    const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name);
    return {
      copyId: copy.id,
      rules: { ...rules, types: [...rules.types] },
      mayHandIn: decision.access === 'open' && decision.part === 'member' && !isOver,
      parts: parts.map((part) => ({
        author: member(part.enrolmentId),
        text: part.text,
        words: part.words,
        version: part.version,
        updatedAt: part.updatedAt.toISOString(),
      })),
      files: workFiles.filter((file) => file.deletedAt === null).map(fileView),
      handIns: handIns.map((handIn): HandInView => ({
        id: handIn.id,
        attempt: handIn.attempt,
        owner: handIn.ownerId === null ? null : member(handIn.ownerId),
        handedInAt: handIn.handedInAt.toISOString(),
        handedInBy: member(handIn.handedInBy),
        late: lateOf(access, handIn.handedInAt, handIn.ownerId ?? viewer.enrolmentId),
        credited: credits
          .filter((credit) => credit.handInId === handIn.id)
          .map((credit) => member(credit.enrolmentId))
          .sort(byName),
        parts: handIn.parts.map((part) => ({
          author: member(part.enrolmentId),
          text: part.text,
          words: part.words,
        })),
        files: handIn.fileIds.map((fileId) => fileView(sure(workFileOf.get(fileId)))),
      })),
      state: workState(
        own[0]?.handedInAt ?? null,
        changes.length === 0 ? null : new Date(Math.max(...changes.map(Number))),
      ),
    };
  }

  /** For many copies at once: the latest hand-in of each owner, with the people it credits. One query. */
  async latest(
    accesses: readonly CopyAccess[],
    manager: EntityManager = this.dataSource.manager,
  ): Promise<OwnWork[]> {
    const rows = await manager.query<LatestHandIn[]>(
      `SELECT DISTINCT ON (h."copyId", h."ownerId") h."copyId", h."ownerId", h."id", h."attempt", h."handedInAt", p."name" AS "by",
              ARRAY(SELECT k."enrolmentId" FROM "credit" k WHERE k."handInId" = h."id" ORDER BY k."enrolmentId") AS "credited"
         FROM "hand_in" h JOIN "author" p ON p."enrolmentId" = h."handedInBy"
        WHERE h."copyId" = ANY($1) ORDER BY h."copyId", h."ownerId", h."attempt" DESC`,
      [accesses.map((access) => access.copy.id)],
    );
    return rows.map(({ copyId, ownerId, ...handIn }) => ({ copyId, ownerId, handIn, changedAt: null }));
  }

  /** The same with the latest change of each owner, handed in or not. Two queries, however many copies. */
  async own(
    accesses: readonly CopyAccess[],
    manager: EntityManager = this.dataSource.manager,
  ): Promise<OwnWork[]> {
    const works = keyedBy(await this.latest(accesses, manager), workKey);
    const changes = await manager.query<{ copyId: CopyId; enrolmentId: EnrolmentId; changedAt: Date }[]>(
      `SELECT "copyId", "enrolmentId", max("at") AS "changedAt" FROM (
         SELECT "copyId", "enrolmentId", "updatedAt" AS "at" FROM "part"
         UNION ALL SELECT "copyId", "addedBy", GREATEST("addedAt", "deletedAt") FROM "work_file") change
        WHERE "copyId" = ANY($1) GROUP BY 1, 2`,
      [accesses.map((access) => access.copy.id)],
    );
    const change = (copyId: CopyId, ownerId: EnrolmentId | null, at: Date) => {
      const known = works.get(workKey({ copyId, ownerId }));
      const changedAt = known?.changedAt && known.changedAt > at ? known.changedAt : at;
      works.set(workKey({ copyId, ownerId }), { copyId, ownerId, handIn: known?.handIn ?? null, changedAt });
    };
    for (const { copyId, enrolmentId, changedAt } of changes) {
      change(copyId, null, changedAt);
      change(copyId, enrolmentId, changedAt);
    }
    return [...works.values()];
  }
}

/** Whose work it is, in which copy. */
export const workKey = ({ copyId, ownerId }: Pick<OwnWork, 'copyId' | 'ownerId'>): string =>
  `${copyId} ${ownerId ?? ''}`;

interface LatestHandIn {
  readonly copyId: CopyId;
  readonly ownerId: EnrolmentId | null;
  readonly id: string;
  readonly attempt: number;
  readonly handedInAt: Date;
  readonly by: string;
  readonly credited: readonly EnrolmentId[];
}

export function workState(handedInAt: Date | null, changedAt: Date | null): WorkState {
  if (handedInAt === null) return changedAt === null ? 'not-started' : 'in-work';
  return changedAt !== null && changedAt > handedInAt ? 'changed-since' : 'done';
}

export const haveHandIns = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<boolean> =>
  manager.existsBy(HandInRow, { copyId: In([...copyIds]) });

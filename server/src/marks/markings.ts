import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Adjustment, PersonMark } from '@jigsaw/core/marks';
import { personMark } from '@jigsaw/core/marks';
import type { WorkSummary } from '../handin/index.js';
import { CreditRow, WorkReader } from '../handin/index.js';
import type { CopyAccess } from '../release/index.js';
import { plainDecimal } from '../release/index.js';
import { MarkAdjustmentRow, MarkRow } from './marks.rows.js';

/** Everything a copy's marks are worked out from. */
export interface Marking {
  readonly access: CopyAccess;
  readonly mark: MarkRow | null;
  readonly adjustments: ReadonlyMap<string, Adjustment>;
  readonly credited: readonly EnrolmentId[];
  readonly summary: WorkSummary;
}

@Injectable()
export class Markings {
  constructor(private readonly work: WorkReader) {}

  /** For many copies at once, in the order given; five queries, however many copies. */
  async of(accesses: readonly CopyAccess[], manager: EntityManager): Promise<Marking[]> {
    if (accesses.length === 0) return [];
    const copyIds = accesses.map((access) => access.copy.id);
    const summaries = await this.work.summaries(accesses, manager);
    const marks = await manager.findBy(MarkRow, { copyId: In(copyIds) });
    const adjustments = await manager.findBy(MarkAdjustmentRow, { copyId: In(copyIds) });
    const credits = await manager.findBy(CreditRow, { handInId: In([...summaries.values()].flatMap((summary) => summary.latest?.id ?? [])) });
    const members = await manager.query<{ groupId: string; enrolmentId: EnrolmentId }[]>(
      `SELECT m."groupId", m."enrolmentId" FROM "membership" m JOIN "enrolment" e ON e."id" = m."enrolmentId"
        WHERE m."groupId" = ANY($1) AND m."until" IS NULL AND e."leftAt" IS NULL`,
      [accesses.map((access) => access.copy.groupId)],
    );
    return accesses.map((access) => {
      const summary = summaries.get(access.copy.id)!;
      const { latest } = summary;
      return {
        access,
        summary,
        mark: marks.find((mark) => mark.copyId === access.copy.id) ?? null,
        adjustments: new Map(adjustments.filter((row) => row.copyId === access.copy.id).map((row) => [row.enrolmentId, row.adjustment])),
        // Nothing handed in: a mark, if one is given, goes to whoever is in the group.
        credited: latest
          ? credits.filter((credit) => credit.handInId === latest.id).map((credit) => credit.enrolmentId as EnrolmentId)
          : members.filter((member) => member.groupId === access.copy.groupId).map((member) => member.enrolmentId),
      };
    });
  }
}

export function markOf({ access, mark, adjustments, summary }: Marking, enrolmentId: string): PersonMark {
  return personMark({
    groupMark: mark?.groupMark ? plainDecimal(mark.groupMark) : null,
    lateDeduction: summary.latest?.late.deduction ?? '0',
    max: plainDecimal(access.activity.points),
    adjustment: adjustments.get(enrolmentId) ?? null,
  });
}

import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import { groupedBy } from '@jigsaw/core/lists';
import type { KeptSheet } from '@jigsaw/core/marks';
import { Clock } from '../platform/clock.js';
import type { CopyAccess, Unit, UnitWork } from '../release/index.js';
import { Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { MarkAdjustmentRow, MarkRow } from './marks.rows.js';

/** The sheet of one group, or of one student, with the work that it is about. */
export interface Marking {
  readonly access: CopyAccess;
  readonly unit: Unit;
  readonly work: UnitWork;
  readonly mark: MarkRow | null;
  readonly sheet: KeptSheet;
}

@Injectable()
export class Markings {
  constructor(
    private readonly kinds: Kinds,
    private readonly clock: Clock,
  ) {}

  /** For many copies at once; copies of what is not marked have none. A few queries a kind, however many copies. */
  async of(accesses: readonly CopyAccess[], manager: EntityManager): Promise<Marking[]> {
    const marked = accesses.filter((access) => access.activity.points !== null);
    const copyIds = marked.map((access) => access.copy.id);
    const accessById = new Map(marked.map((access) => [access.copy.id, access]));
    const works = await this.kinds.works({
      accesses: marked,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, marked),
    });
    const marks = await manager.findBy(MarkRow, { copyId: In(copyIds) });
    const adjustments = await manager.findBy(MarkAdjustmentRow, { copyId: In(copyIds) });
    const markByUnit = new Map(marks.map((mark) => [`${mark.copyId} ${mark.enrolmentId ?? 'group'}`, mark]));
    const adjustmentsOf = groupedBy(adjustments, (row) => row.copyId);
    return works.map((work) => {
      const access = accessById.get(work.copyId)!;
      const mark = markByUnit.get(`${work.copyId} ${work.unit}`) ?? null;
      const credited = new Set<string>(work.credited);
      const own = (adjustmentsOf.get(work.copyId) ?? []).filter((row) => credited.has(row.enrolmentId));
      return { access, unit: work.unit, work, mark, sheet: sheetOf(access, work, mark, own) };
    });
  }
}

function sheetOf(
  { activity }: CopyAccess,
  work: UnitWork,
  mark: MarkRow | null,
  adjustments: readonly MarkAdjustmentRow[],
): KeptSheet {
  return {
    unit: work.unit,
    points: plainDecimal(activity.points!),
    rubric: activity.rubric,
    typed: mark?.typedMark ? plainDecimal(mark.typedMark) : null,
    overrideReason: mark?.overrideReason ?? '',
    picks: mark?.picks ?? {},
    lateDeduction: work.late.deduction,
    credited: work.credited,
    adjustments: new Map(adjustments.map((row) => [row.enrolmentId, row.adjustment])),
    version: mark?.version ?? null,
    releasedVersion: mark?.releasedVersion ?? null,
    workAt: mark?.workAt?.getTime() ?? null,
    latestAt: work.latest?.at.getTime() ?? null,
    isComplete: work.isComplete,
  };
}

export const haveMarks = (manager: EntityManager, copyIds: readonly string[]): Promise<boolean> =>
  manager.existsBy(MarkRow, { copyId: In([...copyIds]) });

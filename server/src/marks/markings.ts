import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import type { Adjustment, KeptSheet } from '@jigsaw/core/marks';
import type { CopyId } from '@jigsaw/core/ids';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import type { CopyAccess, Unit, UnitWork } from '../release/index.js';
import { Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { MarkRow } from './marks.rows.js';

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
    const marks = await keptMarks(manager, copyIds);
    const markByUnit = new Map(marks.map((mark) => [`${mark.copyId} ${mark.enrolmentId ?? 'group'}`, mark]));
    const adjustmentsOf = new Map(marks.map((mark) => [mark.copyId, mark.adjustments ?? {}]));
    return works.map((work) => {
      const access = sure(accessById.get(work.copyId));
      const mark = markByUnit.get(`${work.copyId} ${work.unit}`) ?? null;
      return {
        access,
        unit: work.unit,
        work,
        mark,
        sheet: sheetOf(access, work, mark, adjustmentsOf.get(work.copyId) ?? {}),
      };
    });
  }

  /** @throws not-found for a unit that this copy does not have. */
  async one(access: CopyAccess, unit: Unit, manager: EntityManager): Promise<Marking> {
    const marking = (await this.of([access], manager)).find((each) => each.unit === unit);
    if (!marking) throw problems.notFound();
    return marking;
  }
}

/** Sheets with what differs for whom in their copies; one query. What differs is only ever kept with a sheet. */
const keptMarks = (
  manager: EntityManager,
  copyIds: readonly CopyId[],
): Promise<(MarkRow & { readonly adjustments: Readonly<Record<string, Adjustment>> | null })[]> =>
  manager.query(
    `SELECT m.*, (SELECT jsonb_object_agg(a."enrolmentId", a."adjustment") FROM "mark_adjustment" a WHERE a."copyId" = m."copyId") AS "adjustments"
       FROM "mark" m WHERE m."copyId" = ANY($1)`,
    [copyIds],
  );

function sheetOf(
  { activity }: CopyAccess,
  work: UnitWork,
  mark: MarkRow | null,
  adjustments: Readonly<Record<string, Adjustment>>,
): KeptSheet {
  return {
    unit: work.unit,
    points: plainDecimal(sure(activity.points)),
    rubric: activity.rubric,
    typed: mark?.typedMark ? plainDecimal(mark.typedMark) : null,
    overrideReason: mark?.overrideReason ?? '',
    picks: mark?.picks ?? {},
    lateDeduction: work.late.deduction,
    credited: work.credited,
    adjustments: new Map(
      work.credited.flatMap((id) => (adjustments[id] ? [[id, adjustments[id]] as const] : [])),
    ),
    version: mark?.version ?? null,
    releasedVersion: mark?.releasedVersion ?? null,
    workAt: mark?.workAt?.getTime() ?? null,
    latestAt: work.latest?.at.getTime() ?? null,
    isComplete: work.isComplete,
  };
}

export const haveMarks = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<boolean> =>
  manager.existsBy(MarkRow, { copyId: In([...copyIds]) });

import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Adjustment, PersonMark, Rubric } from '@jigsaw/core/marks';
import { isOverride, markFrom, personMark, rubricMark } from '@jigsaw/core/marks';
import { Clock } from '../platform/clock.js';
import type { CopyAccess, Unit, UnitWork } from '../release/index.js';
import { Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { MarkAdjustmentRow, MarkRow } from './marks.rows.js';

/** Everything that the mark of one group, or of one student, is worked out from. */
export interface Marking {
  readonly access: CopyAccess;
  readonly unit: Unit;
  readonly points: string;
  readonly mark: MarkRow | null;
  readonly adjustments: ReadonlyMap<string, Adjustment>;
  readonly work: UnitWork;
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
    return works.map((work) => {
      const access = accessById.get(work.copyId)!;
      const credited = new Set<string>(work.credited);
      return {
        access,
        unit: work.unit,
        points: plainDecimal(access.activity.points!),
        mark: markByUnit.get(`${work.copyId} ${work.unit}`) ?? null,
        adjustments: new Map(
          adjustments
            .filter((row) => row.copyId === work.copyId && credited.has(row.enrolmentId))
            .map((row) => [row.enrolmentId, row.adjustment]),
        ),
        work,
      };
    });
  }
}

export const rubricOf = ({ access }: Pick<Marking, 'access'>): Rubric | null => access.activity.rubric;
export const typedOf = ({ mark }: Pick<Marking, 'mark'>): string | null =>
  mark?.typedMark ? plainDecimal(mark.typedMark) : null;

/** The group's mark, or the student's before anything that differs: typed, or from the rubric. */
export function unitMarkOf(marking: Marking): string | null {
  return markFrom({
    rubric: rubricOf(marking),
    picks: marking.mark?.picks ?? {},
    points: marking.points,
    typed: typedOf(marking),
  });
}

export function markOf(marking: Marking, enrolmentId: EnrolmentId): PersonMark {
  const { mark, work, points, adjustments } = marking;
  const rubric = rubricOf(marking);
  const override =
    rubric && mark && isOverride({ rubric, typed: typedOf(marking) })
      ? { rubricMark: rubricMark(rubric, mark.picks, points), reason: mark.overrideReason }
      : null;
  return personMark({
    groupMark: unitMarkOf(marking),
    override,
    lateDeduction: work.late.deduction,
    max: points,
    adjustment: adjustments.get(enrolmentId) ?? null,
  });
}

/** There is work that nobody has marked, or newer work than the mark. */
export function needsMarking(marking: Marking): boolean {
  const { work, mark } = marking;
  if (!work.isComplete || !work.latest) return false;
  return stateOf(marking) === 'unmarked' || isStale({ work, mark });
}

export const isStale = ({ work, mark }: Pick<Marking, 'work' | 'mark'>): boolean =>
  mark !== null && work.latest !== null && (mark.workAt === null || work.latest.at > mark.workAt);

export function stateOf(marking: Marking): 'unmarked' | 'drafted' | 'released' {
  const { mark, adjustments } = marking;
  if (!mark) return 'unmarked';
  if (mark.releasedVersion === mark.version) return 'released';
  const hasBegun =
    unitMarkOf(marking) !== null ||
    mark.releasedVersion !== null ||
    [...adjustments.values()].some((each) => each.kind !== 'adjusted');
  return hasBegun ? 'drafted' : 'unmarked';
}

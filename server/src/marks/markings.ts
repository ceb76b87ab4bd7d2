import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import type { Adjustment, BegunSheet, GivenMark, KeptSheet, Picks, Rubric } from '@jigsaw/core/marks';
import { needsMarking } from '@jigsaw/core/marks';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import type { CopyAccess, Unit, UnitWork } from '../release/index.js';
import { Kinds, membersOfCopies, plainDecimal, plainDecimalOrNull } from '../release/index.js';
import type { Waiting } from '../rooms/index.js';
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

  /** For each unit whether someone has to mark it: what desk and figures count, without reading what was written and given. */
  async toMark(
    accesses: readonly CopyAccess[],
    manager: EntityManager,
  ): Promise<{ readonly access: CopyAccess; readonly work: UnitWork; readonly needsMarking: boolean }[]> {
    const marked = accesses.filter((access) => access.activity.points !== null);
    const accessById = new Map(marked.map((access) => [access.copy.id, access]));
    const works = await this.kinds.works({
      accesses: marked,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, marked),
    });
    const marks = keyedBy(
      await begunMarks(
        manager,
        marked.map((access) => access.copy.id),
      ),
      (mark) => `${mark.copyId} ${mark.enrolmentId ?? 'group'}`,
    );
    return works.map((work) => {
      const access = sure(accessById.get(work.copyId));
      const mark = marks.get(`${work.copyId} ${work.unit}`);
      const sheet: BegunSheet = {
        points: plainDecimal(sure(access.activity.points)),
        rubric: access.activity.rubric,
        typed: plainDecimalOrNull(mark?.typedMark ?? null),
        picks: mark?.picks ?? {},
        adjustments: adjustmentsOf(work, mark?.adjustments ?? {}),
        version: mark?.version ?? null,
        given: { size: mark?.given ?? 0 },
        workAt: mark?.workAt?.getTime() ?? null,
        latestAt: work.latest?.at.getTime() ?? null,
        isComplete: work.isComplete,
      };
      return { access, work, needsMarking: needsMarking(sheet) };
    });
  }

  /** Where work waits for a mark: the one that has waited longest, and whether any of it came late. */
  async waitingIn(
    accesses: readonly CopyAccess[],
    manager: EntityManager,
  ): Promise<ReadonlyMap<CopyId, Waiting>> {
    const waiting = (await this.toMark(accesses, manager))
      .filter(({ needsMarking: isOpen }) => isOpen)
      .map(({ access, work }) => ({ ...work, since: work.latest?.at.getTime() ?? access.schedule.due ?? 0 }))
      .toSorted((a, b) => a.since - b.since);
    return new Map(
      [...groupedBy(waiting, ({ copyId }) => copyId)].map(([copyId, units]) => {
        const { unit, since } = sure(units[0]);
        return [copyId, { unit, since, newest: sure(units.at(-1)).since, isLate: units.some(({ late }) => late.minutes > 0) }]; // prettier-ignore
      }),
    );
  }

  /** @throws not-found for a unit that this copy does not have. */
  async one(access: CopyAccess, unit: Unit, manager: EntityManager): Promise<Marking> {
    const marking = (await this.of([access], manager)).find((each) => each.unit === unit);
    if (!marking) throw problems.notFound();
    return marking;
  }
}

interface KeptMark extends MarkRow {
  readonly adjustments: Readonly<Record<string, Adjustment>> | null;
  readonly given: readonly GivenRow[] | null;
}

type GivenRow = Omit<GivenMark, 'rubric'> & {
  readonly enrolmentId: EnrolmentId;
  /** null: as it is in the activity and in the sheet by now, or there was none and is none. */
  readonly otherRubric: GivenMark['rubric'] | 'none' | null;
};

/** Agreed sheets with what differs for each person in their copies, and with what students were given of them; one query. What differs is only ever kept with a
 * sheet. A rubric that was given is only read where it differs from what is there by now: it is the longest part of a mark, and the same for all in
 * a group. */
const keptMarks = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<KeptMark[]> =>
  manager.query(
    `SELECT m.*,
            (SELECT jsonb_object_agg(a."enrolmentId", a."adjustment") FROM "mark_adjustment" a WHERE a."copyId" = m."copyId") AS "adjustments",
            (SELECT jsonb_agg(jsonb_build_object('enrolmentId', r."enrolmentId", 'groupMark', r."groupMark"::text, 'mark', r."mark"::text,
                      'points', coalesce(r."points", c."points")::text, 'steps', r."steps", 'feedback', r."feedback",
                      'lateMinutes', r."lateMinutes", 'latePolicy', r."latePolicy", 'otherRubric',
                      CASE WHEN r."rubric" IS NULL THEN CASE WHEN c."rubric" IS NULL THEN NULL ELSE '"none"'::jsonb END
                           WHEN r."rubric"->'rubric' = c."rubric" AND r."rubric"->'picks' = m."picks" THEN NULL
                           ELSE r."rubric" END))
               FROM "released_mark" r
              WHERE r."copyId" = m."copyId" AND (m."enrolmentId" IS NULL OR r."enrolmentId" = m."enrolmentId")) AS "given"
       FROM "mark" m JOIN "released_copy" c ON c."copyId" = m."copyId" WHERE m."copyId" = ANY($1) AND m."markerId" IS NULL`,
    [copyIds],
  );

interface BegunMark extends Pick<
  MarkRow,
  'copyId' | 'enrolmentId' | 'typedMark' | 'picks' | 'version' | 'workAt'
> {
  readonly adjustments: Readonly<Record<string, Adjustment>> | null;
  readonly given: number;
}

/** Agreed sheets as far as they say whether someone has to mark. One query. */
const begunMarks = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<BegunMark[]> =>
  manager.query(
    `SELECT m."copyId", m."enrolmentId", m."typedMark", m."picks", m."version", m."workAt",
            (SELECT jsonb_object_agg(a."enrolmentId", a."adjustment") FROM "mark_adjustment" a WHERE a."copyId" = m."copyId") AS "adjustments",
            (SELECT count(*)::int FROM "released_mark" r WHERE r."copyId" = m."copyId" AND (m."enrolmentId" IS NULL OR r."enrolmentId" = m."enrolmentId")) AS "given"
       FROM "mark" m WHERE m."copyId" = ANY($1) AND m."markerId" IS NULL`,
    [copyIds],
  );

const adjustmentsOf = ({ credited }: UnitWork, kept: Readonly<Record<string, Adjustment>>) =>
  new Map(credited.flatMap((id) => (kept[id] ? [[id, kept[id]] as const] : [])));

function givenOf(
  { enrolmentId, otherRubric, ...row }: GivenRow,
  rubric: Rubric | null,
  picks: Picks,
): readonly [EnrolmentId, GivenMark] {
  const given: GivenMark = {
    ...row,
    points: plainDecimal(row.points),
    groupMark: plainDecimalOrNull(row.groupMark),
    mark: plainDecimalOrNull(row.mark),
    rubric: otherRubric === null ? rubric && { rubric, picks } : otherRubric === 'none' ? null : otherRubric,
  };
  return [enrolmentId, given];
}

function sheetOf(
  { activity }: CopyAccess,
  work: UnitWork,
  mark: KeptMark | null,
  adjustments: Readonly<Record<string, Adjustment>>,
): KeptSheet {
  const picks = mark?.picks ?? {};
  return {
    unit: work.unit,
    points: plainDecimal(sure(activity.points)),
    rubric: activity.rubric,
    typed: mark?.typedMark ? plainDecimal(mark.typedMark) : null,
    overrideReason: mark?.overrideReason ?? '',
    picks,
    feedback: mark?.feedback ?? '',
    lateDeduction: work.late.deduction,
    lateMinutes: work.late.minutes,
    ownLate: work.ownLate ?? new Map(),
    latePolicy: activity.latePolicy,
    credited: work.credited,
    adjustments: adjustmentsOf(work, adjustments),
    version: mark?.version ?? null,
    given: new Map((mark?.given ?? []).map((row) => givenOf(row, activity.rubric, picks))),
    workAt: mark?.workAt?.getTime() ?? null,
    latestAt: work.latest?.at.getTime() ?? null,
    isComplete: work.isComplete,
  };
}

export const haveMarks = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<boolean> =>
  manager.existsBy(MarkRow, { copyId: In([...copyIds]) });

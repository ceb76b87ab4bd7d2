import { Decimal } from 'decimal.js';
import type { Adjustment, PersonMark } from './personMark.js';
import { personMark } from './personMark.js';
import type { Picks, Rubric } from './rubric.js';
import type { Lateness, LatePolicy } from '../handin/index.js';
import type { GivenMark, MarkChange } from './given.js';
import { changesBetween, isOtherwise } from './given.js';
import { exactMarkFrom, isOverride, markFrom, mostOf, rubricMark } from './rubric.js';

/** All that the marks of one unit, a group or one student, are worked out from. Points and marks are decimal strings. */
export interface MarkSheet {
  /** 'group', or the student's enrolment. */
  readonly unit: string;
  readonly points: string;
  readonly rubric: Rubric | null;
  /** Typed by the marker; with a rubric it stands in place of what the rubric comes to. */
  readonly typed: string | null;
  readonly overrideReason: string;
  readonly picks: Picks;
  readonly lateDeduction: string;
  /** How late it is for those with time of their own, by enrolment. */
  readonly ownLate: ReadonlyMap<string, OwnLateness>;
  /** Who gets the mark. */
  readonly credited: readonly string[];
  /** What differs for single people, by enrolment. */
  readonly adjustments: ReadonlyMap<string, Adjustment>;
}

/** Minutes, and what they cost in points. */
export type OwnLateness = Pick<Lateness, 'minutes' | 'deduction'>;

/** A sheet with what became of it and of the work that it is about. Instants are milliseconds, UTC. */
export interface KeptSheet extends MarkSheet {
  readonly feedback: string;
  readonly lateMinutes: number;
  readonly latePolicy: LatePolicy;
  /** null: no one has written in it. */
  readonly version: number | null;
  /** What students were given of this unit, by enrolment, as it was then; empty: nothing. */
  readonly given: ReadonlyMap<string, GivenMark>;
  /** The newest work that was on the desk when the sheet was last saved. */
  readonly workAt: number | null;
  readonly latestAt: number | null;
  /** Ready to be marked. */
  readonly isComplete: boolean;
}

/** As much of a sheet as says whether someone has to mark. */
export type BegunSheet = Pick<
  KeptSheet,
  'points' | 'rubric' | 'typed' | 'picks' | 'adjustments' | 'version' | 'workAt' | 'latestAt' | 'isComplete'
> & { readonly given: { readonly size: number } };

/** changed: students were given another mark than they would be given now. */
export type MarkState = 'unmarked' | 'drafted' | 'released' | 'changed';

/** The group's mark, or the student's before anything that differs, as it is shown: typed, or from the rubric. */
export const unitMark = (sheet: Pick<MarkSheet, 'points' | 'rubric' | 'typed' | 'picks'>): string | null =>
  markFrom(sheet);

/** The unit's mark less what being late costs, rounded once. */
export const netMark = (sheet: MarkSheet): string | null =>
  personMark({
    groupMark: exactMarkFrom(sheet),
    lateDeduction: sheet.lateDeduction,
    max: sheet.points,
  }).mark;

/** Whether nothing differs for this person. */
const isAlike = ({ adjustments, ownLate }: MarkSheet, enrolmentId: string): boolean =>
  !adjustments.has(enrolmentId) && !ownLate.has(enrolmentId);

/** What a sheet gives anyone who has neither: that is most of a group, and exact figures cost time. Sheets do not change. */
const alike = new WeakMap<MarkSheet, PersonMark>();

/** What one credited person gets, and how it came about (CALC §9). */
export function memberMark(sheet: MarkSheet, enrolmentId: string): PersonMark {
  if (!isAlike(sheet, enrolmentId)) return workedOut(sheet, enrolmentId);
  const known = alike.get(sheet) ?? workedOut(sheet, null);
  alike.set(sheet, known);
  return known;
}

/** @param enrolmentId null: anyone with no adjustment and no time of their own. */
function workedOut(sheet: MarkSheet, enrolmentId: string | null): PersonMark {
  const ownLate = enrolmentId === null ? undefined : sheet.ownLate.get(enrolmentId);
  const { rubric, picks, points, typed } = sheet;
  const override =
    rubric && isOverride({ rubric, typed })
      ? { rubricMark: rubricMark(rubric, picks, points), reason: sheet.overrideReason }
      : null;
  return personMark({
    groupMark: exactMarkFrom(sheet),
    override,
    lateDeduction: ownLate?.deduction ?? sheet.lateDeduction,
    max: points,
    adjustment: enrolmentId === null ? null : (sheet.adjustments.get(enrolmentId) ?? null),
  });
}

const alikeToGive = new WeakMap<KeptSheet, GivenMark>();

/** What one credited person would be given now. */
export function markToGive(sheet: KeptSheet, enrolmentId: string): GivenMark {
  if (!isAlike(sheet, enrolmentId)) return toGive(sheet, enrolmentId);
  const known = alikeToGive.get(sheet) ?? toGive(sheet, enrolmentId);
  alikeToGive.set(sheet, known);
  return known;
}

function toGive(sheet: KeptSheet, enrolmentId: string): GivenMark {
  const { mark, steps } = memberMark(sheet, enrolmentId);
  const { points, rubric, picks, feedback, latePolicy } = sheet;
  return {
    points,
    groupMark: unitMark(sheet),
    mark,
    steps,
    rubric: rubric && { rubric, picks },
    feedback,
    lateMinutes: sheet.ownLate.get(enrolmentId)?.minutes ?? sheet.lateMinutes,
    latePolicy,
  };
}

/** What students would be given now in place of what they were given; nothing where nothing was given, or nothing would differ. */
export function changesSince(sheet: KeptSheet): MarkChange[] {
  if (sheet.given.size === 0) return [];
  return changesBetween(sheet.given, new Map(sheet.credited.map((id) => [id, markToGive(sheet, id)])));
}

export function markState(sheet: KeptSheet): MarkState {
  if (sheet.given.size > 0) return changesSince(sheet).length === 0 ? 'released' : 'changed';
  return isUnmarked(sheet) ? 'unmarked' : 'drafted';
}

/** Students have nothing of it, and no one has begun. */
function isUnmarked(sheet: BegunSheet): boolean {
  if (sheet.given.size > 0) return false;
  if (sheet.version === null) return true;
  return !(
    unitMark(sheet) !== null ||
    [...sheet.adjustments.values()].some(
      (each) => each.kind === 'excused' || (each.kind === 'separate' && each.mark !== null),
    )
  );
}

/** Newer work than the mark. */
export const isStale = ({
  version,
  workAt,
  latestAt,
}: Pick<KeptSheet, 'version' | 'workAt' | 'latestAt'>): boolean =>
  version !== null && latestAt !== null && (workAt === null || latestAt > workAt);

/** There is work that no one has marked, or newer work than the mark. */
export const needsMarking = (sheet: BegunSheet): boolean =>
  sheet.isComplete && sheet.latestAt !== null && (isStale(sheet) || isUnmarked(sheet));

/** What has to be written before a sheet can be released. */
export type Missing =
  | { readonly code: 'override-reason' }
  | { readonly code: 'adjustment-reason' | 'adjustment-figure'; readonly enrolmentId: string }
  | { readonly code: 'mark' };

/** Nothing: it can be released. A separate mark or an excuse needs no mark of the group's. */
export function missingIn(sheet: MarkSheet): readonly Missing[] {
  const missing: Missing[] = [];
  if (isOverride(sheet) && sheet.overrideReason.trim() === '') missing.push({ code: 'override-reason' });
  const needsUnitMark = sheet.credited.some((id) => {
    const kind = sheet.adjustments.get(id)?.kind;
    return kind === undefined || kind === 'adjusted';
  });
  if (needsUnitMark && unitMark(sheet) === null) missing.push({ code: 'mark' });
  for (const enrolmentId of sheet.credited) {
    const adjustment = sheet.adjustments.get(enrolmentId);
    if (adjustment && figureOf(adjustment) === null) missing.push({ code: 'adjustment-figure', enrolmentId });
    if (adjustment?.reason.trim() === '') missing.push({ code: 'adjustment-reason', enrolmentId });
  }
  return missing;
}

/** undefined: it needs none. null: it needs one, and has none. */
function figureOf(adjustment: Adjustment): string | null | undefined {
  if (adjustment.kind === 'adjusted') return adjustment.by;
  return adjustment.kind === 'separate' ? adjustment.mark : undefined;
}

export function sayMissing(
  missing: Missing,
  { unit, rubric, adjustments }: MarkSheet,
  nameOf: (id: string) => string,
): string {
  switch (missing.code) {
    case 'override-reason':
      return 'Say why this mark stands in place of the rubric’s.';
    case 'adjustment-reason':
      return `Say why ${nameOf(missing.enrolmentId)}'s mark differs.`;
    case 'adjustment-figure':
      return adjustments.get(missing.enrolmentId)?.kind === 'separate'
        ? `Give ${nameOf(missing.enrolmentId)} a mark, or let them have the group’s.`
        : `Say by how many points ${nameOf(missing.enrolmentId)}’s mark differs.`;
    case 'mark':
      if (unit !== 'group') return 'Give a mark first.';
      return rubric
        ? 'Pick a level for every criterion, or give the mark yourself and say why.'
        : 'Give the group a mark, or each member a separate one.';
  }
}

/** What no marker can mean: more points than there are. */
export type Excess =
  | { readonly code: 'above-points'; readonly mark: string }
  /** A mark of their own, or more or less than the group, by more points than there are. */
  | { readonly code: 'member-above'; readonly enrolmentId: string; readonly mark: string }
  | {
      readonly code: 'above-criterion';
      readonly criterionId: string;
      readonly name: string;
      readonly points: string;
      readonly most: string;
    };

/** Picks of a criterion that was removed from the rubric meanwhile are kept, and count for nothing. */
export function excessIn(sheet: MarkSheet): Excess | null {
  const mark = unitMark(sheet);
  if (mark !== null && new Decimal(mark).gt(sheet.points)) return { code: 'above-points', mark };
  for (const criterion of sheet.rubric?.criteria ?? []) {
    const points = sheet.picks[criterion.id]?.points ?? null;
    const most = mostOf(criterion);
    if (points !== null && new Decimal(points).gt(most))
      return { code: 'above-criterion', criterionId: criterion.id, name: criterion.name, points, most };
  }
  for (const [enrolmentId, adjustment] of sheet.adjustments) {
    const figure = figureOf(adjustment) ?? null;
    if (figure !== null && new Decimal(figure).abs().gt(sheet.points))
      return { code: 'member-above', enrolmentId, mark: figure };
  }
  return null;
}

/** What one student has of one copy, as the gradebook shows it. */
export type CellState = 'open' | 'missing' | 'to-mark' | 'drafted' | 'released' | 'excused';
export interface Cell {
  readonly state: CellState;
  readonly mark: string | null;
  /** What a released mark is out of: the points of then. */
  readonly points: string;
  /** They would be given something else now. */
  readonly isChanged: boolean;
}

/** @param due of the copy, with its extension. */
export function cellOf(sheet: KeptSheet, enrolmentId: string, due: number | null, now: number): Cell {
  const given = sheet.given.get(enrolmentId);
  if (given)
    return {
      state: given.mark === null ? 'excused' : 'released',
      mark: given.mark,
      points: given.points,
      isChanged: isOtherwise(
        given,
        sheet.credited.includes(enrolmentId) ? markToGive(sheet, enrolmentId) : null,
      ),
    };
  return { ...ungivenCell(sheet, enrolmentId, due, now), points: sheet.points, isChanged: false };
}

function ungivenCell(
  sheet: KeptSheet,
  enrolmentId: string,
  due: number | null,
  now: number,
): Pick<Cell, 'state' | 'mark'> {
  const { mark } = memberMark(sheet, enrolmentId);
  if (sheet.adjustments.get(enrolmentId)?.kind === 'excused' || mark !== null)
    return { state: 'drafted', mark };
  if (sheet.isComplete) return { state: 'to-mark', mark: null };
  const isMissing = due !== null && due < now && sheet.latestAt === null;
  return { state: isMissing ? 'missing' : 'open', mark: null };
}

/** A copy that one student is credited with, as far as it matters whether a gradebook tells of it. */
export interface CreditedCopy {
  readonly state: CellState;
  /** null: it is for everyone. */
  readonly setId: string | null;
  /** They are in its group today. */
  readonly isTheirs: boolean;
}

/** Which of the copies of one activity that a student is credited with a gradebook tells of: all of them, except that nothing is missed of anyone who moved
 * within a set and keeps the credit of the group that they left: where there is nothing yet in the new group, the old one's stands for it. */
export function copiesToTell<Copy extends CreditedCopy>(copies: readonly Copy[]): Copy[] {
  const isBegun = ({ state }: CreditedCopy) => state !== 'open' && state !== 'missing';
  const keptFrom = new Set(
    copies.filter((copy) => isBegun(copy) && !copy.isTheirs).map((copy) => copy.setId),
  );
  return copies.filter((copy) => isBegun(copy) || !keptFrom.has(copy.setId));
}

import { Decimal } from 'decimal.js';

/** What an instructor changed for one member, always with a reason. */
export type Adjustment =
  /** null: how much is not said yet. */
  | { readonly kind: 'adjusted'; readonly by: string | null; readonly reason: string }
  /** null: they are to have a mark of their own, and have none yet. */
  | { readonly kind: 'separate'; readonly mark: string | null; readonly reason: string }
  | { readonly kind: 'excused'; readonly reason: string };

export interface PersonMarkInput {
  /** Decimal strings throughout; null: the group is not marked yet. */
  readonly groupMark: string | null;
  /** The marker's own number in place of what the rubric comes to. */
  readonly override?: { readonly rubricMark: string | null; readonly reason: string } | null;
  readonly lateDeduction: string;
  readonly max: string;
  /** How much of the mark the shares may move, 0 to 1. */
  readonly shareWeight?: string;
  readonly shareFactor?: string;
  readonly adjustment?: Adjustment | null;
}

/** How a person's mark came about, in the order in which it was worked out. */
export type MarkStep =
  | { readonly code: 'group-mark'; readonly mark: string; readonly max: string }
  | {
      readonly code: 'override';
      readonly rubricMark: string | null;
      readonly mark: string;
      readonly reason: string;
    }
  | { readonly code: 'late'; readonly deduction: string }
  | { readonly code: 'share'; readonly factor: string; readonly weight: string }
  | { readonly code: 'adjusted'; readonly by: string; readonly reason: string }
  | { readonly code: 'held-at'; readonly bound: string }
  | { readonly code: 'separate'; readonly mark: string; readonly reason: string }
  | { readonly code: 'excused'; readonly reason: string };

export interface PersonMark {
  /** Rounded to 2 places; null: excused, or not marked yet. */
  readonly mark: string | null;
  readonly steps: readonly MarkStep[];
}

/** From the group's mark to a person's (CALC §9). Exact until the one rounding at the end. */
export function personMark(input: PersonMarkInput): PersonMark {
  const { groupMark, lateDeduction, max, adjustment } = input;
  if (adjustment?.kind === 'excused')
    return { mark: null, steps: [{ code: 'excused', reason: adjustment.reason }] };
  if (adjustment?.kind === 'separate') {
    if (adjustment.mark === null) return { mark: null, steps: [] };
    const mark = roundMark(new Decimal(adjustment.mark));
    return { mark, steps: [{ code: 'separate', mark, reason: adjustment.reason }] };
  }
  if (groupMark === null) return { mark: null, steps: [] };

  const steps: MarkStep[] = [{ code: 'group-mark', mark: groupMark, max }];
  if (input.override) steps.push({ code: 'override', ...input.override, mark: groupMark });
  const late = new Decimal(lateDeduction);
  if (late.gt(0)) steps.push({ code: 'late', deduction: lateDeduction });
  let value = Decimal.max(0, new Decimal(groupMark).minus(late));

  const weight = new Decimal(input.shareWeight ?? 0);
  if (weight.gt(0) && input.shareFactor !== undefined) {
    value = value.times(new Decimal(1).minus(weight).plus(weight.times(input.shareFactor)));
    steps.push({ code: 'share', factor: input.shareFactor, weight: weight.toString() });
  }
  if (adjustment?.kind === 'adjusted' && adjustment.by !== null) {
    value = value.plus(adjustment.by);
    steps.push({ code: 'adjusted', by: adjustment.by, reason: adjustment.reason });
  }
  const held = Decimal.min(Decimal.max(value, 0), max);
  if (!held.eq(value)) steps.push({ code: 'held-at', bound: held.toString() });
  return { mark: roundMark(held), steps };
}

/** Half away from zero, to 2 places, without trailing zeros. */
export function roundMark(value: Decimal): string {
  return value.toDecimalPlaces(2, Decimal.ROUND_HALF_UP).toString();
}

import { Decimal } from 'decimal.js';

/** What an instructor changed for one member, always with a reason. */
export type Adjustment =
  /** null: how much is not said yet. */
  | { readonly kind: 'adjusted'; readonly by: string | null; readonly reason: string }
  /** null: they are to have a mark of their own, and have none yet. */
  | { readonly kind: 'separate'; readonly mark: string | null; readonly reason: string }
  | { readonly kind: 'excused'; readonly reason: string };

export interface PersonMarkInput {
  /** Not rounded; null: the group is not marked yet. Everything else that counts is a decimal string. */
  readonly groupMark: Decimal | string | null;
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

/** Digits enough that no product of a rubric's figures is ever rounded: a third of a point must not lose the half that rounds a mark up. */
export const Exact = Decimal.clone({ precision: 1000 });

/** From the group's mark to a person's (CALC §9). Exact until the one rounding at the end. */
export function personMark(input: PersonMarkInput): PersonMark {
  const { lateDeduction, max, adjustment } = input;
  if (adjustment?.kind === 'excused')
    return { mark: null, steps: [{ code: 'excused', reason: adjustment.reason }] };
  if (adjustment?.kind === 'separate') {
    if (adjustment.mark === null) return { mark: null, steps: [] };
    const mark = roundMark(new Decimal(adjustment.mark));
    return { mark, steps: [{ code: 'separate', mark, reason: adjustment.reason }] };
  }
  if (input.groupMark === null) return { mark: null, steps: [] };

  const exact = new Exact(input.groupMark);
  const groupMark = roundMark(exact);
  const steps: MarkStep[] = [{ code: 'group-mark', mark: groupMark, max }];
  if (input.override) steps.push({ code: 'override', ...input.override, mark: groupMark });
  const late = new Exact(lateDeduction);
  if (late.gt(0)) steps.push({ code: 'late', deduction: lateDeduction });
  let value = Exact.max(0, exact.minus(late));

  const weight = new Exact(input.shareWeight ?? 0);
  if (weight.gt(0) && input.shareFactor !== undefined) {
    value = value.times(new Exact(1).minus(weight).plus(weight.times(input.shareFactor)));
    steps.push({ code: 'share', factor: input.shareFactor, weight: weight.toString() });
  }
  if (adjustment?.kind === 'adjusted' && adjustment.by !== null) {
    value = value.plus(adjustment.by);
    steps.push({ code: 'adjusted', by: adjustment.by, reason: adjustment.reason });
  }
  const held = Exact.min(Exact.max(value, 0), max);
  if (!held.eq(value)) steps.push({ code: 'held-at', bound: held.toString() });
  return { mark: roundMark(held), steps };
}

/** Half away from zero, to 2 places, without trailing zeros. What division left off far behind the point (0.125 written as 0.12499…9) is mended first. */
export function roundMark(value: Decimal): string {
  return value.toDecimalPlaces(100).toDecimalPlaces(2, Decimal.ROUND_HALF_UP).toString();
}

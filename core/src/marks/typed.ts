import { Decimal } from 'decimal.js';

export type TypedPoints =
  /** null: nothing is typed, which is no mark and not 0. */
  { readonly ok: true; readonly points: string | null } | { readonly ok: false; readonly says: string };

/** What someone typed where points are asked for. A comma is a point, a plus says nothing, and what cannot be meant is told beside the field.
 * @param least below 0 where points may be removed. */
export function readPoints(text: string, most: string, least = '0'): TypedPoints {
  const tidy = text.replace(',', '.').replace('−', '-').replace(/\s/g, '').replace(/^\+/, '');
  if (tidy === '') return { ok: true, points: null };
  if (!/^-?(\d+\.?\d*|\.\d+)$/.test(tidy)) return { ok: false, says: 'Write a number, like 31.5.' };
  if (/\.\d{3}/.test(tidy)) return { ok: false, says: 'At most 2 decimals.' };
  const points = new Decimal(tidy);
  if (points.gt(most) || points.lt(least))
    return { ok: false, says: `From ${least.replace('-', '−')} to ${most}.` };
  return { ok: true, points: points.isZero() ? '0' : points.toString() };
}

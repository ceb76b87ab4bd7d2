import { sure } from '../lists/index.js';
import type { Extension, Instant, Schedule } from './facts.js';

/** Opens, due and closes must come in that order; any of them may be missing. */
export function inOrder({ opens, due, closes }: Schedule): boolean {
  const given = [opens, due, closes].filter((at) => at !== null);
  return given.every((at, index) => index === 0 || sure(given[index - 1]) <= at);
}

/** Where a date comes from: from what is said for all, from what this group was granted, or kept open because its work is due later. */
export type DateSource = 'all' | 'extension' | 'held-open';

export interface CopyDates extends Schedule {
  readonly why: { readonly due: DateSource; readonly closes: DateSource };
}

/** The dates of one copy, and why they are these. Every list, page, desk and mail asks here.
 *
 * An extension is the group's due date, earlier or later than everyone's. What closes closes for the group when the extension says so, else with all,
 * but never before its own work is due. */
export function datesFor(schedule: Schedule, extension: Extension | null): CopyDates {
  if (extension === null) return { ...schedule, why: { due: 'all', closes: 'all' } };
  const { due } = extension;
  const said = extension.closes ?? schedule.closes;
  const closes = latest(said, due);
  return {
    opens: schedule.opens,
    due,
    closes,
    why: {
      due: 'extension',
      closes: closes !== said ? 'held-open' : extension.closes === null ? 'all' : 'extension',
    },
  };
}

const latest = (closes: Instant | null, due: Instant): Instant | null =>
  closes === null ? null : Math.max(closes, due);

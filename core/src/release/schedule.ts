import { sure } from '../lists/index.js';
import type { Extension, Instant, Schedule } from './facts.js';

/** Opens, due and closes must come in that order; any of them may be missing. */
export function inOrder({ opens, due, closes }: Schedule): boolean {
  const given = [opens, due, closes].filter((at) => at !== null);
  return given.every((at, index) => index === 0 || sure(given[index - 1]) <= at);
}

/** Where a date comes from: from what is said for all, from what this group or this student was granted, or kept open because work is due later. */
export type DateSource = 'all' | 'group' | 'student' | 'held-open';

export interface CopyDates extends Schedule {
  readonly why: { readonly due: DateSource; readonly closes: DateSource };
}

/** The dates of one copy, for its group or for one student in it, and why they are these. Every list, page, desk and mail asks here.
 *
 * An extension is a due date, earlier or later than everyone's. What closes closes when the extension says so, else with all, but never before the
 * work is due. Of a group's and a student's own, each date is the later one.
 * @param ofGroup what the copy's group was granted.
 * @param own what this student was granted. */
export function datesFor(
  schedule: Schedule,
  ofGroup: Extension | null,
  own: Extension | null = null,
): CopyDates {
  const { opens, closes } = schedule;
  if (ofGroup === null && own === null) return { opens, due: schedule.due, closes, why: fromAll };
  const granted = [
    ...(ofGroup ? [withExtension(closes, ofGroup, 'group')] : []),
    ...(own ? [withExtension(closes, own, 'student')] : []),
  ];
  const due = granted.reduce((latest, each) => (each.due > latest.due ? each : latest));
  const closing = granted.reduce((latest, each) => (after(each.closes, latest.closes) ? each : latest));
  return {
    opens,
    due: due.due,
    closes: closing.closes,
    why: { due: due.source, closes: closing.closesBy },
  };
}

const fromAll = { due: 'all', closes: 'all' } as const satisfies CopyDates['why'];

function withExtension(
  closesForAll: Instant | null,
  { due, closes }: Extension,
  source: 'group' | 'student',
) {
  const said = closes ?? closesForAll;
  const held = said === null ? null : Math.max(said, due);
  const closesBy: DateSource = held !== said ? 'held-open' : closes === null ? 'all' : source;
  return { source, due, closes: held, closesBy };
}

/** null: it never closes. */
const after = (a: Instant | null, b: Instant | null): boolean => b !== null && (a === null || a > b);

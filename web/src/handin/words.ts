import { sayMinutes } from '@jigsaw/core/handin';
import type { Lateness, Progress } from '@jigsaw/contract/release';
import type { Dates } from '../look/index.js';

/** "Handed in Sat 7 Nov, 21:04, late 1 d 4 h": where the work stands, in words. */
export function sayHandedIn({ state, at, late, done, asked }: Progress, dates: Dates): string {
  if (asked !== null && done !== null) return `${done} of ${asked} handed in`;
  if (state === 'not-started') return 'Nothing yet';
  if (at === null) return 'Started, not handed in';
  const delay = late && late.minutes > 0 ? `, late ${sayMinutes(late.minutes)}` : '';
  return `Handed in ${dates.dateTime(at)}${delay}${state === 'changed-since' ? '; changed since' : ''}`;
}

/** What lateness costs, or would cost now. */
export function sayLate(late: Lateness): string | null {
  if (late.minutes === 0) return null;
  return late.deduction === '0'
    ? `late ${sayMinutes(late.minutes)}`
    : `late ${sayMinutes(late.minutes)}, −${late.deduction} points`;
}

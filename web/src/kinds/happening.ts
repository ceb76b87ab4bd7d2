import type { Happening, HappeningView } from '@jigsaw/contract/release';
import { counted } from '@jigsaw/core/text';
import type { Dates } from '../look/index.js';

/** "Tue 3 Nov, 10:00–12:00, Lab 2"; "Cancelled: Tue 3 Nov, …". */
export function sayHappening({ starts, ends, place, isCancelled }: Happening, dates: Dates): string {
  const when = sayTimes(starts, ends, dates);
  return `${isCancelled ? 'Cancelled: ' : ''}${when}${place === '' ? '' : `, ${place}`}`;
}

/** As for all that get it, and for how many groups it is otherwise; null: it takes place at no time of its own. */
export function sayHappenings(happens: readonly HappeningView[], dates: Dates): string | null {
  const forAll = happens.find(({ whose }) => whose === null);
  const others = happens.filter(({ whose }) => whose !== null).length;
  if (!forAll) return null;
  return `${sayHappening(forAll, dates)}${others === 0 ? '' : `; ${counted(others, 'group')} at their own time`}`;
}

/** "Tue 3 Nov, 10:00–12:00"; over midnight both days are told. */
export const sayTimes = (starts: string, ends: string, dates: Dates): string =>
  dates.day(starts) === dates.day(ends)
    ? `${dates.dateTime(starts)}–${dates.time(ends)}`
    : `${dates.dateTime(starts)} to ${dates.dateTime(ends)}`;

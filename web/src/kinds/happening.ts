import type { Happening } from '@jigsaw/contract/release';
import type { Dates } from '../look/index.js';

/** "Tue 3 Nov, 10:00–12:00, Lab 2"; "Cancelled: Tue 3 Nov, …". */
export function sayHappening({ starts, ends, place, isCancelled }: Happening, dates: Dates): string {
  const when = sayTimes(starts, ends, dates);
  return `${isCancelled ? 'Cancelled: ' : ''}${when}${place === '' ? '' : `, ${place}`}`;
}

/** "Tue 3 Nov, 10:00–12:00"; over midnight both days are told. */
export const sayTimes = (starts: string, ends: string, dates: Dates): string =>
  dates.day(starts) === dates.day(ends)
    ? `${dates.dateTime(starts)}–${dates.time(ends)}`
    : `${dates.dateTime(starts)} to ${dates.dateTime(ends)}`;

import { daysShown } from '@jigsaw/core/rooms';

export const dayMs = 86_400_000;

/** The day that it is there, counted from 1970 on. */
export function dayIn(timeZone: string, at: Date): number {
  const day = new Intl.DateTimeFormat('en-CA', { timeZone, dateStyle: 'short' }).format(at);
  return Math.round(Date.parse(`${day}T00:00:00Z`) / dayMs);
}

/** From then on everything is asked for that the days shown may need, whatever the zone. */
export const sinceShown = (now: Date): Date => new Date(now.getTime() - (daysShown + 1) * dayMs);

/** How much there was on each of the days shown, today last.
 * @param counts by day. */
export function daysTo(today: number, counts: Iterable<readonly [day: number, count: number]>): number[] {
  const days = Array<number>(daysShown).fill(0);
  for (const [day, count] of counts) {
    const at = day - today + daysShown - 1;
    if (at >= 0 && at < daysShown) days[at] = (days[at] ?? 0) + count;
  }
  return days;
}

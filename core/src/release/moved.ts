import type { Instant, Schedule } from './facts.js';

/** The same time of day so many days later, as clocks in the course's time zone show it; where clocks skip that time, as much later as they skip.
 * @param days whole days; negative: earlier. */
export function daysLater(at: Instant, days: number, timeZone: string): Instant {
  const shown = at + offsetAt(at, timeZone) + days * dayMs;
  // The offset of the day that it falls on; where clocks change in between, a first guess may lie on the other side.
  const guess = shown - offsetAt(shown, timeZone);
  return shown - offsetAt(guess, timeZone);
}

/** Every date of a schedule moved by so many days. */
export function scheduleLater({ opens, due, closes }: Schedule, days: number, timeZone: string): Schedule {
  const later = (at: Instant | null) => (at === null ? null : daysLater(at, days, timeZone));
  return { opens: later(opens), due: later(due), closes: later(closes) };
}

const dayMs = 86_400_000;
const clocks = new Map<string, Intl.DateTimeFormat>();

/** How far clocks there are ahead of UTC; milliseconds. */
export function offsetAt(at: Instant, timeZone: string): number {
  const clock =
    clocks.get(timeZone) ??
    new Intl.DateTimeFormat('en-US', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
  clocks.set(timeZone, clock);
  const part = new Map(clock.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
  const of = (type: Intl.DateTimeFormatPartTypes) => part.get(type) ?? 0;
  const shown = Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second'));
  return shown - Math.floor(at / 1000) * 1000;
}

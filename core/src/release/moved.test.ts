import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { daysLater, scheduleLater } from './moved.js';

const lisbon = 'Europe/Lisbon';
const moved = (at: string, days: number, zone = lisbon) =>
  new Date(daysLater(Date.parse(at), days, zone)).toISOString();
const shownIn = (zone: string, at: number) =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' }).format(at);

describe('dates moved by days', () => {
  it('keep their time of day when clocks change in between', () => {
    expect(moved('2026-10-20T16:00:00Z', 7)).toBe('2026-10-27T17:00:00.000Z'); // 17:00 in Lisbon, both
    expect(moved('2026-10-27T17:00:00Z', -7)).toBe('2026-10-20T16:00:00.000Z');
    expect(moved('2026-03-27T17:00:00Z', 7)).toBe('2026-04-03T16:00:00.000Z');
    expect(moved('2026-11-12T17:00:00Z', 1)).toBe('2026-11-13T17:00:00.000Z');
  });

  it('are later by what clocks skip where they skip that time', () => {
    // On 29 March clocks in Lisbon go from 01:00 to 02:00.
    expect(moved('2026-03-28T01:30:00Z', 1)).toBe('2026-03-29T01:30:00.000Z');
    expect(moved('2026-03-29T02:30:00Z', 0)).toBe('2026-03-29T02:30:00.000Z');
  });

  it('are moved together, and what has no date still has none', () =>
    expect(scheduleLater({ opens: null, due: 0, closes: 60_000 }, 2, 'UTC')).toEqual({
      opens: null,
      due: 172_800_000,
      closes: 172_860_000,
    }));

  it('show the same time of day everywhere, and come back', () =>
    fc.assert(
      fc.property(
        fc
          .integer({ min: Date.parse('2020-01-01'), max: Date.parse('2040-01-01') })
          .map((at) => at - (at % 60_000)),
        fc.integer({ min: -400, max: 400 }),
        fc.constantFrom(lisbon, 'America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe', 'UTC'),
        (at, days, zone) => {
          const later = daysLater(at, days, zone);
          const time = (moment: number) => shownIn(zone, moment).split(', ')[1];
          // Only at night do clocks skip a time.
          if (time(later) !== time(at)) {
            expect(Number(time(at)?.slice(0, 2))).toBeLessThan(4);
            return;
          }
          expect(Math.round((later - at) / 86_400_000)).toBe(days);
          expect(shownIn(zone, daysLater(later, -days, zone))).toBe(shownIn(zone, at));
        },
      ),
    ));
});

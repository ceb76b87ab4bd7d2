import { offsetAt } from '../release/index.js';
import type { Instant } from '../release/index.js';

const dayMs = 86_400_000;
const minuteMs = 60_000;

/** A VTIMEZONE (RFC 5545, 3.6.5) that holds for these moments: every change of clocks in their years as an observance of its own, and the one in force
 * when each of these years begins. A year far off costs as much as the next one.
 * @returns lines that end in CR LF. */
export function zoneBlock(timeZone: string, moments: readonly Instant[]): string {
  const years = [...new Set(moments.map((at) => new Date(at).getUTCFullYear()))].sort((a, b) => a - b);
  const blocks = years.flatMap((year) => {
    const begins = Date.UTC(year, 0, 1);
    const first = offsetAt(begins, timeZone);
    return [
      observance('STANDARD', begins, first, first),
      ...changesIn(timeZone, year).map((at) => {
        const [before, after] = [offsetAt(at - minuteMs, timeZone), offsetAt(at, timeZone)];
        return observance(after > before ? 'DAYLIGHT' : 'STANDARD', at, before, after);
      }),
    ];
  });
  return [`BEGIN:VTIMEZONE`, `TZID:${timeZone}`, ...blocks.flat(), `END:VTIMEZONE`, ''].join('\r\n');
}

function observance(kind: 'STANDARD' | 'DAYLIGHT', at: Instant, before: number, after: number): string[] {
  return [
    `BEGIN:${kind}`,
    // As clocks showed it before the change.
    `DTSTART:${stamp(at + before)}`,
    `TZOFFSETFROM:${sayOffset(before)}`,
    `TZOFFSETTO:${sayOffset(after)}`,
    `END:${kind}`,
  ];
}

const found = new Map<string, readonly Instant[]>();

/** The first moments of another offset in a year, to the minute; looked for once. */
function changesIn(timeZone: string, year: number): readonly Instant[] {
  const key = `${timeZone} ${year}`;
  const known = found.get(key);
  if (known) return known;
  const changes: Instant[] = [];
  for (let day = Date.UTC(year, 0, 1); day < Date.UTC(year + 1, 0, 1); day += dayMs) {
    if (offsetAt(day, timeZone) === offsetAt(day + dayMs, timeZone)) continue;
    let [low, high] = [day, day + dayMs];
    while (high - low > minuteMs) {
      const middle = Math.floor((low + high) / 2 / minuteMs) * minuteMs;
      if (offsetAt(middle, timeZone) === offsetAt(low, timeZone)) low = middle;
      else high = middle;
    }
    changes.push(Math.floor(high / minuteMs) * minuteMs);
  }
  found.set(key, changes);
  return changes;
}

const stamp = (at: Instant) => new Date(at).toISOString().slice(0, 19).replaceAll(/[-:]/g, '');

function sayOffset(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / minuteMs);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${ms < 0 ? '-' : '+'}${two(Math.floor(minutes / 60))}${two(minutes % 60)}`;
}

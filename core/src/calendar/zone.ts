import { offsetAt } from '../release/index.js';
import type { Instant } from '../release/index.js';

const dayMs = 86_400_000;
const minuteMs = 60_000;

/** A VTIMEZONE (RFC 5545, 3.6.5) that holds from a moment to another: every change of clocks in between as an observance of its own, and the one in
 * force at the beginning.
 * @returns lines that end in CR LF. */
export function zoneBlock(timeZone: string, from: Instant, to: Instant): string {
  const first = offsetAt(from, timeZone);
  const blocks = [observance('STANDARD', from, first, first)];
  for (const at of changesBetween(timeZone, from, to)) {
    const before = offsetAt(at - minuteMs, timeZone);
    const after = offsetAt(at, timeZone);
    blocks.push(observance(after > before ? 'DAYLIGHT' : 'STANDARD', at, before, after));
  }
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

/** The first moments of another offset, to the minute. */
function changesBetween(timeZone: string, from: Instant, to: Instant): Instant[] {
  const changes: Instant[] = [];
  for (let day = from; day < to; day += dayMs) {
    if (offsetAt(day, timeZone) === offsetAt(day + dayMs, timeZone)) continue;
    let [low, high] = [day, day + dayMs];
    while (high - low > minuteMs) {
      const middle = Math.floor((low + high) / 2 / minuteMs) * minuteMs;
      if (offsetAt(middle, timeZone) === offsetAt(low, timeZone)) low = middle;
      else high = middle;
    }
    changes.push(Math.floor(high / minuteMs) * minuteMs);
  }
  return changes;
}

const stamp = (at: Instant) => new Date(at).toISOString().slice(0, 19).replaceAll(/[-:]/g, '');

function sayOffset(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / minuteMs);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${ms < 0 ? '-' : '+'}${two(Math.floor(minutes / 60))}${two(minutes % 60)}`;
}

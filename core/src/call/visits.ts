import type { Instant } from '../release/index.js';

/** Someone who came in, and until when they were heard of. */
export interface Visit {
  readonly name: string;
  readonly from: Instant;
  readonly seen: Instant;
  /** When they left; null: they did not say. */
  readonly left: Instant | null;
}

/** Anyone who was not heard of for so long has gone, with or without a word. Pages are heard of three times as often. */
export const absentAfterMs = 90_000;

/** When a visit ended; null: it goes on. */
export function endOf({ seen, left }: Pick<Visit, 'seen' | 'left'>, now: Instant): Instant | null {
  if (left !== null) return left;
  return now - seen > absentAfterMs ? seen : null;
}

/** How long anyone was there; milliseconds. Two who were there together count once. */
export function lasting(visits: readonly Visit[], now: Instant): number {
  let total = 0;
  let until = -Infinity;
  for (const visit of visits.toSorted((a, b) => a.from - b.from)) {
    const end = endOf(visit, now) ?? now;
    total += Math.max(0, end - Math.max(visit.from, until));
    until = Math.max(until, end);
  }
  return total;
}

export interface DayOfCall {
  /** As `dayOf` names it. */
  readonly day: string;
  readonly names: readonly string[];
  readonly ms: number;
  readonly visits: readonly Visit[];
}

/** Who was there on which day and for how long, the newest day first.
 * @param dayOf the day on which a moment falls, where the course is. */
export function daysOf(
  visits: readonly Visit[],
  now: Instant,
  dayOf: (at: Instant) => string,
): readonly DayOfCall[] {
  const days = new Map<string, Visit[]>();
  for (const visit of visits.toSorted((a, b) => b.from - a.from)) {
    const day = dayOf(visit.from);
    days.set(day, [...(days.get(day) ?? []), visit]);
  }
  return [...days].map(([day, own]) => ({
    day,
    names: [...new Set(own.toSorted((a, b) => a.from - b.from).map(({ name }) => name))],
    ms: lasting(own, now),
    visits: own,
  }));
}

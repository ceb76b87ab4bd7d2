import type { CopyId, EnrolmentId, PostId } from '../ids/index.js';
import type { Instant } from '../release/index.js';

/** Why a group's room needs a person of the staff, and since when. docs/rooms.md says it in words. */
export type Need =
  /** Members asked something that no one has answered, so many times; of the first of them. */
  | {
      readonly code: 'question';
      readonly copyId: CopyId;
      readonly postId: PostId;
      readonly since: Instant;
      /** Of the last of them. */
      readonly newest: Instant;
      readonly count: number;
    }
  /** Nothing is there yet, and it is due soon. */
  | { readonly code: 'nothing-yet'; readonly copyId: CopyId; readonly due: Instant }
  /** Its time is over, and nothing was handed in. */
  | { readonly code: 'missing'; readonly copyId: CopyId; readonly since: Instant }
  /** What was handed in waits for its mark. */
  | {
      readonly code: 'to-mark';
      readonly copyId: CopyId;
      /** Whose mark it is: the group's, or one student's. */
      readonly unit: 'group' | EnrolmentId;
      readonly since: Instant;
      /** Of the last of what waits. */
      readonly newest: Instant;
      readonly isLate: boolean;
    }
  /** A member did nothing for long, in a group that has something to do. */
  | { readonly code: 'silent'; readonly enrolmentId: EnrolmentId; readonly since: Instant };

/** In their order: all of one before all of the next. */
export const needCodes = [
  'question',
  'nothing-yet',
  'missing',
  'to-mark',
  'silent',
] as const satisfies Need['code'][];

const hourMs = 3_600_000;
const dayMs = 24 * hourMs;
/** Due within so long is soon. */
export const soonMs = 2 * dayMs;
/** Nothing from a member for so long is told. */
export const silentMs = 14 * dayMs;

/** How much a need asks for a person, in points. Who waits for an answer comes first, then what can still be saved before it is due, then what is
 * late, then marking, then people; within each it grows with the time that passes, and never past the next.
 * @param now milliseconds, UTC. */
export function scoreOf(need: Need, now: Instant): number {
  switch (need.code) {
    case 'question':
      return 80 + upTo(14, 2 * days(need.since, now)) + upTo(5, need.count - 1);
    case 'nothing-yet':
      return 60 + upTo(19, (19 * (soonMs - (need.due - now))) / soonMs);
    case 'missing':
      return 40 + upTo(19, 2 * days(need.since, now));
    case 'to-mark':
      return 20 + upTo(14, days(need.since, now)) + (need.isLate ? 5 : 0);
    case 'silent':
      return 1 + upTo(18, days(need.since + silentMs, now));
  }
}

/** Of so many days it is told how much was written. */
export const daysShown = 14;

/** How long it takes to see to it, in minutes. */
export const minutesFor = {
  question: 2,
  'nothing-yet': 2,
  missing: 2,
  'to-mark': 5,
  silent: 1,
} satisfies Record<Need['code'], number>;

/** The most pressing first; of two alike the one that has waited longer. */
export const inOrderOfNeed = (needs: readonly Need[], now: Instant): readonly Need[] =>
  needs.toSorted((a, b) => scoreOf(b, now) - scoreOf(a, now) || sinceOf(a) - sinceOf(b));

/** How much a room asks for a person: as much as the most pressing of what is there, and of the rest a hundredth, so that more of the same counts for more. A room
 * in which nothing is open has none. */
export function scoreOfRoom(needs: readonly Need[], now: Instant): number {
  const [first = 0, ...rest] = needs.map((need) => scoreOf(need, now)).toSorted((a, b) => b - a);
  return first + upTo(0.99, rest.reduce((sum, score) => sum + score, 0) / 100);
}

interface Stop<Each> {
  readonly needs: readonly Each[];
}

/** The rooms that fit into so many minutes, from the first on, each with the one thing that is most pressing there; one at least, where any room needs someone.
 * @param rooms in the order of their scores, needs by theirs. */
export function stopsWithin<Each extends Pick<Need, 'code'>, Room extends Stop<Each>>(
  rooms: readonly (Room & Stop<Each>)[],
  minutes: number,
): readonly { readonly room: Room; readonly need: Each; readonly minutes: number }[] {
  const stops: { room: Room; need: Each; minutes: number }[] = [];
  let left = minutes;
  for (const room of rooms) {
    const [need] = room.needs;
    if (!need) continue;
    const takes = minutesFor[need.code];
    if (stops.length > 0 && takes > left) break;
    left -= takes;
    stops.push({ room, need, minutes: takes });
  }
  return stops;
}

const sinceOf = (need: Need): Instant => (need.code === 'nothing-yet' ? need.due : need.since);
const days = (from: Instant, to: Instant) => (to - from) / dayMs;
const upTo = (most: number, value: number) => Math.min(most, Math.max(0, value));

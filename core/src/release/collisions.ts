import type { ActivityId, EnrolmentId } from '../ids/index.js';
import { groupedBy } from '../lists/index.js';
import type { Instant } from './facts.js';
import { offsetAt } from './moved.js';

/** Something that a student has to have done by a moment. */
export interface DueFor {
  readonly student: EnrolmentId;
  readonly activityId: ActivityId;
  readonly due: Instant;
}

/** Several pieces of work that fall due on one day for the same students. */
export interface Collision {
  /** As calendars in the course's time zone show it: 2026-12-02. */
  readonly day: string;
  readonly activityIds: readonly ActivityId[];
  readonly students: readonly EnrolmentId[];
}

const dayMs = 86_400_000;

/** The day on which a moment falls in a time zone: 2026-12-02. */
export const dayAt = (at: Instant, timeZone: string): string =>
  new Date(Math.floor((at + offsetAt(at, timeZone)) / dayMs) * dayMs).toISOString().slice(0, 10);

/** Who has more than one thing due on a day, and what; students with the same of it stand together. The fullest days' largest come first.
 * One pass over what is due. */
export function collisionsOf(dues: Iterable<DueFor>, timeZone: string): readonly Collision[] {
  const days = new Map<Instant, string>(); // many are due at few moments
  const ofStudents = new Map<string, { student: EnrolmentId; day: string; activityIds: Set<ActivityId> }>();
  for (const { student, activityId, due } of dues) {
    const day = days.get(due) ?? dayAt(due, timeZone);
    days.set(due, day);
    const key = `${day} ${student}`;
    const own = ofStudents.get(key) ?? { student, day, activityIds: new Set() };
    own.activityIds.add(activityId);
    ofStudents.set(key, own);
  }
  const several = [...ofStudents.values()]
    .filter(({ activityIds }) => activityIds.size > 1)
    .map((own) => ({ ...own, activityIds: [...own.activityIds].sort() }));
  return [...groupedBy(several, ({ day, activityIds }) => `${day} ${activityIds.join(' ')}`).values()]
    .flatMap(([first, ...others]) =>
      first
        ? [
            {
              day: first.day,
              activityIds: first.activityIds,
              students: [first, ...others].map(({ student }) => student),
            },
          ]
        : [],
    )
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : b.students.length - a.students.length));
}

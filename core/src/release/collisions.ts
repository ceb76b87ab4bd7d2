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

/** Who has more than one thing due on a day, and what; students with the same of it stand together. In the order of days, of one day the largest
 * first. One pass over what is due, and one over what is due on days with several things. */
export function collisionsOf(dues: Iterable<DueFor>, timeZone: string): readonly Collision[] {
  const dayOf = new Map<Instant, string>(); // many are due at few moments
  const days = new Map<string, Map<ActivityId, Set<EnrolmentId>>>();
  for (const { student, activityId, due } of dues) {
    const day = dayOf.get(due) ?? dayAt(due, timeZone);
    dayOf.set(due, day);
    const onDay = days.get(day) ?? new Map<ActivityId, Set<EnrolmentId>>();
    days.set(day, onDay);
    const students = onDay.get(activityId) ?? new Set();
    onDay.set(activityId, students.add(student));
  }
  return [...days]
    .flatMap(([day, onDay]) => (onDay.size > 1 ? collisionsOn(day, onDay) : []))
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : b.students.length - a.students.length));
}

function collisionsOn(day: string, onDay: ReadonlyMap<ActivityId, ReadonlySet<EnrolmentId>>): Collision[] {
  const ofStudents = new Map<EnrolmentId, ActivityId[]>();
  for (const activityId of [...onDay.keys()].sort())
    for (const student of onDay.get(activityId) ?? []) {
      const own = ofStudents.get(student);
      if (own) own.push(activityId);
      else ofStudents.set(student, [activityId]);
    }
  const several = [...ofStudents].filter(([, activityIds]) => activityIds.length > 1);
  return [...groupedBy(several, ([, activityIds]) => activityIds.join(' ')).values()].map((alike) => ({
    day,
    activityIds: alike[0]?.[1] ?? [],
    students: alike.map(([student]) => student),
  }));
}

import type { ActivityView, Happening } from '@jigsaw/contract/release';
import { groupedBy } from '@jigsaw/core/lists';
import { dayAt } from '@jigsaw/core/release';
import { stateOf } from './activityList.js';

/** Something that a course's dates bring about. */
export interface Entry {
  readonly at: string;
  readonly what: 'goes-live' | 'opens' | 'due' | 'closes' | 'happens';
  /** Those whose date of their own it is; null: it is for all that get it. */
  readonly whose: string | null;
  /** Where it takes place, and until when; of what happens. */
  readonly happens: Happening | null;
  readonly activity: ActivityView;
}

/** A calendar day of the course: 2026-12-02. */
export type Day = string;
const dayMs = 86_400_000;
export const daysLater = (day: Day, days: number): Day =>
  new Date(Date.parse(day) + days * dayMs).toISOString().slice(0, 10);
/** The Monday of its week. */
export const mondayOf = (day: Day): Day => daysLater(day, -((new Date(day).getUTCDay() + 6) % 7));
/** One that a page may be asked for: calendars end before years of five digits do. */
export const isDay = (text: string | null): text is Day =>
  text !== null && /^2[01]\d\d-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text));

/** What happens on each day, in its order: drafts as they are planned, nothing of what was withdrawn. */
export function entriesByDay(
  activities: readonly ActivityView[],
  timeZone: string,
): ReadonlyMap<Day, readonly Entry[]> {
  const entries = activities
    .filter((activity) => stateOf(activity) !== 'withdrawn')
    .flatMap(entriesOf)
    .toSorted((a, b) => a.at.localeCompare(b.at) || a.activity.title.localeCompare(b.activity.title));
  return groupedBy(entries, (entry) => dayAt(Date.parse(entry.at), timeZone));
}

function entriesOf(activity: ActivityView): readonly Entry[] {
  const { schedule, release, extensions, studentExtensions } = activity;
  const found: Entry[] = [];
  const add = (what: Entry['what'], at: string | null, whose: string | null = null) => {
    if (at !== null) found.push({ at, what, whose, happens: null, activity });
  };
  const { state, at: since } = release?.state ?? { state: 'draft', at: null };
  add('goes-live', state === 'scheduled' ? since : null);
  add('opens', schedule.opens);
  add('due', schedule.due);
  // What closes when it is due is said by that.
  add('closes', schedule.closes === schedule.due ? null : schedule.closes);
  for (const { name, due, closes } of [...extensions, ...studentExtensions]) {
    add('due', due, name);
    add('closes', closes === due ? null : closes, name);
  }
  for (const happens of activity.happens)
    found.push({ at: happens.starts, what: 'happens', whose: happens.whose, happens, activity });
  return found;
}

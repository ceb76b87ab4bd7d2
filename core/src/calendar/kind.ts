import type { KindFacts } from '../release/index.js';

/** When and where, as it is kept. Moments are ISO 8601; null: not chosen yet. */
export interface EventTimes {
  readonly starts: string | null;
  readonly ends: string | null;
  readonly place: string;
  readonly isCancelled: boolean;
}

/** Something that takes place: for the class together, or for each group on its own. */
export const eventFacts: KindFacts<EventTimes> = {
  name: 'event',
  modes: () => ['own', 'common'],
  markFor: () => 'student',
  isHandedIn: false,
  isWork: false,
  isMarked: false,
  notReady: ({ starts, ends }) =>
    starts === null ? 'Choose when it starts.' : ends === null ? 'Choose when it ends.' : null,
};

/** null: its times are not chosen yet. */
export const happeningOf = ({ starts, ends, place, isCancelled }: EventTimes) =>
  starts === null || ends === null ? null : { starts, ends, place, isCancelled };

/** At another time, as it is otherwise. */
export function movedEvent<Settings extends EventTimes>(
  settings: Settings,
  later: (at: string) => string,
): Settings {
  const moved = (at: string | null) => (at === null ? null : later(at));
  return { ...settings, starts: moved(settings.starts), ends: moved(settings.ends) };
}

import type { GroupId } from '../ids/index.js';
import type { KindFacts } from '../release/index.js';

/** When and where, as it is kept. Moments are ISO 8601; null: not chosen yet. */
export interface EventTimes {
  readonly starts: string | null;
  readonly ends: string | null;
  readonly place: string;
  readonly isCancelled: boolean;
  /** Of groups for which it is at another time; one for a group. */
  readonly own: readonly OwnTime[];
}

/** When and where it is for one group. */
export interface OwnTime {
  readonly groupId: GroupId;
  readonly starts: string;
  readonly ends: string;
  /** Empty: where it is for all. */
  readonly place: string;
  /** For this group alone; what is cancelled for all is so for each. */
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
  return {
    ...settings,
    starts: moved(settings.starts),
    ends: moved(settings.ends),
    own: settings.own.map((each) => ({ ...each, starts: later(each.starts), ends: later(each.ends) })),
  };
}

/** As one group has it, with nothing of the others; null: as all have it. */
export function eventFor<Settings extends EventTimes>(settings: Settings, groupId: GroupId | null): Settings {
  const own = groupId === null ? undefined : settings.own.find((each) => each.groupId === groupId);
  if (!own) return { ...settings, own: [] };
  return {
    ...settings,
    starts: own.starts,
    ends: own.ends,
    place: own.place || settings.place,
    isCancelled: settings.isCancelled || own.isCancelled,
    own: [],
  };
}

/** One group after another, in the given order.
 * @param first when the first one starts.
 * @param lasts minutes for each.
 * @param pause minutes between two. */
export function inTurn(
  groupIds: readonly GroupId[],
  { first, lasts, pause }: { readonly first: string; readonly lasts: number; readonly pause: number },
): OwnTime[] {
  return groupIds.map((groupId, at) => {
    const starts = Date.parse(first) + at * (lasts + pause) * 60_000;
    return {
      groupId,
      starts: new Date(starts).toISOString(),
      ends: new Date(starts + lasts * 60_000).toISOString(),
      place: '',
      isCancelled: false,
    };
  });
}

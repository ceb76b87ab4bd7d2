import type { ActivityView } from '@jigsaw/contract/release';
import { unreachable } from '@jigsaw/core/ids';
import { fold } from '@jigsaw/core/text';

export type StateOf = NonNullable<ActivityView['release']>['state']['state'];
export const stateOf = (activity: ActivityView): StateOf => activity.release?.state.state ?? 'draft';

/** Given to its audience now, or from a moment on. */
export const isOut = (activity: ActivityView): boolean =>
  activity.release !== null && stateOf(activity) !== 'withdrawn';

export type DueWhen = 'any' | 'soon' | 'past' | 'none';
export type Order = 'edited' | 'due' | 'title';

/** What of the list is wanted; null: whatever it is. */
export interface Wanted {
  readonly words: string;
  readonly kind: string | null;
  readonly state: StateOf | null;
  /** The name of a set or a saved audience that it goes to. */
  readonly to: string | null;
  readonly due: DueWhen;
  readonly order: Order;
}
export const everything: Wanted = {
  words: '',
  kind: null,
  state: null,
  to: null,
  due: 'any',
  order: 'edited',
};

export const isNarrowed = ({ words, kind, state, to, due }: Wanted): boolean =>
  words.trim() !== '' || kind !== null || state !== null || to !== null || due !== 'any';

const soonMs = 7 * 86_400_000;

/** The activities that are wanted, in the order that is.
 * @param now milliseconds. */
export function wantedOf(
  activities: readonly ActivityView[],
  wanted: Wanted,
  now: number,
): readonly ActivityView[] {
  const words = fold(wanted.words).split(/\s+/);
  return activities
    .filter(
      (activity) =>
        (wanted.kind === null || activity.kind === wanted.kind) &&
        (wanted.state === null || stateOf(activity) === wanted.state) &&
        (wanted.to === null || namesOf(activity).includes(wanted.to)) &&
        isDue(activity.schedule.due, wanted.due, now) &&
        isCalled(activity, words),
    )
    .toSorted(inOrder[wanted.order]);
}

/** The sets and saved audiences that something goes to, by name. */
export const namesOf = ({ release }: ActivityView): readonly string[] =>
  release ? [...release.setNames, ...release.audienceNames] : [];

function isCalled({ title }: ActivityView, words: readonly string[]): boolean {
  const name = fold(title);
  return words.every((word) => name.includes(word));
}

function isDue(due: string | null, when: DueWhen, now: number): boolean {
  const at = due === null ? null : Date.parse(due);
  switch (when) {
    case 'any':
      return true;
    case 'none':
      return at === null;
    case 'past':
      return at !== null && at < now;
    case 'soon':
      return at !== null && at >= now && at < now + soonMs;
    default:
      return unreachable(when);
  }
}

const byTitle = (a: ActivityView, b: ActivityView) => a.title.localeCompare(b.title);
const inOrder: Readonly<Record<Order, (a: ActivityView, b: ActivityView) => number>> = {
  edited: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  // What has no date comes last.
  due: (a, b) => (a.schedule.due ?? '9999').localeCompare(b.schedule.due ?? '9999') || byTitle(a, b),
  title: byTitle,
};

import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { groupedBy } from '@jigsaw/core/lists';
import { stateAt } from '@jigsaw/core/release';
import type { SightCell } from '@jigsaw/core/sightlines';
import { stateOf } from '@jigsaw/contract/sightFacts';
import type { Cells } from './sightWork.js';

export type SeenActivity = SightlinesView['activities'][number];
export type LineState = 'closed' | 'live' | 'scheduled' | 'draft' | 'withdrawn';

/** A line of the matrix: an activity with its cells, or what those below it are. */
export type SightLine =
  | { readonly kind: 'state'; readonly state: LineState; readonly count: number }
  | { readonly kind: 'activity'; readonly activity: SeenActivity; readonly cells: readonly SightCell[] };

/** In the order in which they are shown. */
export const states: readonly LineState[] = ['closed', 'live', 'scheduled', 'draft', 'withdrawn'];

/** What an activity is at a moment. */
export function lineStateAt({ release, schedule }: SeenActivity, at: number): LineState {
  if (!release) return 'draft';
  const state = stateOf(release);
  if ((state.state === 'live' || state.state === 'closed') && state.since > at) return 'scheduled';
  const closes = schedule.closes === null ? null : Date.parse(schedule.closes);
  const opens = schedule.opens === null ? null : Date.parse(schedule.opens);
  const { state: then } = stateAt(state, { closes }, at);
  return then === 'live' && opens !== null && opens > at ? 'scheduled' : then;
}

/** Which activities are wanted; null: any. */
export interface WantedLines {
  readonly kind: string | null;
  readonly state: LineState | null;
  /** The name of a set or a saved audience that it goes to. */
  readonly to: string | null;
  readonly isOnlyDifferent: boolean;
  /** Something about it is to be checked. */
  readonly isOnlyToCheck: boolean;
}
export const everyLine: WantedLines = {
  kind: null,
  state: null,
  to: null,
  isOnlyDifferent: false,
  isOnlyToCheck: false,
};
export const isNarrowed = ({ kind, state, to, isOnlyDifferent, isOnlyToCheck }: WantedLines): boolean =>
  kind !== null || state !== null || to !== null || isOnlyDifferent || isOnlyToCheck;

/** The sets and saved audiences that something goes to, by name. */
export function goesTo({ release }: SeenActivity, { sets }: Pick<SightlinesView, 'sets'>): readonly string[] {
  const setIds = new Set<string>();
  const names: string[] = [];
  for (const entry of release?.audience.include ?? []) {
    if (entry.kind === 'audience') names.push(entry.name);
    if ('setId' in entry) setIds.add(entry.setId);
  }
  return [...sets.flatMap(({ setId, name }) => (setIds.has(setId) ? [name] : [])), ...names];
}

/** The lines by what they are at a moment, in each by when they are due.
 * @param toCheck the activities about which something is to be checked. */
export function linesOf(
  view: Pick<SightlinesView, 'activities' | 'sets'>,
  cells: Cells,
  at: number,
  wanted: WantedLines,
  toCheck: ReadonlyMap<string, unknown> = new Map(),
): readonly SightLine[] {
  const kept = view.activities.flatMap((activity, index) => {
    const [own, state] = [cells[index] ?? [], lineStateAt(activity, at)];
    const isWanted =
      (wanted.kind === null || activity.kind === wanted.kind) &&
      (wanted.state === null || state === wanted.state) &&
      (wanted.to === null || goesTo(activity, view).includes(wanted.to)) &&
      (!wanted.isOnlyDifferent || differs(own)) &&
      (!wanted.isOnlyToCheck || toCheck.has(activity.activityId));
    return isWanted ? [{ activity, own, state }] : [];
  });
  const byState = groupedBy(kept, ({ state }) => state);
  return states.flatMap((state): SightLine[] => {
    const own = (byState.get(state) ?? []).toSorted((a, b) =>
      whenOf(a.activity).localeCompare(whenOf(b.activity)),
    );
    if (own.length === 0) return [];
    return [
      { kind: 'state', state, count: own.length },
      ...own.map(({ activity, own: cells }): SightLine => ({ kind: 'activity', activity, cells })),
    ];
  });
}

const whenOf = ({ schedule, release }: SeenActivity): string =>
  schedule.due ?? schedule.closes ?? schedule.opens ?? release?.at ?? '9';

/** Not all groups have the same of it. */
const differs = (cells: readonly SightCell[]): boolean => {
  const said = ({ code, from, laterMs, isClosed, see, members }: SightCell) =>
    [code, from, laterMs, isClosed, see < members].join();
  const [first] = cells;
  return first !== undefined && cells.some((cell) => said(cell) !== said(first));
};

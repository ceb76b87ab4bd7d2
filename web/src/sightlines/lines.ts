import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { groupedBy } from '@jigsaw/core/lists';
import { stateAt } from '@jigsaw/core/release';
import type { SightCell } from '@jigsaw/core/sightlines';
import { stateOf } from './factsOf.js';
import type { Cells } from './sightWork.js';

export type SeenActivity = SightlinesView['activities'][number];
export type LineState = 'closed' | 'live' | 'scheduled' | 'draft' | 'withdrawn';

/** A line of the matrix: an activity with its cells, or what those below it are. */
export type SightLine =
  | { readonly kind: 'state'; readonly state: LineState; readonly count: number }
  | { readonly kind: 'activity'; readonly activity: SeenActivity; readonly cells: readonly SightCell[] };

const order: readonly LineState[] = ['closed', 'live', 'scheduled', 'draft', 'withdrawn'];

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

/** The lines by what they are at a moment, in each by when they are due.
 * @param keeps which activities are wanted. */
export function linesOf(
  activities: readonly SeenActivity[],
  cells: Cells,
  at: number,
  keeps: (activity: SeenActivity, own: readonly SightCell[]) => boolean,
): readonly SightLine[] {
  const kept = activities.flatMap((activity, index) => {
    const own = cells[index] ?? [];
    return keeps(activity, own) ? [{ activity, own, state: lineStateAt(activity, at) }] : [];
  });
  const byState = groupedBy(kept, ({ state }) => state);
  return order.flatMap((state): SightLine[] => {
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
export const differs = (cells: readonly SightCell[]): boolean => {
  const said = ({ code, from, laterMs, isClosed, see, members }: SightCell) =>
    [code, from, laterMs, isClosed, see < members].join();
  const [first] = cells;
  return first !== undefined && cells.some((cell) => said(cell) !== said(first));
};

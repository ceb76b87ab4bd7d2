import { unreachable } from '../ids/index.js';
import type { Instant, ReleaseState, Schedule } from './facts.js';

/** What a release is at a moment, and since when; scheduled: from when. */
export type StateAt =
  | { readonly state: 'draft'; readonly at: null }
  | { readonly state: 'scheduled' | 'live' | 'closed' | 'withdrawn'; readonly at: Instant };

/** What the stored state amounts to now: a scheduled release is live from its moment on, whether or not anything has run since, and what is
 * live past its end is closed. The one place that says so.
 * @param schedule of one copy, or of the activity for all of them. */
export function stateAt(state: ReleaseState, { closes }: Pick<Schedule, 'closes'>, now: Instant): StateAt {
  switch (state.state) {
    case 'draft':
      return { state: 'draft', at: null };
    case 'withdrawn':
    case 'closed':
      return { state: state.state, at: state.since };
    case 'scheduled':
      return state.goesLiveAt > now
        ? { state: 'scheduled', at: state.goesLiveAt }
        : stateAt({ state: 'live', since: state.goesLiveAt }, { closes }, now);
    case 'live':
      return closes !== null && closes <= now
        ? { state: 'closed', at: closes }
        : { state: 'live', at: state.since };
    default:
      return unreachable(state);
  }
}

/** Given to its audience, now or from a moment on: staff count it, mark it and see it in lists. */
export const isReleased = ({ state }: Pick<ReleaseState, 'state'>): boolean =>
  state !== 'draft' && state !== 'withdrawn';

/** Whether its members can be in it now: not a draft, not withdrawn, not before its time. */
export function isOut(state: ReleaseState, schedule: Schedule, now: Instant): boolean {
  const { state: is } = stateAt(state, schedule, now);
  return (is === 'live' || is === 'closed') && (schedule.opens === null || schedule.opens <= now);
}

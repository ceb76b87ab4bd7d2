import { unreachable } from '../ids/index.js';
import type { Instant, ReleaseState } from './facts.js';

export type ReleaseEvent =
  | { readonly type: 'released'; readonly at: Instant; readonly goesLiveAt: Instant | null }
  | { readonly type: 'withdrawn'; readonly at: Instant }
  | { readonly type: 'closed'; readonly at: Instant }
  | { readonly type: 'reopened'; readonly at: Instant };

export type Transition =
  | { readonly ok: true; readonly state: ReleaseState }
  | { readonly ok: false; readonly code: 'not-from-here' };

/** The one owner of a release's steps. */
export function transition(from: ReleaseState, event: ReleaseEvent): Transition {
  switch (event.type) {
    case 'released':
      if (from.state !== 'draft' && from.state !== 'withdrawn') return refused;
      return to(
        event.goesLiveAt !== null && event.goesLiveAt > event.at
          ? { state: 'scheduled', goesLiveAt: event.goesLiveAt }
          : { state: 'live', since: event.at },
      );
    case 'withdrawn':
      return from.state === 'draft' || from.state === 'withdrawn'
        ? refused
        : to({ state: 'withdrawn', since: event.at });
    case 'closed':
      return from.state === 'live' ? to({ state: 'closed', since: event.at }) : refused;
    case 'reopened':
      return from.state === 'closed' ? to({ state: 'live', since: event.at }) : refused;
    default:
      return unreachable(event);
  }
}

const refused: Transition = { ok: false, code: 'not-from-here' };
const to = (state: ReleaseState): Transition => ({ ok: true, state });

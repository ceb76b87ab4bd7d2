import type { Instant, ReleaseState, Schedule } from './facts.js';

/** What a release does by itself, without anyone's act. */
export interface Moment {
  readonly what: 'goes-live' | 'opens' | 'closes';
  readonly at: Instant;
}

/** When a copy of a release changes by itself, in order: between two of them no one's access to it does, unless someone acts. A draft, and
 * what was withdrawn, wait for none.
 * @param schedule of one copy, or of the activity for all of them. */
export function momentsOf(
  state: ReleaseState,
  { opens, closes }: Pick<Schedule, 'opens' | 'closes'>,
): readonly Moment[] {
  if (state.state === 'draft' || state.state === 'withdrawn') return [];
  const since = state.state === 'scheduled' ? state.goesLiveAt : state.since;
  return [
    ...(state.state === 'scheduled' ? [{ what: 'goes-live', at: since } as const] : []),
    ...(opens !== null && opens > since ? [{ what: 'opens', at: opens } as const] : []),
    ...(state.state !== 'closed' && closes !== null && closes > since
      ? [{ what: 'closes', at: closes } as const]
      : []),
  ];
}

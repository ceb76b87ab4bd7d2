import type { Instant } from '../release/index.js';
import type { CheckFacts } from './facts.js';

/** Until when time alone changes nothing of what there is to check; null: only what happens in the course does. */
export function checkedUntil({ sight, now }: Pick<CheckFacts, 'sight' | 'now'>): Instant | null {
  const dates = sight.activities.flatMap(({ release, copies }) => {
    if (release === null) return [];
    const { state, schedule, ownTime } = release;
    const own = [...copies.map(({ extension }) => extension), ...ownTime.values()];
    return [
      state.state === 'scheduled' ? state.goesLiveAt : null,
      ...[schedule, ...own].flatMap((each) => (each ? [each.due, each.closes] : [])),
    ];
  });
  // What is due at a moment still is at that moment, and no longer after it.
  const moments = dates.flatMap((at) => (at === null ? [] : [at, at + 1])).filter((at) => at > now);
  return moments.length === 0 ? null : moments.reduce((first, at) => Math.min(first, at));
}

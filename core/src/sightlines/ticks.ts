import type { ActivityId, GroupId } from '../ids/index.js';
import { datesFor, momentsOf } from '../release/index.js';
import type { Instant, Moment } from '../release/index.js';
import type { SightFacts } from './facts.js';

/** Something by which what people see changes. */
export type Tick =
  | { readonly at: Instant; readonly what: Moment['what'] | 'went-live'; readonly activityId: ActivityId }
  | { readonly at: Instant; readonly what: 'moved'; readonly groupId: GroupId };

/** When in a term anyone's sight changes, in order: releases go live, open and close, for all or for a group, and students move. */
export function ticksOf(facts: SightFacts): readonly Tick[] {
  const ticks: Tick[] = [];
  for (const { activityId, release, copies } of facts.activities) {
    if (!release) continue;
    const { state, schedule } = release;
    if ((state.state === 'live' || state.state === 'closed') && state.since > 0)
      ticks.push({ at: state.since, what: 'went-live', activityId });
    for (const { what, at } of momentsOf(state, schedule)) ticks.push({ what, at, activityId });
    // Whichever of a group's and a student's own dates applies to someone, it is one of these.
    for (const granted of [...copies.map(({ extension }) => extension), ...release.ownTime.values()]) {
      const closes = granted && datesFor(schedule, granted).closes;
      if (closes && closes !== schedule.closes) ticks.push({ at: closes, what: 'closes', activityId });
    }
  }
  for (const { groupId, until } of facts.seats)
    if (until !== null) ticks.push({ at: until, what: 'moved', groupId });
  return ticks.sort((a, b) => a.at - b.at);
}

/** Every moment at which the sight of anyone can change, in order: between two of them each cell stays as it is. */
export function changesOf(facts: SightFacts): readonly Instant[] {
  const moments = new Set(ticksOf(facts).map(({ at }) => at));
  for (const { from } of facts.seats) moments.add(from);
  for (const { leftAt } of facts.people) if (leftAt !== null) moments.add(leftAt);
  return [...moments].sort((a, b) => a - b);
}

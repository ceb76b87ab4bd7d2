import type { SightAudience, SightlinesView } from './sightlines.js';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Audience, Extension, ReleaseState } from '@jigsaw/core/release';
import type { SightFacts } from '@jigsaw/core/sightlines';

/** What the server told, as the decision function wants it. */
export function factsOf({ courseId, people, seats, sets, activities }: SightlinesView): SightFacts {
  return {
    courseId,
    people: people.map(({ enrolmentId, role, leftAt, leads, seesOnlyLed }) => ({
      enrolmentId,
      role,
      leftAt: millis(leftAt),
      leads,
      seesOnlyLed,
    })),
    seats: seats.map(({ from, until, ...seat }) => ({
      ...seat,
      from: Date.parse(from),
      until: millis(until),
    })),
    groups: sets.flatMap(({ setId, groups }) => groups.map(({ groupId }) => ({ groupId, setId }))),
    activities: activities.map(({ activityId, schedule, release }) => ({
      activityId,
      release: release && {
        courseId,
        state: stateOf(release),
        mode: release.mode,
        outsiders: release.outsiders,
        audience: audienceOf(release.audience),
        schedule: {
          opens: millis(schedule.opens),
          due: millis(schedule.due),
          closes: millis(schedule.closes),
        },
        ownTime: new Map<EnrolmentId, Extension>(
          release.ownTime.map(({ enrolmentId, ...time }) => [enrolmentId, extensionOf(time)]),
        ),
      },
      copies: (release?.copies ?? []).map(({ extension, ...copy }) => ({
        ...copy,
        extension: extension && extensionOf(extension),
      })),
    })),
  };
}

export function stateOf({
  state,
  at,
}: Pick<NonNullable<SightlinesView['activities'][number]['release']>, 'state' | 'at'>): ReleaseState {
  if (state === 'draft') return { state };
  const since = at === null ? 0 : Date.parse(at);
  return state === 'scheduled' ? { state, goesLiveAt: since } : { state, since };
}

export const audienceOf = ({ include, exclude }: SightAudience): Audience => ({
  include: include.map((entry) =>
    entry.kind === 'audience'
      ? {
          kind: entry.kind,
          audienceId: entry.audienceId,
          people: new Map(
            entry.people.map((enrolmentId) => [enrolmentId, { kind: 'person' as const, enrolmentId }]),
          ),
          groups: new Map(entry.groups.map(({ groupId, setId }) => [groupId, setId])),
        }
      : entry,
  ),
  exclude,
});

const extensionOf = ({ due, closes }: { due: string; closes: string | null }): Extension => ({
  due: Date.parse(due),
  closes: millis(closes),
});

const millis = (iso: string | null) => (iso === null ? null : Date.parse(iso));

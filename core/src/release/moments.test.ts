import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import type { Viewer } from '../course/index.js';
import { datesFor, decide, inOrder, momentsOf, stateAt } from './index.js';
import type { CopyFacts, Extension, ReleaseFacts, ReleaseState, Schedule } from './index.js';

const nothingSaid: Schedule = { opens: null, due: null, closes: null };

describe('the moments of a release', () => {
  it('are when it goes live, opens and closes by itself, in order', () => {
    const schedule = { opens: 20, closes: 40 };
    expect(momentsOf({ state: 'scheduled', goesLiveAt: 10 }, schedule)).toEqual([
      { what: 'goes-live', at: 10 },
      { what: 'opens', at: 20 },
      { what: 'closes', at: 40 },
    ]);
    expect(momentsOf({ state: 'live', since: 30 }, schedule)).toEqual([{ what: 'closes', at: 40 }]);
  });

  it('are none for what was over when it went live, is a draft or withdrawn', () => {
    const schedule = { opens: 20, closes: 40 };
    expect(momentsOf({ state: 'live', since: 40 }, schedule)).toEqual([]);
    expect(momentsOf({ state: 'draft' }, schedule)).toEqual([]);
    expect(momentsOf({ state: 'withdrawn', since: 5 }, schedule)).toEqual([]);
    expect(momentsOf({ state: 'closed', since: 5 }, schedule)).toEqual([{ what: 'opens', at: 20 }]);
  });
});

const course = 'fer220' as CourseId;
const benches = 'benches' as GroupSetId;
const crock = 'crock' as GroupId;
const noor = 'noor' as EnrolmentId;

const instant = fc.integer({ min: 0, max: 40 });
const perhaps = <T>(some: fc.Arbitrary<T>) => fc.option(some, { nil: null });
const schedules = fc
  .record({ opens: perhaps(instant), due: perhaps(instant), closes: perhaps(instant) })
  .filter(inOrder);
const extensions: fc.Arbitrary<Extension> = fc.record({ due: instant, closes: perhaps(instant) });
const states: fc.Arbitrary<ReleaseState> = fc.oneof(
  fc.constant({ state: 'draft' } as const),
  instant.map((goesLiveAt) => ({ state: 'scheduled', goesLiveAt }) as const),
  fc.record({ state: fc.constantFrom('live', 'closed', 'withdrawn'), since: instant }),
);
const seats = fc.constantFrom([], [{ groupId: crock, setId: benches }]);
const roles = fc.constantFrom('student', 'observer', 'assistant', 'instructor');
const cases = fc.record({
  state: states,
  schedule: schedules,
  ofGroup: perhaps(extensions),
  own: perhaps(extensions),
  mode: fc.constantFrom('own', 'read-along', 'common'),
  outsiders: fc.constantFrom('hidden', 'listed'),
  groups: seats,
  role: roles,
  isOut: fc.boolean(),
});

describe('between the moments', () => {
  it('nobody’s access changes, nor what the release is', () =>
    fc.assert(
      fc.property(cases, fc.array(instant, { minLength: 2, maxLength: 8 }), (given, asked) => {
        const { state, schedule, ofGroup, own, mode, outsiders, groups, role, isOut } = given;
        const release: ReleaseFacts = {
          courseId: course,
          state,
          mode,
          audience: { include: [{ kind: 'set', setId: benches }], exclude: isOut ? [noor] : [] },
          outsiders,
          schedule,
          ownTime: own ? new Map([[noor, own]]) : new Map(),
        };
        const seat = mode === 'common' ? { groupId: null, setId: null } : { groupId: crock, setId: benches };
        const copy: CopyFacts = { ...seat, extension: ofGroup };
        const viewer: Viewer = { courseId: course, enrolmentId: noor, role, hasLeft: false, groups, leads: [], seesOnlyLed: false }; // prettier-ignore
        const moments = [
          ...momentsOf(state, schedule), // of the activity, which lists show
          ...momentsOf(state, datesFor(schedule, ofGroup, own)),
        ].map(({ at }) => at);
        const since = 'since' in state ? state.since : 0; // it was not so before someone acted
        const times = asked.filter((at) => at >= since).sort((a, b) => a - b);
        for (const [index, now] of times.entries()) {
          const before = times[index - 1];
          if (before === undefined || moments.some((at) => at > before && at <= now)) continue;
          const seen = (at: number) => [
            decide(viewer, release, copy, at).access,
            stateAt(state, schedule, at).state,
            stateAt(state, datesFor(schedule, ofGroup, own), at).state,
          ];
          expect(seen(now)).toEqual(seen(before));
        }
      }),
      { numRuns: 2000 },
    ));

  it('a member can do something else at each of them', () =>
    fc.assert(
      fc.property(states, schedules, (state, schedule) => {
        const release: ReleaseFacts = { courseId: course, state, mode: 'own', audience: { include: [{ kind: 'set', setId: benches }], exclude: [] }, outsiders: 'hidden', schedule, ownTime: new Map() }; // prettier-ignore
        const copy: CopyFacts = { groupId: crock, setId: benches, extension: null };
        const viewer: Viewer = { courseId: course, enrolmentId: noor, role: 'student', hasLeft: false, groups: [{ groupId: crock, setId: benches }], leads: [], seesOnlyLed: false }; // prettier-ignore
        const access = (at: number) => decide(viewer, release, copy, at).access;
        const moments = momentsOf(state, { ...nothingSaid, ...schedule });
        const last = moments.at(-1);
        if (last) expect(access(last.at)).not.toBe(access(last.at - 1));
      }),
    ));
});

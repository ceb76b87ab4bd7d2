import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { atLeast, decide, someGroups, theClass, wholeSet } from '../release/index.js';
import type { ReleaseFacts } from '../release/index.js';
import { releaseAt, viewersAt } from '../sightlines/index.js';
import type { SightActivity, SightFacts, SightSeat } from '../sightlines/index.js';
import { differencesOf } from './index.js';

const courseId = 'course' as CourseId;
const [benches, panels] = ['benches' as GroupSetId, 'panels' as GroupSetId];
const [crock, tun, vat, sour] = ['crock' as GroupId, 'tun' as GroupId, 'vat' as GroupId, 'sour' as GroupId];
const setOf = new Map([[crock, benches], [tun, benches], [vat, benches], [sour, panels]]); // prettier-ignore
const groups = [...setOf].map(([groupId, setId]) => ({ groupId, setId }));
const names = ['noor', 'jorge', 'amina', 'nino'] as EnrolmentId[];
const people = [...names, 'ilse' as EnrolmentId].map((enrolmentId) => ({ enrolmentId, role: enrolmentId === 'ilse' ? ('instructor' as const) : ('student' as const), leftAt: null, leads: [], seesOnlyLed: false })); // prettier-ignore
const seat = (who: EnrolmentId, groupId: GroupId): SightSeat => ({ enrolmentId: who, groupId, setId: sure(setOf.get(groupId)), from: 0, until: null }); // prettier-ignore
const aRelease = (more: Partial<ReleaseFacts> = {}): ReleaseFacts => ({
  courseId,
  state: { state: 'live', since: 0 },
  mode: 'own',
  audience: wholeSet(benches),
  outsiders: 'hidden',
  schedule: { opens: null, due: 500, closes: null },
  ownTime: new Map(),
  ...more,
});
const activity = (name: string, release: ReleaseFacts | null, of: readonly (GroupId | null)[], laterIn: GroupId | null = null): SightActivity => ({
  activityId: name as ActivityId,
  release,
  copies: of.map((groupId) => ({ copyId: `${name} ${groupId}` as CopyId, groupId, setId: groupId === null ? null : sure(setOf.get(groupId)), extension: groupId !== null && groupId === laterIn ? { due: 900, closes: null } : null })),
}); // prettier-ignore
const facts = (activities: readonly SightActivity[], seats: readonly SightSeat[]): SightFacts => ({ courseId, people, seats, groups, activities }); // prettier-ignore
const [noor, jorge, amina] = names as [EnrolmentId, EnrolmentId, EnrolmentId];
const told = (before: SightFacts, after: SightFacts) =>
  differencesOf(before, after, 200).map(({ activityId, enrolmentId, before: was, after: is }) => [activityId, enrolmentId, ...[was, is].map(({ access, own, reads }) => `${access} ${own.map(({ groupId, due }) => `${groupId}@${due}`).join()} ${reads}`)]); // prettier-ignore

describe('what a change alters for whom', () => {
  const report = activity('report', aRelease(), [crock, tun], tun);
  const talk = activity('talk', aRelease({ mode: 'read-along' }), [crock, tun]);
  const lecture = activity('lecture', aRelease({ mode: 'common', audience: theClass }), [null]);
  const all = [report, talk, lecture, activity('draft', null, [])];

  it('is nothing where nothing changes', () => {
    const same = facts(all, [seat(noor, crock)]);
    expect(differencesOf(same, same, 200)).toEqual([]);
  });

  it('of a move is told of the one who moves, with the copy and its due date; what is for all stays', () => {
    const before = facts(all, [seat(noor, crock), seat(amina, tun)]);
    const after = facts(all, [seat(noor, tun), seat(amina, tun)]);
    expect(told(before, after)).toEqual([
      ['report', 'noor', 'open crock@500 0', 'open tun@900 0'],
      ['talk', 'noor', 'open crock@500 1', 'open tun@500 1'],
    ]);
  });

  it('of another audience or state is told of everyone that it concerns', () => {
    const seats = [seat(noor, crock), seat(jorge, crock), seat(amina, tun)];
    const toCrock = activity('report', aRelease({ audience: someGroups(benches, [crock]), outsiders: 'listed' }), [crock, tun]); // prettier-ignore
    expect(told(facts([report], seats), facts([toCrock], seats))).toEqual([
      ['report', 'amina', 'open tun@900 0', 'listed  0'],
      ['report', 'nino', 'hidden  0', 'listed  0'],
    ]);
    const closed = activity(
      'report',
      aRelease({ state: { state: 'closed', since: 100 } }),
      [crock, tun],
      tun,
    );
    expect(told(facts([report], [seat(noor, crock)]), facts([closed], [seat(noor, crock)]))).toEqual([
      ['report', 'noor', 'open crock@500 0', 'read-only crock@500 0'],
    ]);
    expect(told(facts([report], [seat(noor, crock)]), facts([], []))).toEqual([
      ['report', 'noor', 'open crock@500 0', 'hidden  0'],
    ]);
  });

  it('is told exactly where a decision about a copy, or when it is due, is another', () => {
    const anActivity = fc
      .record({
        mode: fc.constantFrom('own' as const, 'read-along' as const, 'common' as const),
        audience: fc.constantFrom(
          theClass,
          wholeSet(benches),
          wholeSet(panels),
          someGroups(benches, [crock]),
          someGroups(benches, [crock, tun]),
        ),
        outsiders: fc.constantFrom('hidden' as const, 'listed' as const),
        closes: fc.option(fc.constantFrom(100, 300)),
        later: fc.option(fc.constantFrom(crock, tun)),
      })
      .map(
        ({ closes, later, ...more }) =>
        activity('report', aRelease({ ...more, schedule: { opens: null, due: 90, closes } }), more.mode === 'common' ? [null] : [crock, tun, vat, sour], later), // prettier-ignore
      );
    const someSeats = fc.subarray(names.flatMap((who) => groups.map(({ groupId }) => seat(who, groupId))));
    // Most plans change one of the two.
    const plan = fc
      .tuple(anActivity, someSeats, fc.option(anActivity, { freq: 2 }), fc.option(someSeats, { freq: 1 }))
      .map(
        ([one, seats, other, moved]) => [facts([one], seats), facts([other ?? one], moved ?? seats)] as const,
      );
    const plainly = (of: SightFacts, who: EnrolmentId) => {
      const viewer = sure(viewersAt(of, 200).get(who));
      const { release, copies } = sure(of.activities[0]);
      const decided = copies.map((copy) => {
        const { access, part } = decide(viewer, releaseAt(sure(release ?? undefined), 200), copy, 200);
        return { copy, access, part };
      });
      const readable = decided.filter(({ access }) => atLeast(access, 'read-only'));
      return JSON.stringify([
        decided.some(({ access }) => access === 'open'),
        decided.some(({ access }) => access !== 'hidden'),
        readable.filter(({ part }) => part === 'member').map(({ copy }) => [copy.groupId, copy.extension?.due]).sort(), // prettier-ignore
        readable.filter(({ part }) => part === 'reader').length,
      ]);
    };
    fc.assert(
      fc.property(plan, ([before, after]) => {
        const expected = names.filter((who) => plainly(before, who) !== plainly(after, who));
        expect(differencesOf(before, after, 200).map(({ enrolmentId }) => enrolmentId)).toEqual(expected);
      }),
      { numRuns: 2000 },
    );
  });
});

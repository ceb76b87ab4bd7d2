import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { dealOut, emptiest, sayNoPlace, signUpState, whyNoPlace } from './index.js';
import { fillRoom } from '../sets/index.js';
import type { DealtGroup, WantedPlace } from './index.js';

const someGroups = fc
  .array(
    fc.record({
      members: fc.nat({ max: 6 }),
      capacity: fc.option(fc.nat({ max: 6 })),
      isLocked: fc.boolean(),
    }),
    { maxLength: 8 },
  )
  .map((all) => all.map((group, at): DealtGroup => ({ ...group, id: `g${at}` as GroupId })));
const students = (count: number) => Array.from({ length: count }, (_, at) => `s${at}` as EnrolmentId);

describe('dealing out', () => {
  it('fills towards equal size, within capacity and past locked groups, and places everyone for whom there is room', () =>
    fc.assert(
      fc.property(someGroups, fc.nat({ max: 30 }), (groups, count) => {
        const { moves, left } = dealOut(groups, students(count));
        const open = groups.filter((group) => !group.isLocked);
        const forecast = fillRoom(open, count);
        const sizes = open.map(
          (group) => group.members + moves.filter((move) => move.to === group.id).length,
        );
        expect(sizes).toEqual(forecast.sizes);
        expect(left).toHaveLength(forecast.unplaced);
        expect([...moves.map((move) => move.student), ...left].sort()).toEqual(students(count).sort());
        for (const move of moves)
          expect(sure(groups.find((group) => group.id === move.to)).isLocked).toBe(false);
      }),
    ));

  it('puts a latecomer into the smallest group with room', () => {
    const group = (id: string, members: number, more: Partial<DealtGroup> = {}): DealtGroup => ({
      id: id as GroupId,
      members,
      capacity: 4,
      isLocked: false,
      ...more,
    });
    expect(emptiest([group('a', 4), group('b', 3), group('c', 3)])).toBe('b');
    expect(emptiest([group('a', 1, { isLocked: true }), group('b', 2, { capacity: 2 }), group('c', 3)])).toBe(
      'c',
    );
    expect(emptiest([group('a', 4)])).toBeNull();
    expect(emptiest([])).toBeNull();
  });
});

describe('a place that a student wants', () => {
  const wanted = (more: Partial<WantedPlace> = {}): WantedPlace => ({
    state: 'open',
    from: null,
    to: { isLocked: false, members: 3, capacity: 4 },
    placesElsewhere: 2,
    ...more,
  });

  it('is theirs while there is room and time', () => {
    expect(whyNoPlace(wanted())).toBeNull();
    expect(whyNoPlace(wanted({ to: { isLocked: false, members: 400, capacity: null } }))).toBeNull();
    expect(whyNoPlace(wanted({ from: { isLocked: false, hasHandedIn: false }, to: null }))).toBeNull();
  });

  it('is not, and why', () => {
    expect(whyNoPlace(wanted({ state: 'closed' }))).toEqual({ code: 'closed' });
    expect(whyNoPlace(wanted({ to: { isLocked: true, members: 0, capacity: null } }))).toEqual({
      code: 'locked',
    });
    expect(whyNoPlace(wanted({ from: { isLocked: true, hasHandedIn: false } }))).toEqual({ code: 'locked' });
    expect(whyNoPlace(wanted({ from: { isLocked: false, hasHandedIn: true } }))).toEqual({
      code: 'handed-in',
    });
    const full = sure(
      whyNoPlace(wanted({ to: { isLocked: false, members: 4, capacity: 4 }, placesElsewhere: 1 })),
    );
    expect(sayNoPlace(full, 'Umami')).toBe('Umami is full now. 1 place is left in other groups.');
    expect(sayNoPlace({ code: 'full', placesElsewhere: 0 }, 'Umami')).toContain(
      'your instructor will place you',
    );
  });

  it('can be chosen from its opening up to its closing', () => {
    const times = { opens: 100, closes: 200 };
    expect([99, 100, 199, 200].map((now) => signUpState(times, false, now))).toEqual([
      'not-open-yet',
      'open',
      'open',
      'closed',
    ]);
    expect(signUpState({ opens: null, closes: null }, false, 0)).toBe('open');
    expect(signUpState(times, true, 150)).toBe('frozen');
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { apply, countMembers, groupNumberTyped, inverse, lead, movesOut, movesTo, swap } from './index.js';
import type { Held, Place, Placement, Seat } from './index.js';

const students = ['ada', 'ben', 'cho', 'dia', 'eli', 'fay'] as EnrolmentId[];
const [crock, carboy, amphora] = ['crock', 'carboy', 'amphora'] as GroupId[] as [GroupId, GroupId, GroupId];
const groups = [crock, carboy, amphora];
const seat = (groupId: GroupId, isLeader = false): Seat => ({ groupId, isLeader });
const placed = (...at: (readonly Seat[])[]): Placement =>
  new Map(at.map((seats, index) => [sure(students[index]), seats]));
/** The placement as a set compares: no one's places have an order. */
const plain = (placement: Placement) =>
  [...placement].map(
    ([student, seats]) =>
      [student, seats.map(({ groupId, isLeader }) => `${groupId}${isLeader ? '!' : ''}`).sort()] as const,
  );

/** One leader a group at most, as the Board keeps it. */
const aPlacement = (isExclusive: boolean) =>
  fc
    .tuple(
      fc.array(fc.subarray(groups, isExclusive ? { maxLength: 1 } : {}), {
        minLength: students.length,
        maxLength: students.length,
      }),
      fc.subarray(groups),
    )
    .map(([at, led]): Placement => {
      const leaders = new Map(
        led.flatMap((groupId) =>
          at.some((own) => own.includes(groupId))
            ? [[groupId, at.findIndex((own) => own.includes(groupId))]]
            : [],
        ),
      );
      return placed(
        ...at.map((own, index) => own.map((groupId) => seat(groupId, leaders.get(groupId) === index))),
      );
    });

/** Any act that the Board offers: sending, taking out, swapping, dealing out anew, naming a leader. */
const anAct = (placement: Placement) => {
  const helds = [...placement].flatMap(([student, seats]): Held[] =>
    seats.length === 0 ? [{ student, from: null }] : seats.map(({ groupId }) => ({ student, from: groupId })),
  );
  const pairs = helds.flatMap((one) =>
    helds.flatMap((other) =>
      one.student !== other.student && one.from !== other.from ? [[one, other] as const] : [],
    ),
  );
  return fc.oneof(
    fc.tuple(fc.subarray(helds), fc.constantFrom(...groups, null)).map(([chosen, to]) =>
      movesTo(
        placement,
        chosen.filter((held, at) => chosen.findIndex((each) => each.student === held.student) === at),
        to,
      ),
    ),
    fc.subarray(students).map((chosen): Place => ({ moves: movesOut(placement, chosen) })),
    fc.tuple(fc.constantFrom(...students), fc.constantFrom(...groups)).map(([student, to]): Place => {
      const out = movesOut(placement, [student]);
      return { moves: [...out, { student, from: null, to }] };
    }),
    fc
      .tuple(fc.constantFrom(...helds), fc.boolean())
      .map(([{ student, from }, isLeader]): Place =>
        from === null ? { moves: [] } : lead(placement, student, from, isLeader),
      ),
    ...(pairs.length > 0
      ? [fc.constantFrom(...pairs).map(([one, other]) => swap(placement, one, other))]
      : []),
  );
};
const placementAndAct = (isExclusive: boolean) =>
  aPlacement(isExclusive).chain((placement) => fc.tuple(fc.constant(placement), anAct(placement)));

const applied = (placement: Placement, place: Place, isExclusive = true) => {
  const result = apply(placement, place, isExclusive);
  if (!result.ok) throw new Error(`refused: ${JSON.stringify(result.conflicts)}`);
  return result.placement;
};

describe.each([true, false])('placing students in a set that is exclusive: %s', (isExclusive) => {
  it('gives the placement back, leaders and all, when an act is undone', () =>
    fc.assert(
      fc.property(placementAndAct(isExclusive), ([before, act]) => {
        const after = apply(before, act, isExclusive);
        // Two swapped where one sits already in the other's group: refused as a whole, which only overlapping sets know.
        if (!after.ok) return expect(isExclusive).toBe(false);
        expect(plain(applied(after.placement, inverse(act), isExclusive))).toEqual(plain(before));
      }),
      { numRuns: 400 },
    ));

  it('gives the act back when it is inverted twice', () =>
    fc.assert(
      fc.property(placementAndAct(isExclusive), ([, act]) => expect(inverse(inverse(act))).toEqual(act)),
    ));

  it('keeps every student, no one twice in a group, one leader a group at most', () =>
    fc.assert(
      fc.property(placementAndAct(isExclusive), ([before, act]) => {
        const result = apply(before, act, isExclusive);
        const after = result.ok ? result.placement : before;
        expect([...after.keys()].sort()).toEqual([...students].sort());
        for (const seats of after.values()) {
          expect(new Set(seats.map((each) => each.groupId)).size).toBe(seats.length);
          if (isExclusive) expect(seats.length).toBeLessThanOrEqual(1);
        }
        for (const groupId of groups)
          expect(
            [...after.values()].filter((seats) =>
              seats.some((each) => each.groupId === groupId && each.isLeader),
            ).length,
          ).toBeLessThanOrEqual(1);
        expect([...countMembers(after).values()].reduce((sum, count) => sum + count, 0)).toBe(
          [...after.values()].flat().length,
        );
      }),
    ));
});

describe('an act on the Board', () => {
  it('is refused as a whole when one student was moved meanwhile', () => {
    const before = placed([seat(crock)], [seat(carboy)]);
    const act: Place = {
      moves: [
        { student: sure(students[0]), from: crock, to: amphora },
        { student: sure(students[1]), from: null, to: amphora },
        { student: sure(students[2]), from: null, to: amphora },
      ],
    };
    expect(apply(before, act, true)).toEqual({
      ok: false,
      conflicts: [
        { student: 'ben', expected: null, actual: ['carboy'] },
        { student: 'cho', expected: null, actual: 'not-here' },
      ],
    });
    // Where one may be in several groups, a second place is no conflict; the same place is.
    expect(
      apply(before, { moves: [{ student: sure(students[1]), from: null, to: amphora }] }, false).ok,
    ).toBe(true);
    expect(apply(before, { moves: [{ student: sure(students[1]), from: null, to: carboy }] }, false).ok).toBe(
      false,
    );
  });

  it('changes nothing, not even the object, when no one moves', () => {
    const before = placed([seat(crock)]);
    expect(applied(before, { moves: [{ student: sure(students[0]), from: crock, to: crock }] })).toBe(before);
  });

  it('swaps two students in one step', () => {
    const before = placed([seat(crock)], []);
    const act = swap(
      before,
      { student: sure(students[0]), from: crock },
      { student: sure(students[1]), from: null },
    );
    expect(plain(applied(before, act))).toEqual([
      ['ada', []],
      ['ben', ['crock']],
    ]);
  });

  it('gives a group one leader: who led it does so no longer, and never two at once', () => {
    const before = placed([seat(crock, true)], [seat(crock)]);
    expect(plain(applied(before, lead(before, sure(students[1]), crock, true)))).toEqual([
      ['ada', ['crock']],
      ['ben', ['crock!']],
    ]);
    const unaware: Place = {
      moves: [{ student: sure(students[1]), from: crock, to: crock, leads: { from: false, to: true } }],
    };
    expect(apply(before, unaware, true)).toEqual({
      ok: false,
      conflicts: [{ student: 'ben', expected: crock, actual: [crock] }],
    });
  });

  it('takes the leading from whoever moves away, and undoing gives it back', () => {
    const before = placed([seat(crock, true)]);
    const act = movesTo(before, [{ student: sure(students[0]), from: crock }], carboy);
    expect(plain(applied(before, act))).toEqual([['ada', ['carboy']]]);
    expect(plain(applied(applied(before, act), inverse(act)))).toEqual([['ada', ['crock!']]]);
  });
});

describe('a typed group number', () => {
  it('waits for a second digit only while one could follow', () => {
    expect(groupNumberTyped('1', 12)).toBeNull();
    expect(groupNumberTyped('2', 12)).toBe(2);
    expect(groupNumberTyped('12', 12)).toBe(12);
    expect(groupNumberTyped('13', 12)).toBe('no-such-group');
    expect(groupNumberTyped('1', 9)).toBe(1);
    expect(groupNumberTyped('0', 9)).toBe(0);
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId, GroupId } from '../ids/index.js';
import { apply, countMembers, groupNumberTyped, inverse, movesTo, swap } from './index.js';
import type { Place, Placement } from './index.js';

const students = ['ada', 'ben', 'cho', 'dia', 'eli', 'fay'] as EnrolmentId[];
const places = ['crock', 'carboy', 'amphora', null] as (GroupId | null)[];

const aPlacement = fc
  .array(fc.constantFrom(...places), { minLength: students.length, maxLength: students.length })
  .map((at): Placement => new Map(students.map((student, index) => [student, at[index]!])));

const placementAndCommand = aPlacement.chain((placement) =>
  fc.tuple(
    fc.constant(placement),
    fc.tuple(fc.subarray(students), fc.constantFrom(...places)).map(([chosen, to]): Place => movesTo(placement, chosen, to)),
  ),
);

const applied = (placement: Placement, place: Place) => {
  const result = apply(placement, place);
  if (!result.ok) throw new Error(`refused: ${JSON.stringify(result.conflicts)}`);
  return result.placement;
};

describe('placing students', () => {
  it('gives the placement back when a command is undone', () =>
    fc.assert(fc.property(placementAndCommand, ([before, command]) => expect(applied(applied(before, command), inverse(command))).toEqual(before))));

  it('gives the command back when it is inverted twice', () =>
    fc.assert(fc.property(placementAndCommand, ([, command]) => expect(inverse(inverse(command))).toEqual(command))));

  it('keeps every student in exactly one place', () =>
    fc.assert(
      fc.property(placementAndCommand, ([before, command]) => {
        const after = applied(before, command);
        expect([...after.keys()].sort()).toEqual([...students].sort());
        const unplaced = [...after.values()].filter((group) => group === null).length;
        expect([...countMembers(after).values()].reduce((sum, count) => sum + count, 0) + unplaced).toBe(students.length);
      }),
    ));

  it('refuses all of a command when one student was moved meanwhile', () => {
    const before: Placement = new Map([
      [students[0]!, places[0]!],
      [students[1]!, places[1]!],
    ]);
    const command: Place = {
      moves: [
        { student: students[0]!, from: places[0]!, to: places[2]! },
        { student: students[1]!, from: null, to: places[2]! },
        { student: students[2]!, from: null, to: places[2]! },
      ],
    };
    expect(apply(before, command)).toEqual({
      ok: false,
      conflicts: [
        { student: 'ben', expected: null, actual: 'carboy' },
        { student: 'cho', expected: null, actual: 'not-here' },
      ],
    });
  });

  it('changes nothing, not even the object, when nobody moves', () => {
    const before: Placement = new Map([[students[0]!, places[0]!]]);
    expect(applied(before, { moves: [{ student: students[0]!, from: places[0]!, to: places[0]! }] })).toBe(before);
  });

  it('swaps two students in one step', () => {
    const before: Placement = new Map([
      [students[0]!, places[0]!],
      [students[1]!, null],
    ]);
    expect([...applied(before, swap(before, students[0]!, students[1]!))]).toEqual([
      ['ada', null],
      ['ben', 'crock'],
    ]);
  });

  it('waits for a second digit only while one could follow', () => {
    expect(groupNumberTyped('1', 12)).toBeNull();
    expect(groupNumberTyped('2', 12)).toBe(2);
    expect(groupNumberTyped('12', 12)).toBe(12);
    expect(groupNumberTyped('13', 12)).toBe('no-such-group');
    expect(groupNumberTyped('1', 9)).toBe(1);
    expect(groupNumberTyped('0', 9)).toBe(0);
  });
});

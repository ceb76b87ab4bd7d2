import { expect, it } from '@jest/globals';
import fc from 'fast-check';
import { bitsOf, leastTogether } from './lacking.js';

it('counts the half-days of a mask', () => expect([0, 1, 6, 1023].map(bitsOf)).toEqual([0, 1, 2, 10]));

/** Every way to part these into groups of these sizes; anyone who has no seat is left over. */
function* ways(left: readonly number[], sizes: readonly number[]): Generator<number[][]> {
  const [size, ...more] = sizes;
  if (size === undefined) return yield [];
  for (const chosen of choose(left, size)) {
    const rest = [...left];
    for (const one of chosen) rest.splice(rest.indexOf(one), 1);
    for (const others of ways(rest, more)) yield [chosen, ...others];
  }
}
function* choose(from: readonly number[], count: number): Generator<number[]> {
  if (count === 0) return yield [];
  for (const [at, one] of from.entries())
    for (const rest of choose(from.slice(at + 1), count - 1)) yield [one, ...rest];
}

it('is the least that any parting costs, held against all of them', () =>
  fc.assert(
    fc.property(
      fc.array(fc.nat(3), { minLength: 2, maxLength: 7 }),
      fc.constantFrom([2, 2], [3, 2], [3, 1, 2], [4], [1, 1, 2]),
      (lacks, sizes) => {
        if (sizes.reduce((sum, size) => sum + size, 0) > lacks.length) return;
        const costs = [...ways(lacks, sizes)].map((groups) =>
          groups.reduce((sum, group) => sum + (group.length > 1 ? Math.max(...group) : 0), 0),
        );
        const most = lacks.toSorted((a, b) => b - a);
        expect(leastTogether(most, sizes)).toBe(Math.min(...costs));
      },
    ),
  ));

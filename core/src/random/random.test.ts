import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import { shuffled } from './index.js';

describe('a shuffle', () => {
  it('keeps everyone, and is the same for the same seed', () =>
    fc.assert(
      fc.property(fc.array(fc.integer()), fc.nat(), (items, seed) => {
        expect([...shuffled(items, seed)].sort()).toEqual([...items].sort());
        expect(shuffled(items, seed)).toEqual(shuffled(items, seed));
      }),
    ));

  it('puts each of four in each place about as often, also for seeds in a row', () => {
    const counts = Array.from({ length: 4 }, () => [0, 0, 0, 0]);
    for (let seed = 0; seed < 4000; seed += 1)
      shuffled([0, 1, 2, 3], seed).forEach((item, place) => {
        const places = sure(counts[item]);
        places[place] = sure(places[place]) + 1;
      });
    for (const count of counts.flat()) expect(Math.abs(count - 1000)).toBeLessThan(130); // over four deviations
  });

  it('is this one for seed 4127', () =>
    expect(shuffled([1, 2, 3, 4, 5, 6, 7, 8], 4127)).toEqual([7, 6, 4, 8, 3, 1, 2, 5]));
});

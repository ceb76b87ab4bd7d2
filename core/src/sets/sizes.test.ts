import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { fillRoom, sayForecast, sizesByCount, sizesBySize } from './index.js';

const sizesOf = (forecast: ReturnType<typeof sizesByCount>) => (forecast.ok ? forecast.sizes : forecast.code);

describe('sizes of groups', () => {
  it('spreads 27 students over 5 groups as 6 6 5 5 5', () =>
    expect(sizesOf(sizesByCount(27, 5))).toEqual([6, 6, 5, 5, 5]));
  it('spreads 27 students in sixes as 6 6 5 5 5', () =>
    expect(sizesOf(sizesBySize(27, 6))).toEqual([6, 6, 5, 5, 5]));
  it('fills 27 students in sixes as 6 6 6 6 3', () =>
    expect(sizesOf(sizesBySize(27, 6, 'fill'))).toEqual([6, 6, 6, 6, 3]));
  it('makes eleven groups of 4 and two of 3 of 50 students in fours', () =>
    expect(sizesOf(sizesBySize(50, 4))).toEqual([...Array<number>(11).fill(4), 3, 3]));
  it('refuses no groups, no size and parts of a student', () => {
    expect(sizesOf(sizesByCount(10, 0))).toBe('count-not-positive');
    expect(sizesOf(sizesBySize(10, 0))).toBe('size-not-positive');
    expect(sizesOf(sizesByCount(10, -2))).toBe('count-not-positive');
    expect(sizesOf(sizesByCount(10, 2.5))).toBe('not-whole');
    expect(sizesOf(sizesBySize(10.5, 2))).toBe('not-whole');
  });
  it('allows more groups than students and counts the empty ones', () =>
    expect(sizesByCount(2, 5)).toEqual({ ok: true, sizes: [1, 1, 0, 0, 0], emptyGroups: 3 }));

  it('always places everyone, as evenly as can be, larger groups first', () =>
    fc.assert(
      fc.property(fc.nat(500), fc.integer({ min: 1, max: 80 }), (students, groups) => {
        const sizes = sizesOf(sizesByCount(students, groups)) as number[];
        expect(sizes.reduce((sum, size) => sum + size, 0)).toBe(students);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
      }),
    ));

  it('never makes a group larger than the size asked for', () =>
    fc.assert(
      fc.property(
        fc.nat(500),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom('spread' as const, 'fill' as const),
        (students, size, how) => {
          const sizes = sizesOf(sizesBySize(students, size, how)) as number[];
          expect(Math.max(...sizes)).toBeLessThanOrEqual(size);
          expect(sizes.reduce((sum, each) => sum + each, 0)).toBe(students);
        },
      ),
    ));

  it('fills existing groups towards equal size and says who finds no room', () => {
    expect(
      fillRoom(
        [
          { members: 1, capacity: 4 },
          { members: 3, capacity: 3 },
          { members: 0, capacity: 2 },
        ],
        6,
      ),
    ).toEqual({
      sizes: [4, 3, 2],
      unplaced: 1,
    });
    expect(fillRoom([], 3)).toEqual({ sizes: [], unplaced: 3 });
  });

  it('says a forecast in words', () => {
    expect(sayForecast([4, 4, 4])).toBe('3 groups of 4');
    expect(sayForecast([6, 6, 5, 5, 5])).toBe('5 groups: 2 of 6, 3 of 5');
    expect(sayForecast([7])).toBe('1 group of 7');
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { groupedBy, keyedBy, only, shifted } from './index.js';

describe('lists by a key', () => {
  it('hold each item once, under its own key, in the order given', () =>
    fc.assert(
      fc.property(fc.array(fc.integer()), (items) => {
        const keyOf = (item: number) => Math.abs(item % 3);
        const byKey = groupedBy(items, keyOf);
        for (const key of [0, 1, 2])
          expect(byKey.get(key) ?? []).toEqual(items.filter((item) => keyOf(item) === key));
      }),
    ));

  it('leave out what is not named', () =>
    expect(only({ name: 'Benches', capacity: null, version: 3 }, ['name', 'capacity'])).toEqual({
      name: 'Benches',
      capacity: null,
    }));

  it('keep the later of two with one key', () =>
    expect(keyedBy(['a1', 'b1', 'a2'], (item) => item[0])).toEqual(
      new Map([
        ['a', 'a2'],
        ['b', 'b1'],
      ]),
    ));

  it('move one item to the place of its neighbour', () => {
    expect(shifted(['a', 'b', 'c'], 2, -1)).toEqual(['a', 'c', 'b']);
    expect(shifted(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c']);
  });
});

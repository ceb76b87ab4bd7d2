import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { whereTheyFit } from './index.js';
import type { FittingGroup } from './index.js';

const classOf = new Map([['Lab', new Map(Object.entries({ none: 4, some: 4 }))]]);
const group = (id: string, labs: string[], more: Partial<FittingGroup> = {}): FittingGroup => ({
  id: id as GroupId,
  members: labs.length,
  capacity: 4,
  isLocked: false,
  values: { Lab: labs },
  ...more,
});
const comer = (...labs: string[]) => ({ count: labs.length, values: { Lab: labs } });

describe('where newcomers fit', () => {
  it('is first where they even the mix out, and says so', () => {
    const fits = whereTheyFit(
      [group('a', ['some', 'some']), group('b', ['none', 'none']), group('c', ['some'])],
      comer('none'),
      classOf,
    );
    expect(fits.map((fit) => [fit.id, fit.free, fit.evens, fit.tilts])).toEqual([
      ['a', 2, ['Lab'], []],
      ['c', 3, ['Lab'], []],
      ['b', 2, [], ['Lab']],
    ]);
  });

  it('is nowhere that is locked or has no room for all of them', () => {
    const groups = [
      group('a', ['some', 'some', 'some']),
      group('b', [], { isLocked: true }),
      group('c', ['some', 'some']),
    ];
    expect(whereTheyFit(groups, comer('none', 'none'), classOf).map((fit) => fit.id)).toEqual(['c']);
    expect(
      sure(
        whereTheyFit(
          [group('a', ['some', 'some', 'some', 'some'], { capacity: null })],
          comer('none'),
          classOf,
        )[0],
      ).free,
    ).toBeNull();
  });

  it('is the smallest group where nothing is known of anybody', () =>
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 5 }), { minLength: 1, maxLength: 8 }), (sizes) => {
        const groups = sizes.map((members, at): FittingGroup => ({
          id: `g${at}` as GroupId,
          members,
          capacity: 6,
          isLocked: false,
          values: {},
        }));
        const [best] = whereTheyFit(groups, { count: 1, values: {} }, new Map());
        expect(sizes[Number(sure(best).id.slice(1))]).toBe(Math.min(...sizes));
      }),
    ));
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { GroupId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { meterOf, sizeMeter } from './index.js';
import type { MeasuredGroup } from './index.js';

const groups = (...values: (string | undefined)[][]): MeasuredGroup[] =>
  values.map((each, at) => ({ id: `g${at}` as GroupId, name: `G${at}`, values: each }));
const out = (meter: ReturnType<typeof meterOf>) => sure(meter).bars.map((bar) => bar.isOut);

describe('balance', () => {
  it('of a category is the distance from the mix of the class', () => {
    const even = sure(meterOf('category', groups(['a', 'b'], ['b', 'a'], [])));
    expect(even).toMatchObject({ goal: 1, finding: 'All mixed like the class' });
    expect(even.bars.map((bar) => bar.value)).toEqual([0, 0, null]);
    const uneven = meterOf(
      'category',
      groups(['a', 'a', 'a', 'a'], ['b', 'b', 'b', 'b'], ['a', 'b', undefined]),
    );
    expect(out(uneven)).toEqual([true, true, false]);
    expect(sure(uneven).finding).toBe('1 of 3 mixed like the class');
    expect(meterOf('category', groups(['a'], ['a']))).toBeNull();
  });

  it('of a number is the mean beside that of the class', () => {
    const meter = sure(meterOf('number', groups(['1', '1'], ['2', '2,0'], ['9', 'many'])));
    expect(meter.bars.map((bar) => bar.value)).toEqual([1, 2, 9]);
    expect([meter.goal, out(meter), meter.finding]).toEqual([
      3,
      [true, false, true], // half a standard deviation is 1.5
      'Means from 1 to 9, class 3',
    ]);
    expect(meterOf('number', groups(['3'], ['3']))).toBeNull();
  });

  it('of half-days is what a group has free together', () => {
    const meter = sure(
      meterOf('half-days', groups(['Mon, Tue am', 'Tue am, Wed'], ['Mon am', 'Tue am'], ['Mon am'])),
    );
    expect(meter.bars.map((bar) => bar.value)).toEqual([1, 0, null]);
    expect([out(meter), meter.finding]).toEqual([[false, true, false], 'G1 shares none']);
    expect(sure(meterOf('half-days', groups(['Mon', 'Mon']))).finding).toBe('Each shares 2 or more');
  });

  it('of sizes tells who is over and what is free', () => {
    const size = (members: number, capacity: number | null, at: number) => ({
      id: `g${at}` as GroupId,
      name: `G${at}`,
      members,
      capacity,
    });
    expect(sizeMeter([size(5, 4, 0), size(3, 4, 1)])).toMatchObject({
      goal: 4,
      finding: 'G0 1 over · 1 free place',
      bars: [{ isOut: true }, { isOut: false }],
    });
    expect(sizeMeter([size(5, null, 0), size(3, null, 1)])).toMatchObject({
      goal: 4,
      finding: '3 to 5 members',
    });
    expect(sizeMeter([size(4, 4, 0)]).finding).toBe('no free place');
  });

  it('is not told of text, and whole people can always be spread evenly over groups of one kind each', () => {
    expect(meterOf('text', groups(['x']))).toBeNull();
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 2, max: 6 }), (each, count) => {
        const meter = meterOf(
          'category',
          groups(
            ...Array.from({ length: count }, () => [
              ...Array<string>(each).fill('a'),
              ...Array<string>(each).fill('b'),
            ]),
          ),
        );
        expect(sure(meter).bars.every((bar) => bar.value === 0 && !bar.isOut)).toBe(true);
      }),
    );
  });
});

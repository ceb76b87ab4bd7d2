import { expect, it } from '@jest/globals';
import { meansOfGroups } from './index.js';

it('calls a group near within half a standard deviation of the class, and measures only numbers', () => {
  // 2 and 6 around 4: one standard deviation is 2, so near is from 3 to 5.
  const means = meansOfGroups([['2', '6'], ['2', '2', '6', '6'], ['2'], ['much', undefined]]);
  expect(means?.mean).toBeCloseTo(26 / 7);
  expect(means?.groups.map((group) => group.isNear)).toEqual([true, true, false, true]);
  expect(means?.groups.at(-1)).toEqual({ mean: null, isNear: true });
  expect(meansOfGroups([['none'], []])).toBeNull();
  expect(meansOfGroups([['3'], ['3']])).toMatchObject({
    deviation: 0,
    groups: [{ isNear: true }, { isNear: true }],
  });
});

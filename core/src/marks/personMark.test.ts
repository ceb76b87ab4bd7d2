import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { personMark } from './index.js';

const shared = { groupMark: '31.5', lateDeduction: '2', max: '40', shareWeight: '0.5' };

describe("from the group's mark to a person's", () => {
  it.each([
    ['1.241379310344827586', '33.06'],
    ['1.1932', '32.35'],
    ['1.0877', '30.79'],
    ['0.5', '22.13'],
  ])('gives a share of %s the mark %s', (shareFactor, mark) =>
    expect(personMark({ ...shared, shareFactor }).mark).toBe(mark),
  );

  it('adds an adjustment after the share', () =>
    expect(
      personMark({
        ...shared,
        shareFactor: '0.5',
        adjustment: { kind: 'adjusted', by: '1.5', reason: 'Ill for a week' },
      }).mark,
    ).toBe('23.63'));

  it('tells how the mark came about, in order', () =>
    expect(
      personMark({
        groupMark: '39',
        lateDeduction: '4',
        max: '40',
        adjustment: { kind: 'adjusted', by: '6', reason: 'Led it' },
      }),
    ).toEqual({
      mark: '40',
      steps: [
        { code: 'group-mark', mark: '39', max: '40' },
        { code: 'late', deduction: '4' },
        { code: 'adjusted', by: '6', reason: 'Led it' },
        { code: 'held-at', bound: '40' },
      ],
    }));

  it('lets a separate mark replace all of it, and an excuse give none', () => {
    expect(
      personMark({ ...shared, adjustment: { kind: 'separate', mark: '12', reason: 'Joined late' } }).mark,
    ).toBe('12');
    expect(personMark({ ...shared, adjustment: { kind: 'excused', reason: 'Ill' } }).mark).toBeNull();
  });

  it('gives no mark, not a zero, while the group has none', () =>
    expect(personMark({ ...shared, groupMark: null }).mark).toBeNull());

  it('rounds once, half away from zero', () =>
    expect(personMark({ groupMark: '10.005', lateDeduction: '0', max: '20' }).mark).toBe('10.01'));

  it('stays between nothing and the points', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4000 }),
        fc.integer({ min: -8000, max: 8000 }),
        (groupMark, by) => {
          const { mark } = personMark({
            groupMark: String(groupMark / 100),
            lateDeduction: '0',
            max: '40',
            adjustment: { kind: 'adjusted', by: String(by / 100), reason: 'why' },
          });
          expect(Number(mark)).toBeGreaterThanOrEqual(0);
          expect(Number(mark)).toBeLessThanOrEqual(40);
        },
      ),
    ));
});

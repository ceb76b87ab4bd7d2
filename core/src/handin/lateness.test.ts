import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lateness, sayLatePolicy, sayMinutes } from './index.js';

const tenPercentADay = { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 };
const minute = 60_000;
const lateBy = (minutes: number) => lateness(minutes * minute, 0, tenPercentADay, '40');

describe('lateness', () => {
  it.each([
    [15, '0'],
    [2 * 60 + 40, '4'],
    [28 * 60 + 5, '8'],
    [9 * 1440, '20'],
  ])('takes for %i minutes late %s points of 40', (minutes, deduction) =>
    expect(lateBy(minutes).deduction).toBe(deduction),
  );
  it('begins the next period with the minute after a whole one, not with its last', () => {
    expect(lateBy(1440)).toMatchObject({ periodsBegun: 1, deduction: '4' });
    expect(lateBy(1441)).toMatchObject({ periodsBegun: 2, deduction: '8' });
  });
  it('counts all of the delay once grace is over', () =>
    expect(lateBy(16)).toEqual({ minutes: 16, periodsBegun: 1, deduction: '4' }));
  it('never calls early work, or work without a due date, late', () => {
    expect(lateness(0, minute, tenPercentADay, '40').minutes).toBe(0);
    expect(lateness(0, null, tenPercentADay, '40').minutes).toBe(0);
  });
  it('leaves out the minute that has only begun', () =>
    expect(lateness(15 * minute + 59_999, 0, tenPercentADay, '40').minutes).toBe(0));
  it('never takes less for being later, nor more than the cap', () =>
    fc.assert(
      fc.property(fc.nat(30_000), fc.nat(30_000), (one, more) => {
        const sooner = Number(lateBy(one).deduction);
        const later = Number(lateBy(one + more).deduction);
        expect(later).toBeGreaterThanOrEqual(sooner);
        expect(later).toBeLessThanOrEqual(20);
      }),
    ));
  it('says a delay in days, hours and minutes', () => {
    expect(sayMinutes(28 * 60 + 5)).toBe('1 d 4 h 5 min');
    expect(sayMinutes(0)).toBe('0 min');
  });
  it('says what it costs as it is computed', () => {
    expect(sayLatePolicy(tenPercentADay)).toBe(
      'Up to 15 min late costs nothing. After that, late work loses 10 % of the points per day started, up to 50 %, counted from the due time.',
    );
    expect(sayLatePolicy({ graceMinutes: 0, stepPercent: 5, periodMinutes: 90, capPercent: 100 })).toBe(
      'Late work loses 5 % of the points per 1 h 30 min started.',
    );
    expect(sayLatePolicy({ ...tenPercentADay, stepPercent: 0 })).toBe('Late work loses no points.');
  });
});

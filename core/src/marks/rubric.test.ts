import { describe, expect, it } from '@jest/globals';
import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import { isOverride, levelOf, markFrom, mostOf, rubricMark } from './index.js';
import type { Criterion, Picks, Rubric } from './index.js';

const levels = (...points: readonly string[]) =>
  points.map((each, at) => ({ id: `l${at}`, name: `Level ${at}`, description: '', points: each }));
const criterion = (id: string, weight: string, ...points: readonly string[]): Criterion => ({
  id,
  name: id,
  description: '',
  weight,
  levels: levels(...points),
});
const given = (points: Readonly<Record<string, string | null>>): Picks =>
  Object.fromEntries(Object.entries(points).map(([id, each]) => [id, { points: each, comment: '' }]));

const three: Rubric = {
  criteria: [
    criterion('method', '2', '1', '3', '4'),
    criterion('data', '1', '2', '4'),
    criterion('writing', '1', '3', '5'),
  ],
};

describe('a rubric’s mark', () => {
  it('weighs the criteria: 2, 1, 1 with 3/4, 4/4 and 3.5/5 of 40 is 32', () =>
    expect(rubricMark(three, given({ method: '3', data: '4', writing: '3.5' }), '40')).toBe('32'));
  it('is no mark while a criterion is unpicked, never a silent zero', () => {
    expect(rubricMark(three, given({ method: '3', data: '4' }), '40')).toBeNull();
    expect(rubricMark(three, given({ method: '3', data: '4', writing: null }), '40')).toBeNull();
    expect(rubricMark(three, given({ method: '0', data: '0', writing: '0' }), '40')).toBe('0');
  });
  it('rounds once: three thirds are the whole', () => {
    const thirds: Rubric = { criteria: ['a', 'b', 'c'].map((id) => criterion(id, '1', '1', '3')) };
    expect(rubricMark(thirds, given({ a: '1', b: '1', c: '1' }), '10')).toBe('3.33');
    expect(rubricMark(thirds, given({ a: '3', b: '3', c: '3' }), '10')).toBe('10');
  });
  it('stands in a level, between two of them in the upper one', () => {
    const method = sure(three.criteria[0]);
    expect(
      [null, '0', '1', '2', '3', '3.5', '4'].map((points) => levelOf(method, points)?.points ?? null),
    ).toEqual([null, '1', '1', '3', '3', '4', '4']);
    expect(mostOf(method)).toBe('4');
  });
  it('gives way to what the marker typed, which then needs a reason', () => {
    const picks = given({ method: '3', data: '4', writing: '3.5' });
    expect(markFrom({ rubric: three, picks, points: '40', typed: null })).toBe('32');
    expect(markFrom({ rubric: three, picks, points: '40', typed: '35' })).toBe('35');
    expect(markFrom({ rubric: null, picks: {}, points: '40', typed: null })).toBeNull();
    expect([
      isOverride({ rubric: three, typed: '35' }),
      isOverride({ rubric: three, typed: null }),
      isOverride({ rubric: null, typed: '35' }),
    ]).toEqual([true, false, false]);
  });
});

const halves = (most: number) =>
  fc.integer({ min: 0, max: most * 2 }).map((count) => new Decimal(count).div(2).toString());
const aMarkedRubric = fc
  .array(
    fc.record({
      weight: fc.integer({ min: 1, max: 9 }).map((tenths) => new Decimal(tenths).div(10).toString()),
      most: fc.integer({ min: 1, max: 10 }),
    }),
    {
      minLength: 1,
      maxLength: 8,
    },
  )
  .chain((criteria) =>
    fc.record({
      rubric: fc.constant<Rubric>({
        criteria: criteria.map(({ weight, most }, at) => criterion(`c${at}`, weight, '0', String(most))),
      }),
      points: fc.tuple(...criteria.map(({ most }) => halves(most))),
      outOf: fc.integer({ min: 1, max: 100 }).map(String),
    }),
  );

describe('a sum that stands on the half', () => {
  it('is rounded up even where a third is in it: 42 · (0.6 · 0.5/8 + 0.4 · 1/3) is 7.175', () => {
    const criterion = (name: string, weight: string, most: string) => ({
      id: name,
      name,
      description: '',
      weight,
      levels: ['0', most].map((points) => ({ id: points, name: points, description: '', points })),
    });
    const rubric = { criteria: [criterion('a', '0.6', '8'), criterion('b', '0.4', '3')] };
    expect(rubricMark(rubric, given({ a: '0.5', b: '1' }), '42')).toBe('7.18');
  });
});

describe('rubric sums over generated rubrics', () => {
  it('lie between 0 and the points, and are exact in fractions up to the one rounding', () =>
    fc.assert(
      fc.property(aMarkedRubric, ({ rubric, points, outOf }) => {
        const mark = sure(
          rubricMark(rubric, given(Object.fromEntries(points.map((each, at) => [`c${at}`, each]))), outOf),
        );
        // The same sum in whole numbers: points are halves, weights tenths, so that nothing is lost before the division.
        let numerator = 0n;
        let denominator = 1n;
        for (const [at, each] of points.entries()) {
          const most = BigInt(mostOf(sure(rubric.criteria[at])));
          const weight = BigInt(new Decimal(sure(rubric.criteria[at]).weight).times(10).toString());
          numerator =
            numerator * (2n * most) + weight * BigInt(new Decimal(each).times(2).toString()) * denominator;
          denominator *= 2n * most;
        }
        const weights = BigInt(
          rubric.criteria
            .reduce((sum, each) => sum.plus(each.weight), new Decimal(0))
            .times(10)
            .toString(),
        );
        const hundredths = numerator * BigInt(outOf) * 200n + denominator * weights; // rounded half up by adding a half
        expect(new Decimal(mark).times(100).toString()).toBe(
          String(hundredths / (2n * denominator * weights)),
        );
        expect(Number(mark)).toBeGreaterThanOrEqual(0);
        expect(Number(mark)).toBeLessThanOrEqual(Number(outOf));
      }),
    ));

  it('never fall when a criterion is given more', () =>
    fc.assert(
      fc.property(aMarkedRubric, fc.nat(), ({ rubric, points, outOf }, which) => {
        const at = which % points.length;
        const mark = (all: readonly string[]) =>
          Number(
            rubricMark(
              rubric,
              given(Object.fromEntries(all.map((each, index) => [`c${index}`, each]))),
              outOf,
            ),
          );
        expect(mark(points.with(at, mostOf(sure(rubric.criteria[at]))))).toBeGreaterThanOrEqual(mark(points));
      }),
    ));
});

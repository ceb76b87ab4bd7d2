import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { guardFormula, unguardFormula } from './index.js';

describe('a cell that a spreadsheet would run', () => {
  it.each(['=1+1', '+1', '-1', '@SUM(A1)', '\t=1', '\r=1', '＝1', '＋1', '－1', '＠x'])(
    'is guarded: %j',
    (cell) => expect(guardFormula(cell)).toBe(`'${cell}`),
  );

  it('is guarded also where it has a sign before it already, and others stay as they are', () => {
    expect(guardFormula("'=1")).toBe("''=1");
    expect(guardFormula('1 = 1')).toBe('1 = 1');
    expect(guardFormula("'tis")).toBe("'tis");
  });

  it('comes back as it was', () =>
    fc.assert(fc.property(fc.string(), (cell) => expect(unguardFormula(guardFormula(cell))).toBe(cell))));
});

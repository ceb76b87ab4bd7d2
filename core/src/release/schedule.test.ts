import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { datesFor } from './schedule.js';

const all = { opens: 0, due: 100, closes: 200 };
const dates = (due: number, closes: number | null = null) => {
  const { why, ...found } = datesFor(all, { due, closes });
  return [found.due, found.closes, why.due, why.closes];
};

describe('the dates of a copy', () => {
  it('are everyone’s, unless its group was granted others', () => {
    expect(datesFor(all, null)).toEqual({ ...all, why: { due: 'all', closes: 'all' } });
    expect(dates(150)).toEqual([150, 200, 'extension', 'all']);
    expect(dates(50)).toEqual([50, 200, 'extension', 'all']);
  });

  it('close when the group’s extension says so, sooner or later than for all', () => {
    expect(dates(150, 300)).toEqual([150, 300, 'extension', 'extension']);
    expect(dates(150, 160)).toEqual([150, 160, 'extension', 'extension']);
  });

  it('never close before the work is due', () => {
    expect(dates(250)).toEqual([250, 250, 'extension', 'held-open']);
    expect(dates(250, 240)).toEqual([250, 250, 'extension', 'held-open']);
    expect(datesFor({ ...all, closes: null }, { due: 900, closes: null }).closes).toBeNull();
  });

  it('come in their order, whatever was granted', () =>
    fc.assert(
      fc.property(fc.nat(), fc.option(fc.nat()), fc.option(fc.nat()), (due, closes, ofAll) => {
        const found = datesFor({ opens: null, due: null, closes: ofAll }, { due, closes });
        expect(found.closes === null || found.closes >= due).toBe(true);
      }),
    ));
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Extension, Schedule } from './facts.js';
import { datesFor } from './schedule.js';

const all = { opens: 0, due: 100, closes: 200 };
const dates = (due: number, closes: number | null = null) => {
  const { why, ...found } = datesFor(all, { due, closes });
  return [found.due, found.closes, why.due, why.closes];
};

describe('the dates of a copy', () => {
  it('are everyone’s, unless its group was granted others', () => {
    expect(datesFor(all, null)).toEqual({ ...all, why: { due: 'all', closes: 'all' } });
    expect(dates(150)).toEqual([150, 200, 'group', 'all']);
    expect(dates(50)).toEqual([50, 200, 'group', 'all']);
  });

  it('close when the group’s extension says so, sooner or later than for all', () => {
    expect(dates(150, 300)).toEqual([150, 300, 'group', 'group']);
    expect(dates(150, 160)).toEqual([150, 160, 'group', 'group']);
  });

  it('never close before the work is due', () => {
    expect(dates(250)).toEqual([250, 250, 'group', 'held-open']);
    expect(dates(250, 240)).toEqual([250, 250, 'group', 'held-open']);
    expect(datesFor({ ...all, closes: null }, { due: 900, closes: null }).closes).toBeNull();
  });

  it('are a student’s own where that is later than their group’s', () => {
    const own = (due: number, closes: number | null, ofGroup: Extension | null) => {
      const { why, ...found } = datesFor(all, ofGroup, { due, closes });
      return [found.due, found.closes, why.due, why.closes];
    };
    expect(own(150, null, null)).toEqual([150, 200, 'student', 'all']);
    expect(own(50, null, null)).toEqual([50, 200, 'student', 'all']);
    expect(own(150, 300, { due: 170, closes: null })).toEqual([170, 300, 'group', 'student']);
    expect(own(180, null, { due: 170, closes: 400 })).toEqual([180, 400, 'student', 'group']);
    expect(own(170, null, { due: 170, closes: null })[2]).toBe('group');
    expect(own(250, null, { due: 170, closes: null })).toEqual([250, 250, 'student', 'held-open']);
    expect(
      datesFor({ ...all, closes: null }, { due: 110, closes: 120 }, { due: 105, closes: null }).closes,
    ).toBeNull();
  });

  const granted = fc.record({ due: fc.nat(9), closes: fc.option(fc.nat(9)) });
  it('come in their order, each the later of what applies, with the reason that gave it', () =>
    fc.assert(
      fc.property(fc.option(fc.nat(9)), fc.option(granted), fc.option(granted), (ofAll, ofGroup, own) => {
        const schedule: Schedule = { opens: null, due: 5, closes: ofAll };
        const found = datesFor(schedule, ofGroup, own);
        // The rule in its plainest form: each that applies alone, and the later of their dates.
        const alone = [ofGroup, own].flatMap((each) => (each ? [datesFor(schedule, each)] : []));
        const never = 99;
        const dues = alone.map(({ due }) => due ?? never);
        const closings = alone.map(({ closes }) => closes ?? never);
        expect(found.due).toBe(alone.length === 0 ? 5 : Math.max(...dues));
        expect(found.closes ?? never).toBe(alone.length === 0 ? (ofAll ?? never) : Math.max(...closings));
        if (found.closes !== null && alone.length > 0)
          expect(found.closes).toBeGreaterThanOrEqual(found.due ?? 0);
        const gave = { all: 5, group: ofGroup?.due, student: own?.due, 'held-open': undefined };
        expect(found.due).toBe(gave[found.why.due]);
      }),
    ));
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { absentAfterMs, callFacts, callRules, daysOf, endOf, lasting } from './index.js';
import { mayAct } from '../release/index.js';

const minute = 60_000;
const visit = (name: string, from: number, to: number, left: number | null = to * minute) => ({ name, from: from * minute, seen: to * minute, left }); // prettier-ignore

describe('a visit', () => {
  it('ends when someone leaves, or when they were not heard of for a while', () => {
    expect(endOf({ seen: 10, left: 12 }, 1_000_000)).toBe(12);
    expect(endOf({ seen: 10, left: null }, 10 + absentAfterMs)).toBeNull();
    expect(endOf({ seen: 10, left: null }, 11 + absentAfterMs)).toBe(10);
  });

  it('is made by members and staff, in the class or in each group, and never by readers', () => {
    expect(callFacts.modes({})).toEqual(['own', 'common']);
    const may = (part: 'member' | 'staff' | 'reader', access: 'open' | 'read-only' = 'open') => mayAct(callRules, 'step-in', { access, part }); // prettier-ignore
    expect([may('member'), may('staff'), may('reader'), may('member', 'read-only')]).toEqual([true, true, false, false]); // prettier-ignore
  });
});

describe('how long anyone was there', () => {
  it('counts those who were there together once', () => {
    expect(lasting([visit('A', 0, 30), visit('B', 10, 40), visit('C', 60, 70)], 100 * minute)).toBe(
      50 * minute,
    );
  });

  it('is the number of minutes in which a plain count finds someone', () => {
    const some = fc.array(fc.tuple(fc.nat(60), fc.nat(30)), { maxLength: 12 });
    fc.assert(
      fc.property(some, (spans) => {
        const visits = spans.map(([from, long]) => visit('A', from, from + long));
        let plain = 0;
        for (let at = 0; at < 100; at += 1)
          if (spans.some(([from, long]) => at >= from && at < from + long)) plain += 1;
        expect(lasting(visits, 200 * minute)).toBe(plain * minute);
      }),
    );
  });

  it('is told by day, the newest first, with everyone who came', () => {
    const day = (at: number) => (at < 100 * minute ? 'Mon' : 'Tue');
    const days = daysOf([visit('A', 0, 30), visit('B', 120, 130), visit('B', 10, 20), visit('A', 125, 128)], 300 * minute, day); // prettier-ignore
    expect(days.map(({ day: name, names, ms }) => ({ name, names, minutes: ms / minute }))).toEqual([
      { name: 'Tue', names: ['B', 'A'], minutes: 10 },
      { name: 'Mon', names: ['A', 'B'], minutes: 30 },
    ]);
  });
});

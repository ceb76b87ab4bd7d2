import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { inOrder, stateAt, transition } from './index.js';
import type { ReleaseEvent, ReleaseState } from './index.js';

const live: ReleaseState = { state: 'live', since: 5 };

describe('the steps of a release', () => {
  it('goes live at once, or waits for its moment', () => {
    expect(transition({ state: 'draft' }, { type: 'released', at: 5, goesLiveAt: null })).toEqual({
      ok: true,
      state: live,
    });
    expect(transition({ state: 'draft' }, { type: 'released', at: 5, goesLiveAt: 9 })).toEqual({
      ok: true,
      state: { state: 'scheduled', goesLiveAt: 9 },
    });
  });
  it('can be withdrawn and released again', () => {
    expect(transition(live, { type: 'withdrawn', at: 7 })).toEqual({
      ok: true,
      state: { state: 'withdrawn', since: 7 },
    });
    expect(
      transition({ state: 'withdrawn', since: 7 }, { type: 'released', at: 8, goesLiveAt: null }).ok,
    ).toBe(true);
  });
  it('refuses steps that lead nowhere', () => {
    expect(transition({ state: 'draft' }, { type: 'withdrawn', at: 1 }).ok).toBe(false);
    expect(transition(live, { type: 'released', at: 6, goesLiveAt: null }).ok).toBe(false);
    expect(transition(live, { type: 'reopened', at: 6 }).ok).toBe(false);
  });
  it('keeps dates in order', () => {
    expect(inOrder({ opens: 1, due: 2, closes: 3 })).toBe(true);
    expect(inOrder({ opens: 3, due: null, closes: 2 })).toBe(false);
    expect(inOrder({ opens: null, due: null, closes: null })).toBe(true);
    expect(inOrder({ opens: 1, due: 1, closes: 1 })).toBe(true);
  });
});

/** Where each step leads, from where it may be taken. */
const leads: Readonly<Record<ReleaseEvent['type'], Partial<Record<ReleaseState['state'], readonly ReleaseState['state'][]>>>> = {
  released: { draft: ['live', 'scheduled'], withdrawn: ['live', 'scheduled'] },
  withdrawn: { live: ['withdrawn'], scheduled: ['withdrawn'], closed: ['withdrawn'] },
  closed: { live: ['closed'] },
  reopened: { closed: ['live'] },
}; // prettier-ignore

describe('whatever is done to a release, in whatever order', () => {
  const moment = fc.nat(100);
  const event: fc.Arbitrary<ReleaseEvent> = fc.oneof(
    fc.record({ type: fc.constant('released' as const), at: moment, goesLiveAt: fc.option(moment) }),
    fc.record({ type: fc.constantFrom('withdrawn' as const, 'closed' as const, 'reopened' as const), at: moment }), // prettier-ignore
  );
  const inTime = fc.array(event, { maxLength: 12 }).map((events) => events.toSorted((a, b) => a.at - b.at));

  it('takes the steps that lead somewhere and no others, each at its own moment', () => {
    fc.assert(
      fc.property(inTime, (events) => {
        let state: ReleaseState = { state: 'draft' };
        for (const each of events) {
          const next = transition(state, each);
          const ways = leads[each.type][state.state];
          expect(next.ok).toBe(ways !== undefined);
          if (!next.ok) continue;
          expect(ways).toContain(next.state.state);
          if (next.state.state === 'scheduled') expect(next.state.goesLiveAt).toBeGreaterThan(each.at);
          else if (next.state.state !== 'draft') expect(next.state.since).toBe(each.at);
          state = next.state;
        }
      }),
      { numRuns: 500 },
    );
  });

  it('goes forward alone as time passes: from scheduled to live to closed, and never back', () => {
    const order = ['draft', 'withdrawn', 'scheduled', 'live', 'closed'];
    fc.assert(
      fc.property(inTime, fc.option(moment), moment, moment, (events, closes, one, other) => {
        const state = events.reduce<ReleaseState>(
          (from, each) => {
            const next = transition(from, each);
            return next.ok ? next.state : from;
          },
          { state: 'draft' },
        );
        const [before, after] = [Math.min(one, other), Math.max(one, other)].map((now) => stateAt(state, { closes }, now)); // prettier-ignore
        const step = (at: typeof before) => order.indexOf(at?.state ?? '');
        expect(step(after)).toBeGreaterThanOrEqual(step(before));
        if (state.state === 'draft' || state.state === 'withdrawn') expect(after).toEqual(before);
      }),
      { numRuns: 500 },
    );
  });
});

import { describe, expect, it } from '@jest/globals';
import { inOrder, transition } from './index.js';
import type { ReleaseState } from './index.js';

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

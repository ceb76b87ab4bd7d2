import { describe, expect, it } from '@jest/globals';
import { isOut, isReleased, stateAt } from './index.js';
import type { ReleaseState } from './index.js';

const at = { live: 100, opens: 200, closes: 300 };
const schedule = { opens: at.opens, due: null, closes: at.closes };
const scheduled: ReleaseState = { state: 'scheduled', goesLiveAt: at.live };

describe('the state of a release at a moment', () => {
  it('is scheduled before its moment, live from it on, and closed from its end on', () => {
    expect(stateAt(scheduled, schedule, 99)).toEqual({ state: 'scheduled', at: at.live });
    expect(stateAt(scheduled, schedule, 100)).toEqual({ state: 'live', at: at.live });
    expect(stateAt(scheduled, schedule, 299)).toEqual({ state: 'live', at: at.live });
    expect(stateAt(scheduled, schedule, 300)).toEqual({ state: 'closed', at: at.closes });
    expect(stateAt({ state: 'live', since: 5 }, schedule, 300)).toEqual({ state: 'closed', at: at.closes });
    expect(stateAt({ state: 'live', since: 5 }, { closes: null }, 900)).toEqual({ state: 'live', at: 5 });
  });

  it('stays what someone made it, whatever the dates', () => {
    expect(stateAt({ state: 'draft' }, schedule, 900)).toEqual({ state: 'draft', at: null });
    expect(stateAt({ state: 'closed', since: 7 }, schedule, 150)).toEqual({ state: 'closed', at: 7 });
    expect(stateAt({ state: 'withdrawn', since: 7 }, schedule, 150)).toEqual({ state: 'withdrawn', at: 7 });
  });

  it('lets members in from the later of going live and opening on, also once it is closed', () => {
    expect([99, 100, 199, 200, 300].map((now) => isOut(scheduled, schedule, now))).toEqual([
      false,
      false,
      false,
      true,
      true,
    ]);
    expect(isOut(scheduled, { ...schedule, opens: null }, 100)).toBe(true);
    expect(isOut({ state: 'withdrawn', since: 7 }, schedule, 250)).toBe(false);
  });

  it('counts as released until it is withdrawn', () =>
    expect(
      (['draft', 'scheduled', 'live', 'closed', 'withdrawn'] as const).map((state) => isReleased({ state })),
    ).toEqual([false, true, true, true, false]));
});

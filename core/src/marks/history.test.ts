import { describe, expect, it } from '@jest/globals';
import type { Adjustment, KeptSheet } from './index.js';
import { draftedBetween, draftedTogether, sayDrafted } from './index.js';

const sheet = (more: Partial<KeptSheet> = {}): KeptSheet => ({
  unit: 'group',
  points: '40',
  rubric: null,
  typed: '30',
  overrideReason: '',
  picks: {},
  feedback: '',
  lateDeduction: '0',
  ownLate: new Map(),
  lateMinutes: 0,
  latePolicy: { graceMinutes: 0, stepPercent: 0, periodMinutes: 60, capPercent: 0 },
  credited: ['noor', 'jorge'],
  adjustments: new Map(),
  version: 1,
  given: new Map(),
  workAt: null,
  latestAt: null,
  isComplete: true,
  ...more,
});
const plus = (by: string, reason: string): ReadonlyMap<string, Adjustment> =>
  new Map([['noor', { kind: 'adjusted', by, reason }]]);
const said = (before: KeptSheet, after: KeptSheet) =>
  sayDrafted(draftedBetween(before, after), 'group', (id) => id);

describe('the history of a sheet', () => {
  it('tells every change with its reason', () => {
    expect(said(sheet({ typed: null }), sheet())).toBe('Group mark none → 30');
    expect(said(sheet(), sheet({ adjustments: plus('2', 'Ran the control'), feedback: 'Good.' }))).toBe(
      'noor: same as the group → +2 (Ran the control); feedback',
    );
    expect(said(sheet(), sheet({ overrideReason: 'the rubric misses it' }))).toBe(
      'reason: the rubric misses it',
    );
    const excused = new Map<string, Adjustment>([['noor', { kind: 'excused', reason: 'ill' }]]);
    expect(said(sheet({ adjustments: plus('-1', '') }), sheet({ adjustments: excused }))).toBe(
      'noor: −1 → excused (ill)',
    );
    expect(said(sheet(), sheet({ version: 2 }))).toBeNull();
  });

  it('takes what is typed letter by letter for one change, and what was taken back for none', () => {
    const [first, second, third] = [
      sheet(),
      sheet({ adjustments: plus('2', 'R') }),
      sheet({ adjustments: plus('2', 'Ran') }),
    ];
    const typed = draftedTogether(draftedBetween(first, second), draftedBetween(second, third));
    expect(sayDrafted(typed, 'group', (id) => id)).toBe('noor: same as the group → +2 (Ran)');
    const back = draftedTogether(typed, draftedBetween(third, first));
    expect(sayDrafted(back, 'group', (id) => id)).toBeNull();
  });
});

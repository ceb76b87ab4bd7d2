import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import type { Adjustment, KeptSheet, Rubric } from './index.js';
import {
  cellOf,
  excessIn,
  isStale,
  markState,
  memberMark,
  missingIn,
  needsMarking,
  sayMissing,
  unitMark,
} from './index.js';

const level = (points: string) => ({ id: points, name: points, description: '', points });
const rubric: Rubric = {
  criteria: [
    { id: 'method', name: 'Method', description: '', weight: '1', levels: [level('0'), level('4')] },
  ],
};
const aSheet = (more: Partial<KeptSheet> = {}): KeptSheet => ({
  unit: 'group',
  points: '40',
  rubric: null,
  typed: '30',
  overrideReason: '',
  picks: {},
  lateDeduction: '0',
  credited: ['ada', 'ben'],
  adjustments: new Map(),
  version: 3,
  releasedVersion: null,
  workAt: 100,
  latestAt: 100,
  isComplete: true,
  ...more,
});
const adjusted = (adjustment: Adjustment, id = 'ada') => new Map([[id, adjustment]]);

describe('the state of a mark', () => {
  it('is unmarked until something counts, drafted until it is released, and drafted again once it is changed', () => {
    expect(markState(aSheet({ version: null }))).toBe('unmarked');
    expect(markState(aSheet({ typed: null }))).toBe('unmarked');
    expect(
      markState(aSheet({ typed: null, adjustments: adjusted({ kind: 'adjusted', by: '1', reason: 'r' }) })),
    ).toBe('unmarked');
    expect(markState(aSheet({ typed: null, adjustments: adjusted({ kind: 'excused', reason: 'r' }) }))).toBe(
      'drafted',
    );
    expect(markState(aSheet())).toBe('drafted');
    expect(markState(aSheet({ releasedVersion: 3 }))).toBe('released');
    expect(markState(aSheet({ releasedVersion: 2 }))).toBe('drafted');
    expect(markState(aSheet({ releasedVersion: 2, typed: null }))).toBe('drafted');
  });

  it('is stale once there is newer work than it was given for, and needs somebody then', () => {
    expect(isStale(aSheet())).toBe(false);
    expect(isStale(aSheet({ latestAt: 101 }))).toBe(true);
    expect(isStale(aSheet({ workAt: null }))).toBe(true);
    expect(isStale(aSheet({ version: null, latestAt: 101 }))).toBe(false);
    expect(needsMarking(aSheet())).toBe(false);
    expect(needsMarking(aSheet({ latestAt: 101 }))).toBe(true);
    expect(needsMarking(aSheet({ latestAt: 101, isComplete: false }))).toBe(false);
    expect(needsMarking(aSheet({ version: null }))).toBe(true);
    expect(needsMarking(aSheet({ version: null, latestAt: null }))).toBe(false);
  });
});

describe('what is missing before a release', () => {
  const codes = (sheet: KeptSheet) => missingIn(sheet).map((each) => each.code);

  it('is a mark, unless everybody has one of their own or is excused', () => {
    expect(codes(aSheet())).toEqual([]);
    expect(codes(aSheet({ typed: null }))).toEqual(['mark']);
    const everybody = new Map<string, Adjustment>([
      ['ada', { kind: 'separate', mark: '12', reason: 'alone' }],
      ['ben', { kind: 'excused', reason: 'ill' }],
    ]);
    expect(codes(aSheet({ typed: null, adjustments: everybody }))).toEqual([]);
    everybody.set('ben', { kind: 'adjusted', by: '2', reason: 'led' });
    expect(codes(aSheet({ typed: null, adjustments: everybody }))).toEqual(['mark']);
  });

  it('is a reason wherever a mark differs', () => {
    const noReason = adjusted({ kind: 'adjusted', by: '1', reason: ' ' });
    expect(missingIn(aSheet({ adjustments: noReason }))).toEqual([
      { code: 'adjustment-reason', enrolmentId: 'ada' },
    ]);
    expect(codes(aSheet({ rubric }))).toEqual(['override-reason']);
    expect(codes(aSheet({ rubric, overrideReason: 'off topic' }))).toEqual([]);
  });

  it('says what to do, for a group, a student and a rubric', () => {
    const said = (sheet: KeptSheet) => sayMissing(sure(missingIn(sheet)[0]), sheet, (id) => id);
    expect(said(aSheet({ typed: null }))).toBe('Give the group a mark, or each member a separate one.');
    expect(said(aSheet({ typed: null, rubric }))).toBe(
      'Pick a level for every criterion, or give the mark yourself and say why.',
    );
    expect(said(aSheet({ typed: null, unit: 'ada' }))).toBe('Give a mark first.');
    expect(said(aSheet({ adjustments: adjusted({ kind: 'excused', reason: '' }) }))).toBe(
      "Say why ada's mark differs.",
    );
  });
});

describe('what no marker can mean', () => {
  it('is more than the points, of the whole or of a criterion; exactly the points is fine', () => {
    expect(excessIn(aSheet({ typed: '40' }))).toBeNull();
    expect(excessIn(aSheet({ typed: '40.01' }))).toEqual({ code: 'above-points', mark: '40.01' });
    const picked = (points: string) =>
      aSheet({ typed: '1', rubric, picks: { method: { points, comment: '' } } });
    expect(excessIn(picked('4'))).toBeNull();
    expect(excessIn(picked('4.5'))).toMatchObject({ code: 'above-criterion', criterionId: 'method' });
    expect(excessIn(aSheet({ picks: { gone: { points: '900', comment: '' } } }))).toBeNull();
  });
});

describe('a cell of the gradebook', () => {
  const cell = (sheet: Partial<KeptSheet>, released?: string | null, due: number | null = null, now = 500) =>
    cellOf(aSheet(sheet), 'ada', released, due, now);

  it('shows what was given before all else, whatever the desk holds now', () => {
    expect(cell({ typed: '12' }, '31.5')).toEqual({ state: 'released', mark: '31.5' });
    expect(cell({}, null)).toEqual({ state: 'excused', mark: null });
  });

  it('is drafted, to mark, open or missing by what is there', () => {
    expect(cell({})).toEqual({ state: 'drafted', mark: '30' });
    expect(cell({ typed: null, adjustments: adjusted({ kind: 'excused', reason: 'r' }) })).toEqual({
      state: 'drafted',
      mark: null,
    });
    expect(cell({ typed: null }).state).toBe('to-mark');
    const nothing = { typed: null, isComplete: false, latestAt: null };
    expect(cell(nothing).state).toBe('open');
    expect(cell(nothing, undefined, 500).state).toBe('open');
    expect(cell(nothing, undefined, 499).state).toBe('missing');
    expect(cell({ ...nothing, latestAt: 3 }, undefined, 499).state).toBe('open');
  });
});

it('gives a member the mark of the group less lateness and what differs, within the points', () =>
  fc.assert(
    fc.property(
      fc.nat({ max: 40 }),
      fc.nat({ max: 50 }),
      fc.integer({ min: -50, max: 50 }),
      (mark, late, by) => {
        const sheet = aSheet({
          typed: String(mark),
          lateDeduction: String(late),
          adjustments: adjusted({ kind: 'adjusted', by: String(by), reason: 'r' }),
        });
        const base = Math.max(0, mark - late);
        expect(memberMark(sheet, 'ada').mark).toBe(String(Math.min(40, Math.max(0, base + by))));
        expect(memberMark(sheet, 'ben').mark).toBe(String(base));
        expect(unitMark(sheet)).toBe(String(mark));
      },
    ),
  ));

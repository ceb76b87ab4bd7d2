import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { sure } from '../lists/index.js';
import type { Adjustment, CellState, KeptSheet, Rubric } from './index.js';
import {
  cellOf,
  changesSince,
  copiesToTell,
  excessIn,
  isStale,
  markState,
  markToGive,
  memberMark,
  missingIn,
  needsMarking,
  netMark,
  sayChange,
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
  ownLate: new Map(),
  credited: ['ada', 'ben'],
  adjustments: new Map(),
  feedback: 'Good reading.',
  lateMinutes: 0,
  latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
  version: 3,
  given: new Map(),
  workAt: 100,
  latestAt: 100,
  isComplete: true,
  ...more,
});
/** As it is once everyone credited was given their mark. */
const released = (sheet: KeptSheet): KeptSheet => ({
  ...sheet,
  given: new Map(sheet.credited.map((id) => [id, markToGive(sheet, id)])),
});
const adjusted = (adjustment: Adjustment, id = 'ada') => new Map([[id, adjustment]]);

describe('the state of a mark', () => {
  it('is unmarked until something counts, drafted until it is released, and changed once students would be given something else', () => {
    expect(markState(aSheet({ version: null }))).toBe('unmarked');
    expect(markState(aSheet({ typed: null }))).toBe('unmarked');
    expect(
      markState(aSheet({ typed: null, adjustments: adjusted({ kind: 'adjusted', by: '1', reason: 'r' }) })),
    ).toBe('unmarked');
    expect(markState(aSheet({ typed: null, adjustments: adjusted({ kind: 'excused', reason: 'r' }) }))).toBe(
      'drafted',
    );
    expect(markState(aSheet())).toBe('drafted');
    expect(markState(released(aSheet()))).toBe('released');
    expect(markState({ ...released(aSheet()), typed: '31' })).toBe('changed');
    expect(markState({ ...released(aSheet()), typed: null })).toBe('changed');
    expect(markState({ ...released(aSheet()), version: 4 })).toBe('released');
  });

  it('is stale once there is newer work than it was given for, and needs someone then', () => {
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

  it('is a mark, unless everyone has one of their own or is excused', () => {
    expect(codes(aSheet())).toEqual([]);
    expect(codes(aSheet({ typed: null }))).toEqual(['mark']);
    const everyone = new Map<string, Adjustment>([
      ['ada', { kind: 'separate', mark: '12', reason: 'alone' }],
      ['ben', { kind: 'excused', reason: 'ill' }],
    ]);
    expect(codes(aSheet({ typed: null, adjustments: everyone }))).toEqual([]);
    everyone.set('ben', { kind: 'adjusted', by: '2', reason: 'led' });
    expect(codes(aSheet({ typed: null, adjustments: everyone }))).toEqual(['mark']);
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
  const cell = (sheet: Partial<KeptSheet>, due: number | null = null, now = 500) =>
    cellOf(aSheet(sheet), 'ada', due, now);
  const { given } = released(aSheet());

  it('shows what was given before all else, whatever the desk holds now', () => {
    const shown = { state: 'released', mark: '30', points: '40' };
    expect(cell({ given })).toEqual({ ...shown, isChanged: false });
    expect(cell({ given, typed: '12' })).toEqual({ ...shown, isChanged: true });
    expect(cell({ given, points: '50' })).toEqual({ ...shown, isChanged: true });
    expect(cell({ given, credited: ['ben'] })).toEqual({ ...shown, isChanged: true });
    const excused = aSheet({ adjustments: adjusted({ kind: 'excused', reason: 'r' }) });
    expect(cellOf(released(excused), 'ada', null, 500)).toMatchObject({ state: 'excused', mark: null });
  });

  it('is drafted, to mark, open or missing by what is there', () => {
    expect(cell({})).toMatchObject({ state: 'drafted', mark: '30' });
    expect(cell({ typed: null, adjustments: adjusted({ kind: 'excused', reason: 'r' }) })).toMatchObject({
      state: 'drafted',
      mark: null,
    });
    expect(cell({ typed: null }).state).toBe('to-mark');
    const nothing = { typed: null, isComplete: false, latestAt: null };
    expect(cell(nothing).state).toBe('open');
    expect(cell(nothing, 500).state).toBe('open');
    expect(cell(nothing, 499).state).toBe('missing');
    expect(cell({ ...nothing, latestAt: 3 }, 499).state).toBe('open');
  });
});

describe('what changed since it was released', () => {
  const said = (more: Partial<KeptSheet>) =>
    changesSince({ ...released(aSheet()), ...more }).map((each) => `${each.enrolmentId}: ${sayChange(each)}`);

  it('is nothing as long as everyone would be given the same, however often it was saved', () => {
    expect(said({})).toEqual([]);
    expect(said({ version: 9, workAt: 200, latestAt: 200 })).toEqual([]);
    expect(
      said({ latePolicy: { graceMinutes: 0, stepPercent: 0, periodMinutes: 60, capPercent: 0 } }),
    ).toEqual([]);
    expect(changesSince(aSheet({ typed: '12' }))).toEqual([]);
  });

  it('names whom it affects and by how much, whatever it came from', () => {
    expect(said({ typed: '31.5' })).toEqual(['ada: 30 of 40 → 31.5 of 40', 'ben: 30 of 40 → 31.5 of 40']);
    expect(said({ points: '50' })[0]).toBe('ada: 30 of 40 → 30 of 50');
    expect(said({ lateDeduction: '4', lateMinutes: 60 })[0]).toBe('ada: 30 of 40 → 26 of 40');
    const ownLate = new Map([['ben', { minutes: 60, deduction: '4' }]]);
    expect(said({ ownLate })).toEqual(['ben: 30 of 40 → 26 of 40']);
    expect(said({ adjustments: adjusted({ kind: 'excused', reason: 'ill' }) })).toEqual([
      'ada: 30 of 40 → excused',
    ]);
    expect(said({ credited: ['ada', 'cy'] })).toEqual(['ben: 30 of 40 → no mark', 'cy: no mark → 30 of 40']);
  });

  it('tells of what does not move the mark', () => {
    expect(said({ feedback: 'Better.' })[0]).toBe('ada: the feedback');
    expect(said({ rubric, lateMinutes: 3 })[0]).toBe('ada: how late it is, the rubric');
    expect(said({ adjustments: adjusted({ kind: 'adjusted', by: '0', reason: 'talked it over' }) })).toEqual([
      'ada: how it comes about',
    ]);
  });
});

it('rounds once, at the end', () => {
  const thirds: Rubric = {
    criteria: [
      { id: 'method', name: 'Method', description: '', weight: '1', levels: [level('0'), level('3')] },
    ],
  };
  const third = aSheet({
    points: '12.5',
    rubric: thirds,
    typed: null,
    picks: { method: { points: '1', comment: '' } },
    lateDeduction: '0.625',
  });
  expect(unitMark(third)).toBe('4.17');
  expect(memberMark(third, 'ada').mark).toBe('3.54');
  expect(netMark(third)).toBe('3.54');
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

describe('what a gradebook tells of someone with several copies', () => {
  const copy = (state: CellState, setId: string | null = 'benches', isTheirs = true) => ({
    state,
    setId,
    isTheirs,
  });
  it.each([
    [
      'both copies of two groups, also where there is nothing yet',
      [copy('released'), copy('missing', 'panels')],
      [0, 1],
    ],
    ['both groups of one set', [copy('to-mark'), copy('open')], [0, 1]],
    ['two marks after a move', [copy('released', 'benches', false), copy('drafted')], [0, 1]],
    [
      'nothing missed after a move with the credit',
      [copy('missing'), copy('to-mark', 'benches', false)],
      [1],
    ],
    [
      'what is missed in another set all the same',
      [copy('missing', 'panels'), copy('released', 'benches', false)],
      [0, 1],
    ],
    ['what is missed where no group is kept', [copy('missing')], [0]],
    ['a copy for all', [copy('open', null)], [0]],
  ])('is %s', (_name, copies, told) =>
    expect(copiesToTell(copies).map((each) => copies.indexOf(each))).toEqual(told),
  );
});

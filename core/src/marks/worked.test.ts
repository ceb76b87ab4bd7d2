import { describe, expect, it } from '@jest/globals';
import { lateness } from '../handin/index.js';
import { personMark } from './index.js';
import { exactMarkFrom } from './rubric.js';

interface Worked {
  readonly says: string;
  /** The mark before it is rounded, as a fraction. */
  readonly exact: string;
  readonly points: string;
  /** Weight, points and most points of each criterion. */
  readonly picked?: readonly (readonly [string, string, string])[];
  readonly typed?: string;
  /** Minutes. */
  readonly late?: number;
  /** Grace in minutes, step in percent, period in minutes, cap in percent. */
  readonly policy?: readonly [number, number, number, number];
  readonly by?: string;
  readonly shareWeight?: string;
  readonly shareFactor?: string;
  readonly mark: string;
}

/** From picks and dates to a person's mark (CALC §6, §7, §9), each worked out in fractions apart from this code, and rounded once. */
const worked: readonly Worked[] = [
  {
    says: 'the worked rubric of the rules: 2, 1, 1 with 3/4, 4/4, 3.5/5',
    exact: '32',
    points: '40',
    picked: [
      ['2', '3', '4'],
      ['1', '4', '4'],
      ['1', '3.5', '5'],
    ],
    mark: '32',
  },
  {
    says: 'one of three criteria, a day late',
    exact: '85/24',
    points: '12.5',
    picked: [
      ['1', '1', '1'],
      ['1', '0', '1'],
      ['1', '0', '1'],
    ],
    late: 60,
    policy: [0, 5, 1440, 100],
    mark: '3.54',
  },
  {
    says: 'thirds that come to a half cent',
    exact: '3/200',
    points: '0.03',
    picked: [['1', '1', '2']],
    mark: '0.02',
  },
  {
    says: 'weights that are no whole numbers',
    exact: '625/36',
    points: '25',
    picked: [
      ['1.5', '2', '3'],
      ['0.75', '3', '4'],
    ],
    mark: '17.36',
  },
  {
    says: 'sevenths of a hundred',
    exact: '2600/49',
    points: '100',
    picked: [
      ['3', '2', '7'],
      ['4', '5', '7'],
    ],
    mark: '53.06',
  },
  {
    says: 'a criterion of no points picked',
    exact: '20',
    points: '30',
    picked: [
      ['1', '0', '5'],
      ['2', '5', '5'],
    ],
    mark: '20',
  },
  { says: 'late by exactly the grace', exact: '63/2', points: '40', typed: '31.5', late: 15, mark: '31.5' },
  {
    says: 'late by a minute more than the grace',
    exact: '55/2',
    points: '40',
    typed: '31.5',
    late: 16,
    mark: '27.5',
  },
  { says: 'late by exactly a day', exact: '55/2', points: '40', typed: '31.5', late: 1440, mark: '27.5' },
  {
    says: 'late by a day and a minute',
    exact: '47/2',
    points: '40',
    typed: '31.5',
    late: 1441,
    mark: '23.5',
  },
  {
    says: 'so late that the cap holds',
    exact: '23/2',
    points: '40',
    typed: '31.5',
    late: 12960,
    mark: '11.5',
  },
  {
    says: 'later than it was good: nothing, not less',
    exact: '0',
    points: '40',
    typed: '10',
    late: 12960,
    mark: '0',
  },
  {
    says: '3 % an hour of a third of a point',
    exact: '73/15',
    points: '20',
    picked: [['1', '1', '3']],
    late: 125,
    policy: [0, 3, 60, 100],
    mark: '4.87',
  },
  { says: 'an addition beyond the points', exact: '40', points: '40', typed: '39', by: '6', mark: '40' },
  { says: 'a deduction below nothing', exact: '0', points: '40', typed: '1.5', by: '-4', mark: '0' },
  {
    says: 'an addition of a cent after a rubric of sixths',
    exact: '2503/300',
    points: '10',
    picked: [['1', '5', '6']],
    by: '0.01',
    mark: '8.34',
  },
  {
    says: 'shares that count for half, of a late mark',
    exact: '177/8',
    points: '40',
    typed: '31.5',
    late: 200,
    policy: [15, 5, 1440, 50],
    shareWeight: '0.5',
    shareFactor: '0.5',
    mark: '22.13',
  },
  {
    says: 'shares that count for all',
    exact: '198/5',
    points: '40',
    typed: '33',
    shareWeight: '1',
    shareFactor: '1.2',
    mark: '39.6',
  },
  {
    says: 'shares, then an addition',
    exact: '189/8',
    points: '40',
    typed: '31.5',
    late: 200,
    policy: [15, 5, 1440, 50],
    by: '1.5',
    shareWeight: '0.5',
    shareFactor: '0.5',
    mark: '23.63',
  },
  {
    says: 'eighths of an eighth, rounded up once',
    exact: '1/8',
    points: '1',
    picked: [['1', '1', '8']],
    mark: '0.13',
  },
  {
    says: 'many criteria of one weight',
    exact: '3519/385',
    points: '17',
    picked: [
      ['1', '1', '3'],
      ['1', '2', '3'],
      ['1', '3', '3'],
      ['1', '1', '7'],
      ['1', '6', '11'],
    ],
    mark: '9.14',
  },
  {
    says: 'a late mark of a rubric that falls on a half cent',
    exact: '97/40',
    points: '2.5',
    picked: [['1', '97', '100']],
    late: 1,
    policy: [0, 0, 60, 100],
    mark: '2.43',
  },
];

const due = Date.parse('2026-11-20T17:00:00Z');

function markOf({
  points,
  picked = [],
  typed,
  late = 0,
  policy = [15, 10, 1440, 50],
  by,
  ...shares
}: Worked) {
  const criteria = picked.map(([weight, , most], at) => ({
    id: `c${at}`,
    name: `Criterion ${at}`,
    description: '',
    weight,
    levels: ['0', most].map((level) => ({ id: level, name: level, description: '', points: level })),
  }));
  const picks = Object.fromEntries(picked.map(([, given], at) => [`c${at}`, { points: given, comment: '' }]));
  const [graceMinutes, stepPercent, periodMinutes, capPercent] = policy;
  const rule = { graceMinutes, stepPercent, periodMinutes, capPercent };
  const { says: _says, exact: _exact, mark: _mark, ...shared } = shares;
  return personMark({
    ...shared,
    groupMark: exactMarkFrom({
      rubric: typed === undefined ? { criteria } : null,
      picks,
      points,
      typed: typed ?? null,
    }),
    lateDeduction: lateness(due + late * 60_000, due, rule, points).deduction,
    max: points,
    ...(by !== undefined && { adjustment: { kind: 'adjusted', by, reason: 'As agreed' } as const }),
  }).mark;
}

describe('marks worked out as fractions', () => {
  it.each(worked.map((each) => [each.says, each.exact, each.mark, each] as const))(
    '%s: %s is %s',
    (_says, _exact, mark, each) => expect(markOf(each)).toBe(mark),
  );
});

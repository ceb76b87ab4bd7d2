import type { MarkView, SavedMark, MyMark } from '@jigsaw/contract/marks';
import type { Rubric } from '@jigsaw/contract/rubric';
import { aHead } from './releases.js';
import { id, at, aMember, aGroup } from './people.js';

const levels = (most: number) =>
  ['Thin', 'Basic', 'Sound', 'Strong'].map((name, index) => ({
    id: `l${index}`,
    name,
    description: '',
    points: String((most * (index + 1)) / 4),
  }));

/** Two criteria of 4 and of 8, which weigh the same. */
export const aRubric: Rubric = {
  criteria: [
    { id: 'method', name: 'Method', description: 'and controls', weight: '1', levels: levels(4) },
    { id: 'writing', name: 'Writing', description: '', weight: '1', levels: levels(8) },
  ],
};

export const aMark = (more: Partial<MarkView> = {}): MarkView => ({
  copy: aHead({ part: 'staff' }),
  points: '40',
  unit: 'group',
  state: 'unmarked',
  groupMark: more.typedMark ?? null,
  typedMark: null,
  overrideReason: '',
  picks: {},
  suggestion: null,
  feedback: '',
  lateDeduction: '2',
  lateMinutes: 160,
  ownLate: [],
  version: 0,
  isStale: false,
  beforeDue: false,
  releasedAt: null,
  changes: [],
  members: ['Noor', 'Jorge'].map((name) => ({
    member: aMember(name),
    isStillInGroup: true,
    evidence: [{ label: 'words', value: '4' }],
    adjustment: null,
    mark: null,
    steps: [],
  })),
  changedBy: null,
  history: [],
  ...more,
});

export const aMyMark = (more: Partial<MyMark> = {}): MyMark => ({
  copyId: id('copy'),
  title: 'Ferment report',
  points: '40',
  group: aGroup(),
  markFor: 'group',
  rubric: null,
  groupMark: '31.5',
  mark: '31',
  steps: [
    { code: 'group-mark', mark: '31.5', max: '40' },
    { code: 'late', deduction: '2' },
    { code: 'adjusted', by: '1.5', reason: 'Ill for a week' },
  ],
  feedback: 'Good reading.',
  lateMinutes: 160,
  latePolicy: null,
  handedInAt: at,
  releasedAt: at,
  markedBy: 'Dr. Ilse Marrow',
  isNew: true,
  ...more,
});

export const aSavedMark = (more: Partial<SavedMark> = {}): SavedMark => ({
  version: 1,
  state: 'drafted',
  groupMark: null,
  changes: [],
  needsYou: false,
  ...more,
});

import type { BoardStudent, BoardView } from '@jigsaw/contract/groups';
import type { CopyView, GroupTag, HandInView, Member, RoomItem, RoomView } from '@jigsaw/contract/handin';
import type { MarkView, MyMark } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CourseView, RosterEntry } from '@jigsaw/contract/roster';
import type { Id } from '@jigsaw/core/ids';

/** Ids that read like what they are for: `id('ada')` is always the same. */
export function id<Kind extends string>(name: string): Id<Kind> {
  const hex = [...name]
    .map((char) => char.charCodeAt(0).toString(16))
    .join('')
    .padEnd(12, '0')
    .slice(0, 12);
  return `01920000-0000-7000-8000-${hex}` as Id<Kind>;
}

export const courseId = id<'course'>('fer220');
export const at = '2026-11-10T10:00:00.000Z';
export const latePolicy = { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 };
export const text = (words: string) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] });

export const aCourse = (role: CourseView['role'] = 'instructor'): CourseView => ({
  id: courseId,
  code: 'FER 220',
  title: 'Applied Fermentation',
  term: 'Autumn 2026',
  timeZone: 'Europe/Lisbon',
  role,
  enrolmentId: id('me'),
});

export const aMember = (name: string, more: Partial<Member> = {}): Member => ({ enrolmentId: id(name), name, reading: null, isYou: false, ...more });

export const aGroup = (name = 'Crock', number = 1): GroupTag => ({ id: id(name), setId: id('benches'), setName: 'Bench teams', number, name });

export const anEntry = (name: string, more: Partial<RosterEntry> = {}): RosterEntry => ({
  enrolmentId: id(name),
  personId: id(`p${name}`),
  email: `${name.split(' ')[0]!.toLowerCase()}@quillmere.example`,
  name,
  familyName: name.split(' ').at(-1)!,
  reading: null,
  number: null,
  role: 'student',
  attributes: {},
  joinedAt: at,
  leftAt: null,
  lastSeenAt: null,
  groups: [],
  ...more,
});

/** A Board with two groups of two places; students by name, each with their group or null. */
export function aBoard(seats: Readonly<Record<string, 'Crock' | 'Carboy' | null>>): BoardView {
  const students = Object.entries(seats).map(([name, group]): BoardStudent => ({
    enrolmentId: id(name),
    name,
    familyName: null,
    reading: null,
    attributes: {},
    groupId: group === null ? null : id(group),
  }));
  return {
    set: { id: id('benches'), name: 'Bench teams', capacity: 2, groupCount: 2, unplaced: students.filter((student) => student.groupId === null).length },
    groups: ['Crock', 'Carboy'].map((name, index) => ({ id: id(name), number: index + 1, name, capacity: null, version: 1 })),
    students,
  };
}

export const anActivity = (more: Partial<ActivityView> = {}): ActivityView => ({
  id: id('report'),
  kind: 'assignment',
  title: 'Ferment report',
  brief: text('Write what you saw.'),
  points: '40',
  schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null },
  latePolicy,
  version: 3,
  updatedAt: at,
  release: null,
  ...more,
});

export const aRelease = (more: Partial<NonNullable<ActivityView['release']>> = {}): NonNullable<ActivityView['release']> => ({
  id: id('release'),
  setId: id('benches'),
  setName: 'Bench teams',
  state: { state: 'live', at },
  groups: 2,
  students: 4,
  ...more,
});

export const aRoomItem = (more: Partial<RoomItem> = {}): RoomItem => ({
  copyId: id('copy'),
  title: 'Ferment report',
  points: '40',
  due: '2099-11-12T17:00:00.000Z',
  access: 'open',
  state: 'not-started',
  handedInAt: null,
  late: null,
  hasMark: false,
  ...more,
});

export const aRoom = (more: Partial<RoomView> = {}): RoomView => ({
  group: aGroup(),
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')],
  items: [aRoomItem()],
  ...more,
});

export const aCopy = (more: Partial<CopyView> = {}): CopyView => ({
  id: id('copy'),
  title: 'Ferment report',
  brief: {
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'For ' },
          { type: 'placeholder', attrs: { what: 'group-name' } },
        ],
      },
    ],
  },
  points: '40',
  schedule: { opens: null, due: '2099-11-12T17:00:00.000Z', closes: null },
  latePolicy,
  access: 'open',
  mayHandIn: true,
  group: aGroup(),
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')],
  parts: [],
  files: [],
  handIns: [],
  state: 'not-started',
  lateNow: { minutes: 0, deduction: '0' },
  serverTime: at,
  ...more,
});

export const aPart = (author: Member, words: string): CopyView['parts'][number] => ({
  author,
  text: text(words),
  words: words.split(' ').length,
  version: 1,
  updatedAt: at,
});

export const aFile = (name: string, addedBy: Member): CopyView['files'][number] => ({
  id: id(name),
  name,
  mediaType: 'text/plain',
  sizeBytes: 2048,
  addedBy,
  addedAt: at,
});

export const aHandIn = (more: Partial<HandInView> = {}): HandInView => ({
  id: id('handin'),
  attempt: 1,
  handedInAt: at,
  handedInBy: aMember('Jorge'),
  late: { minutes: 0, deduction: '0' },
  credited: [aMember('Noor'), aMember('Jorge')],
  parts: [{ author: aMember('Jorge'), text: text('It fell to 4.4.'), words: 4 }],
  files: [],
  ...more,
});

export const aMark = (more: Partial<MarkView> = {}): MarkView => ({
  copy: aCopy({ handIns: [aHandIn()], state: 'handed-in', mayHandIn: false }),
  state: 'unmarked',
  groupMark: null,
  feedback: '',
  lateDeduction: '2',
  lateMinutes: 160,
  version: 0,
  isStale: false,
  beforeDue: false,
  releasedAt: null,
  members: ['Noor', 'Jorge'].map((name) => ({ member: aMember(name), isStillInGroup: true, words: 4, files: 0, adjustment: null, mark: null, steps: [] })),
  history: [],
  ...more,
});

export const aMyMark = (more: Partial<MyMark> = {}): MyMark => ({
  copyId: id('copy'),
  title: 'Ferment report',
  points: '40',
  group: aGroup(),
  groupMark: '31.5',
  mark: '31',
  steps: [
    { code: 'group-mark', mark: '31.5', max: '40' },
    { code: 'late', deduction: '2' },
    { code: 'adjusted', by: '1.5', reason: 'Ill for a week' },
  ],
  feedback: 'Good reading.',
  lateMinutes: 160,
  handedInAt: at,
  releasedAt: at,
  markedBy: 'Dr. Ilse Marrow',
  isNew: true,
  ...more,
});

import type { PlaceResult, BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { Member, CourseView } from '@jigsaw/contract/course';
import { noDetails } from '@jigsaw/contract/sets';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { Id } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';

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
export const text = (words: string) => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }],
});

export const aCourse = (role: CourseView['role'] = 'instructor'): CourseView => ({
  id: courseId,
  code: 'FER 220',
  title: 'Applied Fermentation',
  term: 'Autumn 2026',
  timeZone: 'Europe/Lisbon',
  role,
  enrolmentId: id('me'),
});

export const aMember = (name: string, more: Partial<Member> = {}): Member => ({
  enrolmentId: id(name),
  name,
  reading: null,
  isYou: false,
  ...more,
});

export const aGroup = (name = 'Crock', number = 1): GroupTag => ({
  id: id(name),
  setId: id('benches'),
  setName: 'Bench teams',
  number,
  name,
});

export const anEntry = (name: string, more: Partial<RosterEntry> = {}): RosterEntry => ({
  enrolmentId: id(name),
  personId: id(`p${name}`),
  email: `${sure(name.split(' ')[0]).toLowerCase()}@quillmere.example`,
  name,
  familyName: sure(name.split(' ').at(-1)),
  reading: null,
  number: null,
  role: 'student',
  attributes: {},
  joinedAt: at,
  leftAt: null,
  lastSeenAt: null,
  hasComeIn: true,
  invitedAt: null,
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
    email: `${name.toLowerCase()}@quillmere.example`,
    number: null,
    attributes: {},
    seats: group === null ? [] : [{ groupId: id(group), isLeader: false, handIns: 0 }],
  }));
  return {
    set: {
      id: id('benches'),
      name: 'Bench teams',
      capacity: 2,
      groupCount: 2,
      unplaced: students.filter((student) => student.seats.length === 0).length,
      isSynchronised: false,
      isExclusive: true,
      hasLeaders: false,
      membersName: false,
      isFormedAtHandIn: false,
      description: '',
      isDescriptionShown: true,
      latecomers: 'leave',
      signUp: null,
      frozenAt: null,
      version: 1,
    },
    groups: ['Crock', 'Carboy'].map((name, index) => ({
      id: id(name),
      number: index + 1,
      name,
      capacity: null,
      isLocked: false,
      motto: '',
      details: noDetails,
      topic: null,
      leads: [],
      version: 1,
    })),
    students,
    attributes: [],
    staff: [],
    assistantsSee: 'all',
    rules: [],
    homes: [],
    topics: [],
    homeSet: null,
    latest: null,
  };
}

/** The attributes of these people, as the server lists them. */
export const attributesOf = (entries: readonly RosterEntry[]): RosterView['attributes'] =>
  [...new Set(entries.flatMap((entry) => Object.keys(entry.attributes)))].map((name) => ({
    name,
    kind: 'category',
    isChosen: false,
  }));

/** What the server answers where this Board is opened. */
export const boardAnswers = (board: BoardView, more: object = {}) => ({
  [`GET courses/${courseId}/sets`]: { sets: [board.set], archived: [], students: board.students.length },
  [`GET sets/${board.set.id}/board`]: board,
  [`POST sets/${board.set.id}/place`]: aPlaceResult(0),
  ...more,
});

export const aPlaceResult = (unplaced: number): PlaceResult => ({
  unplaced,
  toPlace: { unplaced, choosing: 0 },
  credited: [],
});

/** What the roster page asks for. */
export const rosterAnswers = (...entries: RosterEntry[]) => ({
  [`GET courses/${courseId}/roster`]: {
    entries,
    sets: [
      {
        id: id('benches'),
        name: 'Bench teams',
        isExclusive: true,
        groups: [{ id: id('crock'), number: 1, name: 'Crock' }],
      },
    ],
    attributes: attributesOf(entries),
    syncedAt: null,
  },
});

import type { PlaceResult, BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { HandInView, PartView, WorkFile, WorkView } from '@jigsaw/contract/handin';
import type { MarkView, SavedMark, MyMark } from '@jigsaw/contract/marks';
import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import type { Author, Member, CourseView } from '@jigsaw/contract/course';
import type { CopyHead, RoomItem, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { Rubric } from '@jigsaw/contract/rubric';
import type { PageView as WikiPageView, RevisionLine, WikiView } from '@jigsaw/contract/wiki';
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
      membersDress: false,
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
      leads: [],
      version: 1,
    })),
    students,
    attributes: [],
    staff: [],
    assistantsSee: 'all',
    rules: [],
    homes: [],
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
  rubric: null,
  settings: { attempts: 'latest' },
  version: 3,
  updatedAt: at,
  release: null,
  extensions: [],
  ...more,
});

export const aRelease = (
  more: Partial<NonNullable<ActivityView['release']>> = {},
): NonNullable<ActivityView['release']> => ({
  id: id('release'),
  to: { kind: 'set', setId: id('benches') },
  setName: 'Bench teams',
  mode: 'own',
  outsiders: 'hidden',
  state: { state: 'live', at },
  groups: 2,
  students: 4,
  ...more,
});

export const aReach = (more: Partial<ReachView> = {}): ReachView => ({
  groups: ['Crock', 'Carboy'].map((name, index) => ({
    groupId: id(name),
    number: index + 1,
    name,
    members: index === 0 ? 2 : 0,
    isIn: true,
    copyId: null,
  })),
  students: 2,
  outside: [
    {
      name: 'Nino',
      reading: null,
      why: ['Sees nothing of it.', 'Is in none of the groups it was released to.'],
    },
  ],
  ...more,
});

export const aRoomItem = ({
  progress,
  ...more
}: Partial<Omit<RoomItem, 'progress'>> & { progress?: Partial<RoomItem['progress']> } = {}): RoomItem => ({
  copyId: id('copy'),
  releaseId: id('release'),
  kind: 'assignment',
  title: 'Ferment report',
  points: '40',
  due: '2099-11-12T17:00:00.000Z',
  isExtended: false,
  access: 'open',
  mode: 'own',
  unread: 0,
  latest: null,
  hasMark: false,
  ...more,
  progress: {
    state: 'not-started',
    isYours: false,
    owes: true,
    at: null,
    late: null,
    done: null,
    asked: null,
    ...progress,
  },
});
/** Handed in on 10 November, on time unless it says otherwise. */
export const handedIn = (minutes = 0, deduction = '0'): RoomItem['progress'] => ({
  state: 'done',
  isYours: false,
  owes: false,
  at,
  late: { minutes, deduction },
  done: null,
  asked: null,
});

export const aRoom = (more: Partial<RoomView> = {}): RoomView => ({
  about: '',
  motto: '',
  dressVersion: null,
  group: aGroup(),
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')].map((member) => ({
    ...member,
    isLeader: false,
  })),
  items: [aRoomItem()],
  ...more,
});
export const rooms = (...list: RoomView[]): RoomList => ({ rooms: list, common: [], locked: [] });

export const aHead = (more: Partial<CopyHead> = {}): CopyHead => ({
  id: id('copy'),
  releaseId: id('release'),
  activityId: id('report'),
  kind: 'assignment',
  settings: {},
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
  rubric: null,
  schedule: { opens: null, due: '2099-11-12T17:00:00.000Z', closes: null },
  extension: null,
  latePolicy,
  access: 'open',
  part: 'member',
  mode: 'own',
  group: aGroup(),
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')],
  others: [],
  unread: 0,
  serverTime: at,
  ...more,
});

export const aWork = ({
  rules,
  ...more
}: Partial<Omit<WorkView, 'rules'>> & { rules?: Partial<WorkView['rules']> } = {}): WorkView => ({
  copyId: id('copy'),
  rules: {
    by: 'group',
    takesText: true,
    mostFiles: 50,
    types: [],
    largestMb: 250,
    attempts: 'latest',
    ...rules,
  },
  mayHandIn: true,
  parts: [],
  files: [],
  handIns: [],
  state: 'not-started',
  lateNow: { minutes: 0, deduction: '0' },
  ...more,
});

export const aPart = (author: Member, words: string): PartView => ({
  author,
  text: text(words),
  words: words.split(' ').length,
  version: 1,
  updatedAt: at,
});

export const anAuthor = (name: string, more: Partial<Author> = {}): Author => ({
  ...aMember(name),
  isStaff: false,
  ...more,
});

/** A post that opens a thread, unless it answers another. */
export const aPost = (name: string, words: string, more: Partial<PostView> = {}): PostView => ({
  id: id(`p${words}`),
  threadId: more.parentId ?? id(`p${words}`),
  parentId: null,
  author: anAuthor(name, { isYou: name === 'Noor' }),
  text: text(words),
  words: words.split(' ').length,
  version: 1,
  createdAt: at,
  editedAt: null,
  takenOutBy: null,
  isNew: false,
  mayChange: name === 'Noor',
  mayTakeOut: name === 'Noor',
  ...more,
});
export const aTalk = (
  threads: readonly (readonly PostView[])[],
  more: Partial<DiscussionView> = {},
): DiscussionView => ({
  threads: threads.map((posts) => ({ id: posts[0]!.id, posts: [...posts] })),
  next: null,
  mayOpenThread: true,
  mayReply: true,
  met: [],
  ...more,
});

export const aRevision = (number: number, name: string, more: Partial<RevisionLine> = {}): RevisionLine => ({
  number,
  title: 'Days 15 to 28',
  author: anAuthor(name),
  savedAt: at,
  words: 10,
  added: 4,
  removed: 1,
  ...more,
});
export const aPage = (words: string, revision = 2, more: Partial<WikiPageView> = {}): WikiPageView => ({
  id: id('page'),
  title: 'Days 15 to 28',
  text: text(words),
  words: words.split(' ').length,
  revision,
  savedAt: at,
  savedBy: anAuthor('Jorge'),
  isTakenOut: false,
  mayWrite: true,
  revisions: Array.from({ length: revision }, (_, index) =>
    aRevision(revision - index, index % 2 ? 'Noor' : 'Jorge'),
  ),
  ...more,
});
export const aWiki = (page: WikiPageView, more: Partial<WikiView> = {}): WikiView => ({
  pages: [
    {
      id: page.id,
      title: page.title,
      words: page.words,
      revision: page.revision,
      savedAt: at,
      savedBy: page.savedBy,
      isNew: false,
      isTakenOut: page.isTakenOut,
    },
  ],
  mayWrite: true,
  writers: [],
  ...more,
});

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

export const aFile = (name: string, addedBy: Member): WorkFile => ({
  id: id(name),
  name,
  mediaType: 'text/plain',
  sizeBytes: 2048,
  addedBy,
  addedAt: at,
  isHandedIn: false,
});

export const aHandIn = (more: Partial<HandInView> = {}): HandInView => ({
  id: id('handin'),
  attempt: 1,
  owner: null,
  handedInAt: at,
  handedInBy: aMember('Jorge'),
  late: { minutes: 0, deduction: '0' },
  credited: [aMember('Noor'), aMember('Jorge')],
  parts: [{ author: aMember('Jorge'), text: text('It fell to 4.4.'), words: 4 }],
  files: [],
  ...more,
});

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
  version: 0,
  isStale: false,
  beforeDue: false,
  releasedAt: null,
  members: ['Noor', 'Jorge'].map((name) => ({
    member: aMember(name),
    isStillInGroup: true,
    evidence: [{ label: 'words', value: '4' }],
    adjustment: null,
    mark: null,
    steps: [],
  })),
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
  handedInAt: at,
  releasedAt: at,
  markedBy: 'Dr. Ilse Marrow',
  isNew: true,
  ...more,
});

/** The attributes of these people, as the server lists them. */
export const attributesOf = (entries: readonly RosterEntry[]): RosterView['attributes'] =>
  [...new Set(entries.flatMap((entry) => Object.keys(entry.attributes)))].map((name) => ({
    name,
    kind: 'category',
    isChosen: false,
  }));

/** What the server answers where this Board is opened. */
export const boardAnswers = (board: BoardView, more: object = {}) => ({
  [`GET courses/${courseId}/sets`]: { sets: [board.set], putAway: [], students: board.students.length },
  [`GET sets/${board.set.id}/board`]: board,
  [`POST sets/${board.set.id}/place`]: aPlaceResult(0),
  ...more,
});

export const aSavedMark = (more: Partial<SavedMark> = {}): SavedMark => ({
  version: 1,
  state: 'drafted',
  groupMark: null,
  needsYou: false,
  ...more,
});

export const aPlaceResult = (unplaced: number): PlaceResult => ({
  unplaced,
  toPlace: unplaced,
  credited: [],
});

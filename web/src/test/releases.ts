import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import type { CopyHead, RoomItem, RoomLine, RoomList, RoomView } from '@jigsaw/contract/rooms';
import { id, at, latePolicy, text, aMember, aGroup } from './people.js';
import { wholeSet } from '@jigsaw/core/release';

export const anActivity = (more: Partial<ActivityView> = {}): ActivityView => ({
  id: id('report'),
  kind: 'assignment',
  title: 'Ferment report',
  brief: text('Write what you saw.'),
  files: [],
  points: '40',
  schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null },
  latePolicy,
  rubric: null,
  settings: { attempts: 'latest' },
  version: 3,
  updatedAt: at,
  inWork: null,
  release: null,
  extensions: [],
  studentExtensions: [],
  happens: [],
  ...more,
});

export const aRelease = (
  more: Partial<NonNullable<ActivityView['release']>> = {},
): NonNullable<ActivityView['release']> => ({
  id: id('release'),
  to: wholeSet(id('benches')),
  setNames: ['Bench teams'],
  audienceNames: [],
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
    setId: id('benches'),
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
  several: [],
  named: [],
  leftOut: [],
  ...more,
});

export const aRoomItem = ({
  progress,
  ...more
}: Partial<Omit<RoomItem, 'progress'>> & { progress?: Partial<RoomItem['progress']> } = {}): RoomItem => ({
  copyId: id('copy'),
  releaseId: id('release'),
  activityId: id('activity'),
  kind: 'assignment',
  title: 'Ferment report',
  points: '40',
  due: '2099-11-12T17:00:00.000Z',
  isExtended: false,
  happens: null,
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
  namingVersion: null,
  group: aGroup(),
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')].map((member) => ({
    ...member,
    isLeader: false,
  })),
  items: [aRoomItem()],
  ...more,
});

export const aRoomLine = (more: Partial<RoomLine> = {}): RoomLine => ({
  group: aGroup(),
  isLed: false,
  members: [],
  items: 1,
  kinds: ['assignment'],
  unread: 0,
  firstUnread: null,
  needs: [],
  answered: [],
  score: 0,
  days: Array<number>(14).fill(0),
  latest: null,
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
  ownFiles: { files: [], mayPut: true },
  files: [],
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

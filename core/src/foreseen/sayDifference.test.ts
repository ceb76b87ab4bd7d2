import { expect, it } from '@jest/globals';
import type { GroupId } from '../ids/index.js';
import type { Held } from './index.js';
import { sayDifference } from './index.js';

const words = { dateTime: (at: number) => `day ${at}`, groupName: (id: GroupId) => id as string };
const held = (access: Held['access'], own: Record<string, number | null> = {}, reads = 0): Held => ({
  access,
  own: Object.entries(own).map(([name, due]) => ({
    groupId: name === 'all' ? null : (name as GroupId),
    due,
  })),
  reads,
});
const nothing = held('hidden');

it.each<[string, Held, Held]>([
  ['gets Crock’s copy, due day 5', nothing, held('open', { Crock: 5 })],
  ['gets the copy for all', nothing, held('open', { all: null })],
  ['loses Crock’s copy', held('open', { Crock: 5 }), nothing],
  ['goes from Crock’s copy to Tun’s copy', held('open', { Crock: 5 }), held('open', { Tun: 5 })],
  ['goes from Crock’s copy to Tun’s copy, due day 9', held('open', { Crock: 5 }), held('open', { Tun: 9 })],
  ['gets Sour’s copy', held('open', { Crock: null }), held('open', { Crock: null, Sour: null })],
  ['has Crock’s copy due day 9 instead of due day 5', held('open', { Crock: 5 }), held('open', { Crock: 9 })],
  ['has Crock’s copy due day 9 instead of without a due date', held('open', { Crock: null }), held('open', { Crock: 9 })],
  ['can read it, and no longer work in it', held('open', { Crock: 5 }), held('read-only', { Crock: 5 })],
  ['can work in it again', held('read-only', { Crock: 5 }), held('open', { Crock: 5 })],
  ['has Crock’s copy due day 9 instead of due day 5 and can work in it again', held('read-only', { Crock: 5 }), held('open', { Crock: 9 })],
  ['learns that it exists', nothing, held('listed')],
  ['no longer sees that it exists', held('listed'), nothing],
  ['loses Crock’s copy and still sees that it exists', held('open', { Crock: 5 }), held('listed')],
  ['gets Crock’s copy', held('listed'), held('open', { Crock: null })],
  ['reads 3 copies of other groups', nothing, held('read-only', {}, 3)],
  ['reads 1 copy of other groups instead of 3', held('open', { Crock: 5 }, 3), held('open', { Crock: 5 }, 1)],
  ['loses Crock’s copy and no longer reads the copies of other groups', held('open', { Crock: 5 }, 3), nothing],
])('says: %s', (said, before, after) => expect(sayDifference({ before, after }, words)).toBe(said)); // prettier-ignore

it('says it of several', () => {
  const both = { before: held('open', { Crock: 5 }, 2), after: held('listed') };
  expect(sayDifference(both, words, false)).toBe(
    'lose Crock’s copy, no longer read the copies of other groups and still see that it exists',
  );
});

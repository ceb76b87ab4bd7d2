import { expect, it } from '@jest/globals';
import type { RoomNeed } from '@jigsaw/contract/rooms';
import { datesIn } from '../look/index.js';
import { id } from '../test/data.js';
import { sayNeed } from './sayNeed.js';

const now = Date.parse('2026-11-10T10:00:00Z');
const [copyId, postId, releaseId] = [id<'copy'>('copy'), id<'post'>('post'), id<'release'>('release')];
const since = '2026-11-08T10:00:00.000Z';
const of = { copyId, kind: 'discussion', title: 'Talk' };
const asked = { postId, by: 'Noor', excerpt: 'Is it salt?', since, newest: since };
const say = (need: RoomNeed) => sayNeed(need, id('Crock'), datesIn('UTC'), now);

it('says why a room needs someone, and where that is answered', () => {
  expect(say({ code: 'question', ...of, ...asked, count: 1 })).toEqual({ tag: '1 question', look: 'needs', says: 'Talk, asked 2 days ago', act: 'Answer Noor', to: `copies/${copyId}#post-${postId}` }); // prettier-ignore
  expect(say({ code: 'question', ...of, ...asked, count: 3 }).tag).toBe('3 questions');
  expect(say({ code: 'nothing-yet', ...of, due: '2026-11-11T10:00:00.000Z' })).toMatchObject({ tag: 'nothing yet', says: 'Talk, due in 24 hours' }); // prettier-ignore
  expect(say({ code: 'missing', ...of, since })).toMatchObject({ tag: 'missing', says: 'Talk, was due 2 days ago', to: `copies/${copyId}` }); // prettier-ignore
  expect(say({ code: 'to-mark', ...of, releaseId, unit: 'group', since, newest: since, isLate: false })).toMatchObject({ tag: 'to mark', says: 'Talk, handed in 2 days ago', to: `marks/${releaseId}/${copyId}/group` }); // prettier-ignore
  expect(say({ code: 'to-mark', ...of, releaseId, unit: 'group', since, newest: since, isLate: true }).says).toBe('Talk, handed in late, 2 days ago'); // prettier-ignore
  expect(say({ code: 'silent', enrolmentId: id('noor'), name: 'Noor', reading: null, since: '2026-10-25T10:00:00.000Z' })).toMatchObject({ tag: 'quiet', says: 'Noor wrote nothing for 16 days', act: 'See the room', to: `room/${id('Crock')}` }); // prettier-ignore
});

import type { RoomNeed } from '@jigsaw/contract/rooms';
import { counted } from '@jigsaw/core/text';
import type { Dates } from '../look/index.js';

interface Said {
  readonly tag: string;
  readonly look: 'needs' | 'warn' | 'plain';
  readonly says: string;
  /** The one thing to do, and where in the course. */
  readonly act: string;
  readonly to: string;
}

const dayMs = 86_400_000;

/** Why a room needs someone, in words, what answers that, and where.
 * @param now milliseconds. */
export function sayNeed(need: RoomNeed, groupId: string, dates: Pick<Dates, 'fromNow'>, now: number): Said {
  switch (need.code) {
    case 'question':
      return {
        tag: counted(need.count, 'question'),
        look: 'needs',
        says: `${need.title}, asked ${dates.fromNow(need.since, now)}`,
        act: `Answer ${need.by.split(' ')[0]}`,
        to: `copies/${need.copyId}#post-${need.postId}`,
      };
    case 'nothing-yet':
      return {
        tag: 'nothing yet',
        look: 'needs',
        says: `${need.title}, due ${dates.fromNow(need.due, now)}`,
        act: 'See what is there',
        to: `copies/${need.copyId}`,
      };
    case 'missing':
      return {
        tag: 'missing',
        look: 'warn',
        says: `${need.title}, was due ${dates.fromNow(need.since, now)}`,
        act: 'See what is there',
        to: `copies/${need.copyId}`,
      };
    case 'to-mark':
      return {
        tag: 'to mark',
        look: 'warn',
        says: `${need.title}, handed in ${need.isLate ? 'late, ' : ''}${dates.fromNow(need.since, now)}`,
        act: 'Mark it',
        to: `marks/${need.releaseId}/${need.copyId}/${need.unit}`,
      };
    case 'silent':
      return {
        tag: 'quiet',
        look: 'plain',
        says: `${need.name} wrote nothing for ${counted(Math.floor((now - Date.parse(need.since)) / dayMs), 'day')}`,
        act: 'See the room',
        to: `room/${groupId}`,
      };
  }
}

import type { Progress } from '@jigsaw/contract/release';
import type { Dates } from '../look/index.js';
import { counted } from '@jigsaw/core/text';

/** "2 of 3 written": how far a talk is, for one student or for a group. */
export function sayTalk({ state, isYours, at, done, asked }: Progress, dates: Dates): string {
  if (done !== null && asked !== null) {
    if (state === 'done') return isYours ? 'You have met the requirement' : 'All have met the requirement';
    return isYours ? `You have written ${done} of ${asked}` : `${done} of ${asked} have met the requirement`;
  }
  if (at === null) return isYours ? 'You have written nothing yet' : 'Nothing written yet';
  return `${isYours ? 'You last wrote' : 'Last written'} ${dates.dateTime(at)}`;
}

export const sayWords = (count: number): string => counted(count, 'word');

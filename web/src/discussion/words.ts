import type { Progress } from '@jigsaw/contract/rooms';
import type { Dates } from '../look/index.js';

/** "2 of 3 written": how far a talk is, for one student or for a group. */
export function sayTalk({ state, at, done, asked }: Progress, dates: Dates): string {
  if (done !== null && asked !== null) return state === 'done' ? 'All that is asked is written' : `${done} of ${asked} done`;
  return at === null ? 'Nothing written yet' : `Last written ${dates.dateTime(at)}`;
}

export const sayWords = (count: number): string => `${count} ${count === 1 ? 'word' : 'words'}`;

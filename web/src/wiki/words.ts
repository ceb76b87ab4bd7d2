import type { Progress } from '@jigsaw/contract/release';
import type { RevisionLine } from '@jigsaw/contract/wiki';
import type { Dates } from '../look/index.js';

export const sayWiki = ({ at }: Progress, dates: Dates): string =>
  at === null ? 'Nothing written yet' : `Last saved ${dates.dateTime(at)}`;

/** "+12 −4 words": what a version changed. */
export function sayChange({
  number,
  added,
  removed,
}: Pick<RevisionLine, 'number' | 'added' | 'removed'>): string {
  if (number === 1) return added === 0 ? 'created the page' : `started with ${added} words`;
  if (added === 0 && removed === 0) return 'same words';
  return [added > 0 && `+${added}`, removed > 0 && `−${removed}`].filter(Boolean).join(' ') + ' words';
}

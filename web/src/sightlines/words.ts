import { counted } from '@jigsaw/core/text';
import type { SightCell, SightOf } from '@jigsaw/core/sightlines';
import type { Dates } from '../look/index.js';

const words = {
  own: 'own copy',
  'each-other': 'own copy, reads the others’ copies',
  along: 'reads along',
  common: 'one copy for all',
  elsewhere: 'copies in their groups of another set',
  listed: 'listed, locked',
  none: 'not listed',
} as const satisfies Record<SightCell['code'], string>;

const empty = {
  group: 'no one is in this group',
  unplaced: 'everyone is in a group',
  person: 'not in the course at this time',
  people: 'reaches no student at this time',
} as const satisfies Record<SightOf['kind'], string>;

/** "own copy, due 2 days later, 3 of 4 see it": what a cell says, in words. */
export function sayCell(cell: SightCell, dates: Dates, of: SightOf['kind'] = 'group'): string {
  const { code, from, see, members, laterMs, isClosed } = cell;
  const said: string[] = [words[code]];
  if (from !== null) said.push(`from ${dates.dateTime(new Date(from).toISOString())}`);
  if (isClosed) said.push('closed, read only');
  if (laterMs !== null) said.push(`due ${sayLater(laterMs)}`);
  if (isPartial(cell)) said.push(`${see} of ${members} see it`);
  if (members === 0) said.push(empty[of]);
  return said.join(', ');
}

/** Some members see it, and some do not. */
export const isPartial = ({ code, from, see, members }: SightCell): boolean =>
  from === null && code !== 'none' && code !== 'listed' && see < members;

/** "2 days later", "3 hours earlier". */
export function sayLater(laterMs: number): string {
  const hours = Math.round(Math.abs(laterMs) / 3_600_000);
  const much = hours < 36 ? counted(Math.max(1, hours), 'hour') : counted(Math.round(hours / 24), 'day');
  return `${much} ${laterMs < 0 ? 'earlier' : 'later'}`;
}

/** "+2d", "−3h": the same where there is little room. */
export function shortLater(laterMs: number): string {
  const hours = Math.round(Math.abs(laterMs) / 3_600_000);
  const much = hours < 36 ? `${Math.max(1, hours)}h` : `${Math.round(hours / 24)}d`;
  return `${laterMs < 0 ? '−' : '+'}${much}`;
}

import type { MovesAct } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';

type Moved = MovesAct['moves'][number];

/** “Ilse Marrow moved Ada Okafor from Tun to Crock”; of many, how many. */
export function sayAct({ by, isYours, isOwnChoice, count, placed, removed, moves }: MovesAct): string {
  const first = sure(moves[0]);
  if (isOwnChoice) return `${first.name} ${sayOwn(first)}`;
  const who = isYours ? 'You' : by;
  if (count === 1) return `${who} ${sayOne(first)}`;
  const people = counted(count, 'student');
  if (removed === count) return `${who} removed ${people} from their groups`;
  const isSameGroup =
    count === moves.length && moves.every((move) => sayGroups(move.to) === sayGroups(first.to));
  if (placed === count) return `${who} placed ${people}${isSameGroup ? ` in ${sayGroups(first.to)}` : ''}`;
  return `${who} moved ${people}${isSameGroup ? ` to ${sayGroups(first.to)}` : ''}`;
}

function sayOne({ name, from, to }: Moved): string {
  if (to.length === 0) return `removed ${name} from ${sayGroups(from)}`;
  return from.length === 0
    ? `placed ${name} in ${sayGroups(to)}`
    : `moved ${name} from ${sayGroups(from)} to ${sayGroups(to)}`;
}

function sayOwn({ from, to }: Moved): string {
  if (to.length === 0) return `left ${sayGroups(from)}`;
  return from.length === 0 ? `chose ${sayGroups(to)}` : `changed from ${sayGroups(from)} to ${sayGroups(to)}`;
}

/** The groups of one side of a move; none is told as such. */
export const sayGroups = (groups: Moved['from']): string =>
  groups.length === 0 ? 'no group' : groups.map((group) => group.name).join(', ');

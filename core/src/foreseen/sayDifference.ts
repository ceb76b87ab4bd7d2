import type { Instant } from '../release/index.js';
import { counted, namesTogether } from '../text/index.js';
import type { Difference, Held } from './differences.js';

type Own = Held['own'][number];

/** How the reader writes times and what groups are called. */
interface Words {
  readonly dateTime: (at: Instant) => string;
  readonly groupName: (groupId: NonNullable<Own['groupId']>) => string;
}

/** What someone has of an activity after a change that they had not, or the other way round: what stands behind their name, without its full stop.
 * @param isOne whether it is said of one person. */
export function sayDifference(
  { before, after }: Pick<Difference, 'before' | 'after'>,
  { dateTime, groupName }: Words,
  isOne = true,
): string {
  const verb = (one: string, many: string) => (isOne ? one : many);
  const copies = (own: readonly Own[]) =>
    namesTogether(
      own.map(({ groupId }) => (groupId === null ? 'the copy for all' : `${groupName(groupId)}’s copy`)),
    );
  const isIn = (own: readonly Own[]) => (each: Own) => own.some(({ groupId }) => groupId === each.groupId);
  const lost = before.own.filter((each) => !isIn(after.own)(each));
  const gained = after.own.filter((each) => !isIn(before.own)(each));
  const kept = after.own.filter(isIn(before.own));
  const dueBefore = (each: Own) => before.own.find(({ groupId }) => groupId === each.groupId)?.due ?? null;
  const due = (at: Instant | null) => (at === null ? 'without a due date' : `due ${dateTime(at)}`);

  const said: string[] = [];
  if (lost.length > 0 && gained.length > 0)
    said.push(`${verb('goes', 'go')} from ${copies(lost)} to ${copies(gained)}${dueOf(lost, gained, due)}`);
  else if (gained.length > 0)
    said.push(`${verb('gets', 'get')} ${copies(gained)}${dueOf(lost, gained, due)}`);
  else if (lost.length > 0) said.push(`${verb('loses', 'lose')} ${copies(lost)}`);
  for (const each of kept)
    if (each.due !== dueBefore(each)) said.push(`${verb('has', 'have')} ${copies([each])} ${due(each.due)} instead of ${due(dueBefore(each))}`); // prettier-ignore
  if (kept.length > 0 && lost.length + gained.length === 0 && before.access !== after.access)
    said.push(after.access === 'open' ? 'can work in it again' : 'can read it, and no longer work in it');
  if (before.reads !== after.reads) said.push(sayReads(before.reads, after.reads, verb));
  const isOutside = ({ own, reads }: Held) => own.length === 0 && reads === 0;
  if (isOutside(after) && after.access === 'listed')
    said.push(isOutside(before) ? `${verb('learns', 'learn')} that it exists` : `still ${verb('sees', 'see')} that it exists`); // prettier-ignore
  if (isOutside(after) && after.access === 'hidden' && isOutside(before))
    said.push(`no longer ${verb('sees', 'see')} that it exists`);
  return namesTogether(said);
}

/** With a copy that comes, when its work is due, where that is another moment than before. */
const dueOf = (lost: readonly Own[], gained: readonly Own[], due: (at: Instant | null) => string): string => {
  const [first] = gained;
  const isSame = lost.some((each) => each.due === first?.due);
  return first === undefined || first.due === null || isSame ? '' : `, ${due(first.due)}`;
};

function sayReads(before: number, after: number, verb: (one: string, many: string) => string): string {
  if (after === 0) return `no longer ${verb('reads', 'read')} the copies of other groups`;
  const many = counted(after, 'copy', 'copies');
  return `${verb('reads', 'read')} ${many} of other groups${before === 0 ? '' : ` instead of ${before}`}`;
}

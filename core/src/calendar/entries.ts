import type { Instant } from '../release/index.js';

/** One copy, with what of it belongs into a calendar. */
export interface Dated {
  readonly copyId: string;
  readonly releaseId: string;
  readonly title: string;
  /** "FER 220" */
  readonly course: string;
  readonly timeZone: string;
  /** null: one copy for all. */
  readonly groupName: string | null;
  readonly description: string;
  readonly url: string;
  /** null: none, or not for this person to keep. */
  readonly due: Instant | null;
  readonly happens: {
    readonly starts: string;
    readonly ends: string;
    readonly place: string;
    readonly isCancelled: boolean;
  } | null;
  /** It takes place at a time that is this group's alone. */
  readonly isOwnTime: boolean;
  /** Counts up with every change that its readers see. */
  readonly version: number;
  readonly changedAt: Instant;
}

/** One line of a calendar. */
export interface Entry {
  /** The same for the same thing for ever, so that a calendar knows it again. */
  readonly uid: string;
  readonly summary: string;
  readonly description: string;
  readonly place: string;
  readonly url: string;
  readonly timeZone: string;
  readonly starts: Instant;
  /** null: a moment, such as a due time. */
  readonly ends: Instant | null;
  readonly isCancelled: boolean;
  readonly version: number;
  readonly changedAt: Instant;
}

/** What stands in someone's calendar, in the order of time.
 * @param whose of staff, the copies of one release are one line: they do not go twelve times, but where a group has a time of its own. What is a
 * group's own is named after it. */
export function entriesOf(dated: readonly Dated[], whose: 'member' | 'staff'): Entry[] {
  const told = whose === 'staff' ? inOneLine(dated) : dated;
  return told
    .flatMap((each) => {
      const { title, course, groupName, happens, due } = each;
      const { description, url, timeZone, version, changedAt } = each;
      const isOneOfMany = whose === 'staff' && !each.isOwnTime;
      const group = groupName === null || isOneOfMany ? '' : `, ${groupName}`;
      const id = isOneOfMany ? each.releaseId : each.copyId;
      const about = { description, url, timeZone, version, changedAt };
      const entries: Entry[] = [];
      if (happens)
        entries.push({
          ...about,
          uid: `${id}.event@jigsaw-room`,
          summary: `${happens.isCancelled ? 'Cancelled: ' : ''}${title} (${course}${group})`,
          place: happens.place,
          starts: Date.parse(happens.starts),
          ends: Date.parse(happens.ends),
          isCancelled: happens.isCancelled,
        });
      if (due !== null)
        entries.push({
          ...about,
          uid: `${id}.due@jigsaw-room`,
          summary: `Due: ${title} (${course}${group})`,
          place: '',
          starts: due,
          ends: null,
          isCancelled: false,
        });
      return entries;
    })
    .sort((a, b) => a.starts - b.starts || (a.uid < b.uid ? -1 : 1));
}

/** The first copy of each release, and each that has a time of its own. */
function inOneLine(dated: readonly Dated[]): Dated[] {
  const seen = new Set<string>();
  return dated.filter(({ releaseId, isOwnTime }) => {
    if (isOwnTime) return true;
    if (seen.has(releaseId)) return false;
    seen.add(releaseId);
    return true;
  });
}

import type { RoomLine, RoomNeed } from '@jigsaw/contract/rooms';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import type { Need } from '@jigsaw/core/rooms';
import { daysShown, inOrderOfNeed, scoreOfRoom, silentMs, soonMs } from '@jigsaw/core/rooms';
import type { Stand } from './stands.js';

interface Member {
  readonly enrolmentId: EnrolmentId;
  readonly name: string;
  readonly reading: string | null;
  /** When they came to the group. */
  readonly from: Date;
}
interface RoomFacts {
  readonly stands: readonly Stand[];
  readonly members: readonly Member[];
  readonly mayMark: boolean;
}
/** Milliseconds, and the day that it is in the course. */
interface When {
  readonly now: number;
  readonly today: number;
}

/** What is open in a room, the most pressing first, and how much was written there day by day. */
export function needsOf(
  { stands, members, mayMark }: RoomFacts,
  { now, today }: When,
): Pick<RoomLine, 'needs' | 'score' | 'days'> {
  const needs = inOrderOfNeed(
    [...stands.flatMap((stand) => ofStand(stand, mayMark, now)), ...silentOf(stands, members, now)],
    now,
  );
  const standOf = keyedBy(stands, ({ copyId }) => copyId);
  const memberOf = keyedBy(members, ({ enrolmentId }) => enrolmentId);
  return {
    needs: needs.map((need): RoomNeed => {
      if (need.code === 'silent') {
        const { name, reading } = sure(memberOf.get(need.enrolmentId));
        return { ...need, name, reading, since: iso(need.since) };
      }
      const { title, releaseId } = sure(standOf.get(need.copyId));
      if (need.code === 'nothing-yet') return { ...need, title, due: iso(need.due) };
      if (need.code === 'to-mark') return { ...need, title, releaseId, since: iso(need.since) };
      return { ...need, title, since: iso(need.since) };
    }),
    score: scoreOfRoom(needs, now),
    days: Array.from({ length: daysShown }, (_, at) =>
      stands.reduce((sum, { days }) => sum + (days.get(today - daysShown + 1 + at) ?? 0), 0),
    ),
  };
}

function ofStand(
  { copyId, due, isHandedIn, work, questions, waiting }: Stand,
  mayMark: boolean,
  now: number,
): Need[] {
  const found: Need[] = [];
  if (questions)
    found.push({
      code: 'question',
      copyId,
      postId: questions.postId,
      since: questions.since.getTime(),
      count: questions.count,
    });
  if (work === 'not-started' && due !== null && due >= now && due < now + soonMs)
    found.push({ code: 'nothing-yet', copyId, due });
  if ((work === 'not-started' || work === 'begun') && isHandedIn && due !== null && due < now)
    found.push({ code: 'missing', copyId, since: due });
  if (waiting && mayMark) found.push({ code: 'to-mark', copyId, ...waiting });
  return found;
}

/** Members who wrote nothing anywhere in the room for long, where something is due or was a short while ago. */
function silentOf(stands: readonly Stand[], members: readonly Member[], now: number): Need[] {
  if (!stands.some(({ due }) => due !== null && due > now - silentMs)) return [];
  const begun = Math.min(...stands.map(({ since }) => since));
  return members.flatMap(({ enrolmentId, from }): Need[] => {
    const last = Math.max(begun, from.getTime(), ...stands.map(({ lastBy }) => lastBy.get(enrolmentId) ?? 0));
    return now - last >= silentMs ? [{ code: 'silent', enrolmentId, since: last }] : [];
  });
}

/** What is new in a room. */
export function newsOf(
  stands: readonly Stand[],
  unreadOf: ReadonlyMap<CopyId, number>,
): Pick<RoomLine, 'items' | 'unread' | 'firstUnread' | 'latest'> {
  let unread = 0;
  let firstUnread: CopyId | null = null;
  let last: RoomLine['latest'] = null;
  for (const { copyId, title, latest } of stands) {
    const count = unreadOf.get(copyId) ?? 0;
    unread += count;
    if (count > 0) firstUnread ??= copyId;
    if (latest && (!last || latest.at > last.at)) last = { ...latest, title, copyId };
  }
  return { items: stands.length, unread, firstUnread, latest: last };
}

const iso = (at: number) => new Date(at).toISOString();

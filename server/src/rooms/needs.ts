import type { RoomLine, RoomNeed } from '@jigsaw/contract/rooms';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import type { Need, StopAnswer } from '@jigsaw/core/rooms';
import { inOrderOfNeed, isAnswered, scoreOfRoom, silentMs, soonMs, subjectOf } from '@jigsaw/core/rooms';
import { daysTo } from './days.js';
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
  /** What the reader said to stops in this room, by `needKey`. */
  readonly answers: ReadonlyMap<string, Answered>;
}
export interface Answered {
  readonly said: StopAnswer;
  readonly upTo: Date;
  readonly at: Date;
}
/** One need of a room, whatever becomes of it. */
export const needKey = (code: Need['code'], subjectId: string): string => `${code} ${subjectId}`;
/** Milliseconds, and the day that it is in the course. */
interface When {
  readonly now: number;
  readonly today: number;
}

/** What is open in a room, the most pressing first, what its reader has answered, and how much was written there day by day. */
export function needsOf(
  { stands, members, mayMark, answers }: RoomFacts,
  { now, today }: When,
): Pick<RoomLine, 'needs' | 'answered' | 'score' | 'days'> {
  const all = inOrderOfNeed(
    [...stands.flatMap((stand) => ofStand(stand, mayMark, now)), ...silentOf(stands, members, now)],
    now,
  );
  const standOf = keyedBy(stands, ({ copyId }) => copyId);
  const memberOf = keyedBy(members, ({ enrolmentId }) => enrolmentId);
  const shown = (need: Need): RoomNeed => {
    if (need.code === 'silent') {
      const { name, reading } = sure(memberOf.get(need.enrolmentId));
      return { ...need, name, reading, since: iso(need.since) };
    }
    const { title, kind, releaseId, questions } = sure(standOf.get(need.copyId));
    switch (need.code) {
      case 'question':
        return { ...need, title, kind, by: sure(questions).by, excerpt: sure(questions).excerpt, since: iso(need.since), newest: iso(need.newest) }; // prettier-ignore
      case 'nothing-yet':
        return { ...need, title, kind, due: iso(need.due) };
      case 'missing':
        return { ...need, title, kind, since: iso(need.since) };
      case 'to-mark':
        return { ...need, title, kind, releaseId, since: iso(need.since), newest: iso(need.newest) };
    }
  };
  const answerTo = (need: Need): Answered | null => {
    const answer = answers.get(needKey(need.code, subjectOf(need)));
    const given = answer && { said: answer.said, upTo: answer.upTo.getTime(), at: answer.at.getTime() };
    return answer && given && isAnswered(need, given, now) ? answer : null;
  };
  const needs = all.filter((need) => answerTo(need) === null);
  return {
    needs: needs.map(shown),
    answered: all.flatMap((need) => {
      const answer = answerTo(need);
      return answer ? [{ need: shown(need), said: answer.said, at: answer.at.toISOString() }] : [];
    }),
    score: scoreOfRoom(needs, now),
    days: daysTo(
      today,
      stands.flatMap(({ days }) => [...days]),
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
      newest: questions.newest.getTime(),
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
  const lastBy = new Map<EnrolmentId, number>();
  for (const stand of stands)
    for (const [id, at] of stand.lastBy) lastBy.set(id, Math.max(at, lastBy.get(id) ?? 0));
  return members.flatMap(({ enrolmentId, from }): Need[] => {
    const last = Math.max(begun, from.getTime(), lastBy.get(enrolmentId) ?? 0);
    return now - last >= silentMs ? [{ code: 'silent', enrolmentId, since: last }] : [];
  });
}

/** What is new in a room. */
export function newsOf(
  stands: readonly Stand[],
  unreadOf: ReadonlyMap<CopyId, number>,
): Pick<RoomLine, 'items' | 'kinds' | 'unread' | 'firstUnread' | 'latest'> {
  let unread = 0;
  let firstUnread: CopyId | null = null;
  let last: RoomLine['latest'] = null;
  for (const { copyId, title, latest } of stands) {
    const count = unreadOf.get(copyId) ?? 0;
    unread += count;
    if (count > 0) firstUnread ??= copyId;
    if (latest && (!last || latest.at > last.at)) last = { ...latest, title, copyId };
  }
  const kinds = [...new Set(stands.map(({ kind }) => kind))];
  return { items: stands.length, kinds, unread, firstUnread, latest: last };
}

const iso = (at: number) => new Date(at).toISOString();

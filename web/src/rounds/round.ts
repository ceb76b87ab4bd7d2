import { z } from 'zod';
import type { RoomLine, AnswerStop } from '@jigsaw/contract/rooms';
import { RoomNeed } from '@jigsaw/contract/rooms';
import { GroupTag } from '@jigsaw/contract/sets';
import { keyedBy } from '@jigsaw/core/lists';
import type { Need, StopAnswer } from '@jigsaw/core/rooms';
import { scoreOfRoom, stopsWithin, subjectOf, upToOf } from '@jigsaw/core/rooms';
import { useStored } from '../page/index.js';

/** A room to look into, and what for, as it was when the round began. */
export const Stop = z.object({ group: GroupTag, need: RoomNeed, minutes: z.number() });
export type Stop = z.infer<typeof Stop>;

/** Some rooms one after another. */
const Round = z.object({
  stops: z.array(Stop).min(1),
  /** Which of them one is at. */
  at: z.number().int().min(0),
});
export type Round = z.infer<typeof Round>;

/** The round that goes on in this tab; null: none does. */
export const useRound = (courseId: string) => useStored(`jigsaw.round.${courseId}`, Round, 'tab');

/** What one may have for a round, in minutes. */
export const someMinutes = [5, 10, 30] as const;

/** open: it waits. settled: the room does not need it any more. */
export type StopState = 'open' | 'settled' | StopAnswer;

const isSame = (need: RoomNeed, other: RoomNeed) =>
  need.code === other.code && subjectOf(need) === subjectOf(other);

/** How each stop stands by now, and what is to be done there by now.
 * @param lines null: it is not known, and all of them wait. */
export function stopsNow(
  stops: readonly Stop[],
  lines: readonly RoomLine[] | null,
): readonly (Stop & { readonly state: StopState })[] {
  if (lines === null) return stops.map((stop) => ({ ...stop, state: 'open' }));
  const lineOf = keyedBy(lines, ({ group }) => group.id);
  return stops.map((stop) => {
    const line = lineOf.get(stop.group.id);
    const need = line?.needs.find((each) => isSame(each, stop.need));
    if (need) return { ...stop, need, state: 'open' };
    const answered = line?.answered.find((each) => isSame(each.need, stop.need));
    return { ...stop, state: answered?.said ?? 'settled' };
  });
}

/** The rooms that fit into so many minutes.
 * @param lines the most pressing first. */
export const stopsFor = (lines: readonly RoomLine[], minutes: number): Stop[] =>
  stopsWithin<RoomNeed, RoomLine>(lines, minutes).map(({ room, ...stop }) => ({
    group: room.group,
    ...stop,
  }));

/** The next that waits, from this one on; null: there is none. */
export function nextOpen(stops: readonly { readonly state: StopState }[], from: number): number | null {
  const found = stops.findIndex(({ state }, at) => at >= from && state === 'open');
  return found < 0 ? null : found;
}

/** An answer to what is shown there. */
export const answerTo = (
  { group, need }: Pick<Stop, 'group' | 'need'>,
  said: StopAnswer | null,
): AnswerStop => ({
  groupId: group.id,
  code: need.code,
  subjectId: subjectOf(need),
  upTo: upToOf(need),
  said,
});

/** A room as if it had activities of one kind alone. */
export function ofKind(line: RoomLine, kind: string, now: number): RoomLine {
  const needs = line.needs.filter((need) => need.code !== 'silent' && need.kind === kind);
  return { ...line, needs, score: scoreOfRoom(needs.map(weighed), now) };
}

function weighed(need: RoomNeed): Need {
  switch (need.code) {
    case 'question':
    case 'to-mark':
      return { ...need, since: Date.parse(need.since), newest: Date.parse(need.newest) };
    case 'nothing-yet':
      return { ...need, due: Date.parse(need.due) };
    case 'missing':
    case 'silent':
      return { ...need, since: Date.parse(need.since) };
  }
}

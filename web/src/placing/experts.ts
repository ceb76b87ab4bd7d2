import type { BoardView } from '@jigsaw/contract/placing';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { ExpertSeats, HomeCoverage, SeatedExperts } from '@jigsaw/core/dealing';
import { coverage, topicLetter } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import type { Place, Placement } from '@jigsaw/core/placing';
import { movesTo } from '@jigsaw/core/placing';
import { counted } from '@jigsaw/core/text';
import { capacityOf } from './seating.js';

/** A home group, with what its people learn between them. */
export interface HomeRow extends HomeCoverage {
  readonly number: number;
  readonly name: string;
  readonly people: readonly EnrolmentId[];
}

export type HomeTag = Pick<HomeRow, 'number' | 'name'>;

/** The Board of expert tables, as it is worked out. */
export interface ExpertBoard {
  readonly experts: SeatedExperts;
  /** By their numbers; people without a home group are in none. */
  readonly homes: readonly HomeRow[];
  /** Topics that some home could learn and does not. */
  readonly gaps: number;
  /** At which table someone is missed, by its id: of the tables of a topic, those with the fewest people first. */
  readonly missing: ReadonlyMap<GroupId, readonly HomeTag[]>;
}

/** @returns null: these are no expert tables. */
export function expertBoardOf(board: BoardView): ExpertBoard | null {
  if (board.topics.length === 0) return null;
  const homeOf = new Map(board.homes.map((home) => [home.enrolmentId, home]));
  const here = groupedBy(
    board.students.filter((student) => homeOf.has(student.enrolmentId)),
    (student) => sure(homeOf.get(student.enrolmentId)).number,
  );
  const seats: ExpertSeats = new Map(
    board.students.flatMap(({ enrolmentId, seats }) =>
      seats.slice(0, 1).map(({ groupId }) => [enrolmentId, groupId] as const),
    ),
  );
  const tables = board.groups.flatMap((group) =>
    group.topic === null
      ? []
      : [
          {
            id: group.id,
            topic: group.topic - 1,
            most: capacityOf(board, group),
            isLocked: group.isLocked,
          },
        ],
  );
  const numbers = [...here.keys()].sort((one, other) => one - other);
  const ofHomes = numbers.map((number) => sure(here.get(number)).map((student) => student.enrolmentId));
  const homeless = board.students.filter((student) => !homeOf.has(student.enrolmentId));
  const experts: SeatedExperts = {
    homes: [...ofHomes, ...homeless.map((student) => [student.enrolmentId])],
    topics: board.topics.length,
    tables,
    seats,
  };
  const homes = coverage({ ...experts, homes: ofHomes }).map((learns, at): HomeRow => {
    const number = sure(numbers[at]);
    const people = sure(ofHomes[at]);
    return { ...learns, number, name: sure(homeOf.get(sure(people[0]))).name, people };
  });
  return {
    experts,
    homes,
    gaps: homes.reduce((sum, home) => sum + (home.isSmall ? 0 : home.lacking.length), 0),
    missing: missingAt(homes, experts),
  };
}

function missingAt(
  homes: readonly HomeRow[],
  { tables, seats }: SeatedExperts,
): ReadonlyMap<GroupId, readonly HomeTag[]> {
  const sizes = new Map(tables.map((table) => [table.id, 0]));
  for (const table of seats.values()) sizes.set(table, (sizes.get(table) ?? 0) + 1);
  const missing = new Map<GroupId, HomeTag[]>();
  for (const home of homes)
    for (const topic of home.lacking) {
      const open = tables.filter((table) => table.topic === topic);
      const [least] = open.toSorted((one, other) => sure(sizes.get(one.id)) - sure(sizes.get(other.id)));
      if (!least) continue;
      sizes.set(least.id, sure(sizes.get(least.id)) + 1);
      missing.set(least.id, [...(missing.get(least.id) ?? []), home]);
    }
  return missing;
}

/** The moves that bring people to other tables; no one loses a place. */
export function movesToSeats(placement: Placement, { seats }: SeatedExperts, next: ExpertSeats): Place {
  return {
    moves: [...next].flatMap(([student, to]) => {
      const from = seats.get(student) ?? null;
      return from === to ? [] : movesTo(placement, [{ student, from }], to).moves;
    }),
  };
}

/** “all covered”, “2 gaps”, “3 people only” */
export function sayHome({ lacking, isSmall, people }: HomeRow): string {
  if (lacking.length === 0) return 'all covered';
  return isSmall ? `${counted(people.length, 'person', 'people')} only` : counted(lacking.length, 'gap');
}

/** What someone hears who does not see the cells: “2 at Salt, no one at Gas”. */
export const sayCells = ({ at }: HomeRow, topics: BoardView['topics']): string =>
  topics
    .map(({ name }, topic) => {
      const count = sure(at[topic]).length;
      return `${count === 0 ? 'no one' : count} at ${name}`;
    })
    .join(', ');

/** The topics with their letters and tables, in order; last the groups that belong to none, if there are any. */
export function columnsOf({ topics, groups }: BoardView): {
  readonly letter: string | null;
  readonly name: string;
  readonly about: string;
  readonly tables: readonly BoardGroup[];
}[] {
  const byTopic = groupedBy(groups, (group) => group.topic);
  const others = byTopic.get(null) ?? [];
  return [
    ...topics.map(({ name, about }, at) => ({
      letter: topicLetter(at),
      name,
      about,
      tables: byTopic.get(at + 1) ?? [],
    })),
    ...(others.length === 0
      ? []
      : [{ letter: null, name: 'Other groups', about: 'They have no topic.', tables: others }]),
  ];
}

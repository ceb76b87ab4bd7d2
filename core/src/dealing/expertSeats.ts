import type { EnrolmentId, GroupId } from '../ids/index.js';
import { groupedBy, sure } from '../lists/index.js';
import { randomFrom, shuffle } from '../random/index.js';
import type { Way } from './flow.js';
import { leastCostFlow } from './flow.js';

export interface TopicTable {
  readonly id: GroupId;
  /** Which topic, from 0. */
  readonly topic: number;
  /** People at most; null: any number. */
  readonly most: number | null;
  /** No one comes and no one leaves. */
  readonly isLocked: boolean;
}

type Random = () => number;

/** Where everyone sits; who has no table is not in it. */
export type ExpertSeats = ReadonlyMap<EnrolmentId, GroupId>;

export interface SeatedExperts {
  /** Of each home, its people. Someone without a home is one of their own. */
  readonly homes: readonly (readonly EnrolmentId[])[];
  readonly topics: number;
  readonly tables: readonly TopicTable[];
  readonly seats: ExpertSeats;
}

/** What one more in a home's topic, in a topic, at a table, and of one home at one table weighs against one person more who moves. Each outweighs all below. */
const weight = { home: 1e12, topic: 1e9, table: 1e6, mixed: 1e3, move: 1 } as const;

/** Seats anew for as few people as can be (CALC §4): first every home has every topic as evenly as it can, then topics and tables are even, then those of one home sit
 * apart, and last as many as possible stay where they are. Solved exactly, topics first and the tables of each topic then, both as flows of least cost. */
export const rebalanced = (experts: SeatedExperts): ExpertSeats => seated(experts, null);

/** Everyone seated anew by chance, under the same rules. Those at locked tables stay. */
export const cutAgain = (experts: SeatedExperts, seed: number): ExpertSeats => {
  const stays = new Set(experts.tables.flatMap((table) => (table.isLocked ? [table.id] : [])));
  const seats = new Map([...experts.seats].filter(([, table]) => stays.has(table)));
  const random = randomFrom(seed);
  const homes = shuffle(
    experts.homes.map((people) => shuffle([...people], random)),
    random,
  );
  return seated({ ...experts, homes, seats }, random);
};

function seated({ homes, topics, tables, seats }: SeatedExperts, random: Random | null): ExpertSeats {
  const tableOf = new Map(tables.map((table) => [table.id, table]));
  const at = (person: EnrolmentId) => tableOf.get(sure(seats.get(person)));
  const isFixed = (person: EnrolmentId) => seats.has(person) && at(person)?.isLocked !== false;
  const next = new Map(seats);
  const byTopic: { home: number; person: EnrolmentId }[][] = Array.from({ length: topics }, () => []);
  const free = homes.map((people) => people.filter((person) => !isFixed(person)));
  const fixed = homes.map((people) => people.filter(isFixed));
  const topicOf = (person: EnrolmentId) => (seats.has(person) ? at(person)?.topic : undefined);

  const counts = topicCounts({ free, fixed, topics, tables, topicOf, random });
  for (const [home, people] of free.entries()) {
    for (const { item, to } of sharedOut(people, sure(counts[home]), topicOf)) {
      next.delete(item);
      if (to !== null) sure(byTopic[to]).push({ home, person: item });
    }
  }
  for (const [topic, people] of byTopic.entries()) {
    const open = tables.filter((table) => table.topic === topic && !table.isLocked);
    for (const [person, table] of tableSeats(people, open, seats, random)) next.set(person, table);
  }
  return next;
}

interface TopicRequest {
  readonly free: readonly (readonly EnrolmentId[])[];
  readonly fixed: readonly (readonly EnrolmentId[])[];
  readonly topics: number;
  readonly tables: readonly TopicTable[];
  readonly topicOf: (person: EnrolmentId) => number | undefined;
  readonly random: Random | null;
}

/** How many of each home (rows) go to each topic (columns). */
function topicCounts({ free, fixed, topics, tables, topicOf, random }: TopicRequest): number[][] {
  const homes = free.length;
  const [source, sink] = [homes + homes * topics + topics, homes + homes * topics + topics + 1];
  const ways: Way[] = [];
  const kept: { home: number; topic: number; way: number }[] = [];
  const already = (home: number, topic: number) =>
    sure(fixed[home]).filter((person) => topicOf(person) === topic).length;
  for (const [home, people] of free.entries()) {
    ways.push({ from: source, to: home, most: people.length });
    for (let topic = 0; topic < topics; topic += 1) {
      const cell = homes + home * topics + topic;
      ways.push({
        from: home,
        to: cell,
        most: people.length,
        rising: weight.home,
        already: already(home, topic),
      });
      kept.push({ home, topic, way: ways.length - 1 });
      const stay = people.filter((person) => topicOf(person) === topic).length;
      const column = homes + homes * topics + topic;
      if (stay > 0) ways.push({ from: cell, to: column, most: stay });
      const each = weight.move + (random ? Math.floor(random() * 100) : 0);
      ways.push({ from: cell, to: column, most: people.length, each });
    }
  }
  for (let topic = 0; topic < topics; topic += 1) {
    const open = tables.filter((table) => table.topic === topic && !table.isLocked);
    const most = open.reduce((sum, table) => sum + (table.most ?? Infinity), 0);
    const there = fixed.flat().filter((person) => topicOf(person) === topic).length;
    const column = homes + homes * topics + topic;
    ways.push({ from: column, to: sink, most, rising: weight.topic, already: there });
  }
  const flow = leastCostFlow(sink + 1, ways, source, sink);
  const counts = free.map(() => Array.from({ length: topics }, () => 0));
  for (const { home, topic, way } of kept) sure(counts[home])[topic] = sure(flow[way]);
  return counts;
}

/** The tables of one topic for those who go to it. */
function tableSeats(
  people: readonly { readonly home: number; readonly person: EnrolmentId }[],
  open: readonly TopicTable[],
  seats: ExpertSeats,
  random: Random | null,
): Map<EnrolmentId, GroupId> {
  const ofHome = [...groupedBy(people, (each) => each.home).values()].map((each) =>
    each.map(({ person }) => person),
  );
  const tables = random ? shuffle([...open], random) : open;
  const [homes, count] = [ofHome.length, tables.length];
  const [source, sink] = [homes + homes * count + count, homes + homes * count + count + 1];
  const ways: Way[] = [];
  const kept: number[][] = [];
  for (const [home, own] of ofHome.entries()) {
    ways.push({ from: source, to: home, most: own.length });
    kept.push([]);
    for (const [at, table] of tables.entries()) {
      const cell = homes + home * count + at;
      ways.push({ from: home, to: cell, most: own.length, rising: weight.mixed });
      sure(kept[home]).push(ways.length - 1);
      const stay = own.filter((person) => seats.get(person) === table.id).length;
      if (stay > 0) ways.push({ from: cell, to: homes + homes * count + at, most: stay });
      ways.push({ from: cell, to: homes + homes * count + at, most: own.length, each: weight.move });
    }
  }
  for (const [at, table] of tables.entries())
    ways.push({
      from: homes + homes * count + at,
      to: sink,
      most: table.most ?? Infinity,
      rising: weight.table,
    });
  const flow = leastCostFlow(sink + 1, ways, source, sink);
  const placed = new Map<EnrolmentId, GroupId>();
  for (const [home, own] of ofHome.entries()) {
    const wanted = sure(kept[home]).map((way) => sure(flow[way]));
    const now = (person: EnrolmentId) => {
      const at = tables.findIndex((table) => table.id === seats.get(person));
      return at < 0 ? undefined : at;
    };
    for (const { item, to } of sharedOut(own, wanted, now))
      if (to !== null) placed.set(item, sure(tables[to]).id);
  }
  return placed;
}

/** Gives each item a place so that every place has as many as wanted; those who may stay do. null: nothing is left. */
function sharedOut<Item>(
  items: readonly Item[],
  wanted: readonly number[],
  now: (item: Item) => number | undefined,
): { readonly item: Item; readonly to: number | null }[] {
  const left = [...wanted];
  const staying = new Map<Item, number>();
  for (const item of items) {
    const at = now(item);
    if (at === undefined || sure(left[at]) === 0) continue;
    left[at] = sure(left[at]) - 1;
    staying.set(item, at);
  }
  let to = 0;
  return items.map((item) => {
    const stays = staying.get(item);
    if (stays !== undefined) return { item, to: stays };
    while (to < left.length && sure(left[to]) === 0) to += 1;
    if (to === left.length) return { item, to: null };
    left[to] = sure(left[to]) - 1;
    return { item, to };
  });
}

export interface HomeCoverage {
  /** For each topic, the tables at which people of this home sit. */
  readonly at: readonly (readonly GroupId[])[];
  /** Topics (from 0) that no one of the home learns. */
  readonly lacking: readonly number[];
  /** Whether the home has too few people for every topic: then no seats can help. */
  readonly isSmall: boolean;
}

/** What each home learns. */
export function coverage({ homes, topics, tables, seats }: SeatedExperts): HomeCoverage[] {
  const topicOf = new Map(tables.map((table) => [table.id, table.topic]));
  return homes.map((people) => {
    const at: GroupId[][] = Array.from({ length: topics }, () => []);
    for (const person of people) {
      const table = seats.get(person);
      const topic = table && topicOf.get(table);
      if (table && topic !== undefined) sure(at[topic]).push(table);
    }
    const lacking = at.flatMap((tables, topic) => (tables.length === 0 ? [topic] : []));
    return { at, lacking, isSmall: people.length < topics };
  });
}

/** "A", "B" … "Z", "AA": the letter of a topic, from 0. */
export const topicLetter = (topic: number): string =>
  topic < 26
    ? String.fromCodePoint(65 + topic)
    : `${topicLetter(Math.floor(topic / 26) - 1)}${topicLetter(topic % 26)}`;

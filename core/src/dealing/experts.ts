import type { EnrolmentId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import { randomFrom, shuffle } from '../random/index.js';

export interface Home {
  readonly name: string;
  readonly members: readonly EnrolmentId[];
}

export interface ExpertTable {
  readonly topic: string;
  /** Of several for the same topic, which one; null: the only one. */
  readonly parallel: number | null;
  readonly members: readonly EnrolmentId[];
}

export interface ExpertTables {
  readonly tables: readonly ExpertTable[];
  /** Homes that are smaller than the number of topics, and what no one of theirs learns. */
  readonly lacking: readonly { readonly home: string; readonly topics: readonly string[] }[];
}

interface ExpertRequest {
  readonly homes: readonly Home[];
  readonly topics: readonly string[];
  /** A table larger than this becomes parallel ones; null: never. */
  readonly most: number | null;
  readonly seed: number;
}

/** Gives everyone in a home a topic (CALC §4): in each home the topics are as even as can be, and over the class the tables differ by one at most. A home's extra topics are those that have the
 * fewest people so far; since they are different ones, no table gets two ahead of another. */
export function expertTables({ homes, topics, most, seed }: ExpertRequest): ExpertTables {
  const random = randomFrom(seed);
  const byTopic: EnrolmentId[][][] = topics.map(() => []); // for each topic, each home's people
  const totals = topics.map(() => 0);
  const lacking: { home: string; topics: string[] }[] = [];
  for (const home of homes) {
    const everyOne = Math.floor(home.members.length / topics.length);
    const extras = home.members.length % topics.length;
    const fewest = shuffle([...topics.keys()], random).sort((a, b) => sure(totals[a]) - sure(totals[b]));
    const gets = topics.map((_, topic) => everyOne + (fewest.indexOf(topic) < extras ? 1 : 0));
    const people = shuffle([...home.members], random);
    for (const [topic, count] of gets.entries()) {
      sure(byTopic[topic]).push(people.splice(0, count));
      totals[topic] = sure(totals[topic]) + count;
    }
    const without = topics.filter((_, topic) => gets[topic] === 0);
    if (without.length > 0 && home.members.length > 0) lacking.push({ home: home.name, topics: without });
  }
  const tables = topics.flatMap((topic, at) => {
    const count = most === null ? 1 : Math.max(1, Math.ceil(sure(totals[at]) / most));
    const parallel: EnrolmentId[][] = Array.from({ length: count }, () => []);
    let next = 0; // people of one home come one after the other, so that they sit at different tables
    for (const person of sure(byTopic[at]).flat()) {
      sure(parallel[next]).push(person);
      next = (next + 1) % count;
    }
    return parallel.map((members, number): ExpertTable => ({
      topic,
      parallel: count === 1 ? null : number + 1,
      members,
    }));
  });
  return { tables, lacking };
}

/** "Salt", or "Salt 2" where a topic has several tables. */
export const tableName = ({ topic, parallel }: Pick<ExpertTable, 'topic' | 'parallel'>): string =>
  parallel === null ? topic : `${topic} ${parallel}`;

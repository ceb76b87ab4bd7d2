import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { EnrolmentId } from '../ids/index.js';
import { expertTables, tableName } from './index.js';

const aClass = fc.record({
  sizes: fc.array(fc.nat(7), { minLength: 1, maxLength: 9 }),
  topics: fc.uniqueArray(fc.constantFrom('Salt', 'Temperature', 'Starters', 'Packaging', 'Tasting'), {
    minLength: 1,
    maxLength: 5,
  }),
  most: fc.option(fc.integer({ min: 1, max: 6 })),
  seed: fc.nat(500),
});
const homesOf = (sizes: readonly number[]) =>
  sizes.map((size, home) => ({
    name: `Home ${home}`,
    members: Array.from({ length: size }, (_, at) => `${home}.${at}` as EnrolmentId),
  }));
const differ = (counts: readonly number[]) => Math.max(0, ...counts) - Math.min(...counts);

describe('expert tables', () => {
  it('take everyone once; each home has every topic as evenly as can be, and no table is two larger than another', () =>
    fc.assert(
      fc.property(aClass, ({ sizes, topics, most, seed }) => {
        const homes = homesOf(sizes);
        const { tables, lacking } = expertTables({ homes, topics, most, seed });
        expect(tables.flatMap((table) => table.members).sort()).toEqual(
          homes.flatMap((home) => home.members).sort(),
        );
        const at = (topic: string) =>
          tables.filter((table) => table.topic === topic).flatMap((table) => table.members);
        for (const { name, members } of homes) {
          const counts = topics.map((topic) => at(topic).filter((one) => members.includes(one)).length);
          expect(differ(counts)).toBeLessThanOrEqual(1);
          const without = topics.filter((_, index) => counts[index] === 0);
          expect(lacking.find((each) => each.home === name)?.topics ?? []).toEqual(
            members.length === 0 ? [] : without,
          );
          expect(without.length === 0 || members.length < topics.length).toBe(true);
        }
        expect(differ(topics.map((topic) => at(topic).length))).toBeLessThanOrEqual(1);
        for (const topic of topics) {
          const parallel = tables.filter((table) => table.topic === topic);
          expect(differ(parallel.map((table) => table.members.length))).toBeLessThanOrEqual(1);
          if (most !== null)
            for (const table of parallel) expect(table.members.length).toBeLessThanOrEqual(most);
          // Parallel tables mix homes: those of one home are spread over them.
          for (const home of homes)
            expect(
              differ(
                parallel.map((table) => table.members.filter((one) => home.members.includes(one)).length),
              ),
            ).toBeLessThanOrEqual(1);
        }
        expect(expertTables({ homes, topics, most, seed })).toEqual({ tables, lacking });
      }),
    ));

  it('are called by their topic, and counted where there are several', () => {
    const { tables } = expertTables({
      homes: homesOf([4, 4, 4]),
      topics: ['Salt', 'Packaging'],
      most: 4,
      seed: 1,
    });
    expect(tables.map((table) => [tableName(table), table.members.length])).toEqual([
      ['Salt 1', 3],
      ['Salt 2', 3],
      ['Packaging 1', 3],
      ['Packaging 2', 3],
    ]);
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { dealing } from './index.js';
import { aProblem, group, id, student } from './problemsForTests.js';
import type { DealProblem, Rule } from './index.js';

/** Attributes as classes have them at their worst: one outlier, no one known, all alike, very large numbers. */
const anAttribute = (count: number) =>
  fc.oneof(
    fc.nat(count - 1).map((one) => (at: number) => (at === one ? '1' : '0')),
    fc.constant(() => undefined),
    fc.constant(() => '7'),
    fc.constantFrom('1e9', '0.0001').map((big) => (at: number) => (at === 0 ? big : '0')),
    fc.nat(5).map((kinds) => (at: number) => String(at % (kinds + 1))),
  );

const aRule = (count: number): fc.Arbitrary<Rule> =>
  fc.oneof(
    fc.record({
      kind: fc.constantFrom('spread' as const, 'alike' as const),
      attribute: fc.constantFrom('a', 'b'),
      as: fc.constantFrom('category' as const, 'number' as const),
    }),
    fc.record({ kind: fc.constant('nobody-alone' as const), attribute: fc.constantFrom('a', 'b') }),
    fc.record({
      kind: fc.constant('fresh' as const),
      sets: fc.constant([{ name: 'Before', groups: [Array.from({ length: count }, (_, at) => id(at))] }]),
    }),
    fc
      .uniqueArray(fc.nat(count - 1).map(id), { minLength: 2, maxLength: 2 })
      .map((students) => ({ kind: 'apart' as const, students })),
  );

const aMix: fc.Arbitrary<DealProblem> = fc
  .record({ count: fc.integer({ min: 2, max: 14 }), groups: fc.integer({ min: 1, max: 16 }) })
  .chain(({ count, groups }) =>
    fc
      .record({
        a: anAttribute(count),
        b: anAttribute(count),
        rules: fc.array(aRule(count), { maxLength: 4 }),
        seed: fc.nat(9999),
      })
      .map(({ a, b, rules, seed }) =>
        aProblem(
          Array.from({ length: count }, (_, at) => {
            const known = Object.entries({ a: a(at), b: b(at) }).filter(
              (entry): entry is [string, string] => entry[1] !== undefined,
            );
            return student(at, Object.fromEntries(known));
          }),
          Array.from({ length: groups }, (_, at) => group(at)),
          rules,
          seed,
        ),
      ),
  );

describe('a deal', () => {
  it('ends, whatever the class and the rules, within steps that are counted', () => {
    fc.assert(
      fc.property(aMix, (problem) => {
        const run = dealing({ ...problem, effort: 0.02 });
        for (let step = 0; ; step += 1) {
          expect(step).toBeLessThan(130);
          const next = run.next();
          if (!next.done) continue;
          if (next.value.ok)
            for (const { usual, cost, bound } of next.value.deal.reached)
              expect([usual, cost, bound].every(Number.isFinite)).toBe(true);
          break;
        }
      }),
      { numRuns: 500, seed: 20261128 },
    );
  });

  it('is there to be taken before anything was looked for', () => {
    const problem = aProblem(
      [0, 1, 2, 3].map((at) => student(at, { a: String(at % 2) })),
      [group(0), group(1)],
      [{ kind: 'spread', attribute: 'a', as: 'category' }],
    );
    const first = dealing(problem).next();
    expect(first.done).toBe(false);
    expect(first.value).toMatchObject({ part: 0, best: { objective: expect.any(Number) } });
  });

  it('weighs what nothing can change not at all, so that it is not put before what can be had', () => {
    const problem = aProblem(
      Array.from({ length: 8 }, (_, at) => student(at, { same: 'x', lab: at < 4 ? 'none' : 'some' })),
      [group(0), group(1)],
      [
        { kind: 'spread', attribute: 'same', as: 'category' },
        { kind: 'spread', attribute: 'lab', as: 'category' },
      ],
    );
    const run = dealing(problem);
    for (;;) {
      const next = run.next();
      if (!next.done) continue;
      expect(next.value).toMatchObject({ ok: true, deal: { reached: [{ usual: 0 }, { cost: 0 }] } });
      break;
    }
  });
});

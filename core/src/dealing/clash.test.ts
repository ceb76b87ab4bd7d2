import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { dealAll, sayClash } from './index.js';
import type { DealProblem } from './index.js';
import { id, ids, student, group, aProblem, people, anyProblem } from './problemsForTests.js';

describe('rules that cannot all hold', () => {
  const groups = [group(0, 3), group(1, 3)];
  const cases: [string, DealProblem, RegExp][] = [
    [
      'a pair together and apart',
      aProblem(people(6), groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 0) },
      ]),
      /S0 and S1 must be together and apart at once/,
    ],
    [
      'apart through a third',
      aProblem(people(6), groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'together', students: ids(1, 2) },
        { kind: 'apart', students: ids(0, 2) },
      ]),
      /S0 and S2 must be together and apart/,
    ],
    [
      'together, pinned apart',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g1'), ...people(6).slice(2)], groups, [
        { kind: 'together', students: ids(0, 1) },
      ]),
      /one stays in G0 and the other in G1/,
    ],
    [
      'apart, pinned together',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g0'), ...people(6).slice(2)], groups, [
        { kind: 'apart', students: ids(0, 1) },
      ]),
      /both stay in G0/,
    ],
    [
      'two who are pinned to one group and bring more than it has room for',
      aProblem(
        [student(0, {}, 'g0'), student(1, {}, 'g0'), ...people(6).slice(2)],
        [group(0, 3), group(1)],
        [
          { kind: 'together', students: ids(0, 2) },
          { kind: 'together', students: ids(1, 3) },
        ],
      ),
      /S0, S2, S1 and S3 must be together in G0, which has 1 place/,
    ],
    [
      'apart, and held together by a lock',
      aProblem(
        [student(0, {}, 'g0'), student(1, {}, 'g0'), ...people(6).slice(2)],
        [group(0, 3, true), group(1)],
        [{ kind: 'apart', students: ids(0, 1) }],
      ),
      /both stay in G0\. G0 is locked: unlock it, or remove the rule\.$/,
    ],
    [
      'together, held apart by two locks',
      aProblem(
        [student(0, {}, 'g0'), student(1, {}, 'g1'), ...people(6).slice(2)],
        [group(0, 3, true), group(1, 3, true), group(2)],
        [{ kind: 'together', students: ids(0, 1) }],
      ),
      /the other in G1\. G0 and G1 are locked: unlock one of them/,
    ],
    [
      'together with someone whose group is locked',
      aProblem(
        [student(0, {}, 'g0'), ...people(6).slice(1)],
        [group(0, 3, true), group(1)],
        [{ kind: 'together', students: ids(0, 2) }],
      ),
      /together in G0, which has no place for those who come\. G0 is locked: unlock it/,
    ],
    [
      'more together than a group holds',
      aProblem(people(6), groups, [{ kind: 'together', students: ids(0, 1, 2, 3) }]),
      /S0, S1, S2 and S3 .* 4 people, and no group holds more than 3/,
    ],
    [
      'more apart than groups',
      aProblem(people(6), groups, [{ kind: 'apart', students: ids(0, 1, 2) }]),
      /each of these 3 must be apart from all the others, and there are 2 groups/,
    ],
    [
      'apart by three rules',
      aProblem(people(6), groups, [
        { kind: 'apart', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 2) },
        { kind: 'apart', students: ids(0, 2) },
      ]),
      /each of these 3/,
    ],
    [
      'with someone in a full group',
      aProblem([...[0, 1, 2].map((at) => student(at, {}, 'g0')), ...people(6).slice(3)], groups, [
        { kind: 'together', students: ids(0, 3) },
      ]),
      /in G0, which has no place/,
    ],
    [
      'with someone in a locked group',
      aProblem(
        [student(0, {}, 'g0'), ...people(6).slice(1)],
        [group(0, 3, true), group(1, 6)],
        [{ kind: 'together', students: ids(0, 1) }],
      ),
      /in G0, which has no place/,
    ],
    [
      'apart from someone in every group',
      aProblem([student(0, {}, 'g0'), student(1, {}, 'g1'), ...people(6).slice(2)], groups, [
        { kind: 'apart', students: ids(2, 0) },
        { kind: 'apart', students: ids(2, 1) },
      ]),
      /S2 must be apart from S0 and S1/,
    ],
    [
      'two pairs of three for two groups of three',
      aProblem(
        people(6),
        [group(0, 2), group(1, 2), group(2, 2)],
        [{ kind: 'together', students: ids(0, 1, 2) }],
      ),
      /no group holds more than 2/,
    ],
    [
      'together with someone whose neighbour is shunned',
      aProblem([student(0, {}, 'g0'), ...people(6).slice(1)], groups, [
        { kind: 'together', students: ids(0, 1) },
        { kind: 'apart', students: ids(1, 2) },
        { kind: 'together', students: ids(2, 0) },
      ]),
      /S[0-2] and S[0-2] must be together and apart/,
    ],
    [
      'trios that leave one over',
      aProblem(
        people(8),
        [group(0, 4), group(1, 4)],
        [
          { kind: 'together', students: ids(0, 1, 2) },
          { kind: 'together', students: ids(3, 4, 5) },
          { kind: 'together', students: ids(6, 7) },
        ],
      ),
      /S[67] and S[67] must be together, but the other rules leave no group/,
    ],
  ];

  it.each(cases)('are explained with names: %s', (_what, problem, sentence) => {
    const result = dealAll(problem);
    if (result.ok) throw new Error('it was dealt');
    expect(sayClash(result.clash)).toMatch(sentence);
  });

  it('are never dropped in silence: one rule more holds or is told', () =>
    fc.assert(
      fc.property(
        anyProblem(10),
        fc.uniqueArray(fc.nat(9).map(id), { minLength: 2, maxLength: 4 }),
        (problem, students) => {
          const result = dealAll({
            ...problem,
            rules: [...problem.rules, { kind: 'apart', students }],
            effort: 0.1,
          });
          if (!result.ok) return expect(sayClash(result.clash).length).toBeGreaterThan(20);
          const at = students.flatMap((one) => result.deal.seats.get(one) ?? []);
          expect(new Set(at).size).toBe(at.length);
        },
      ),
      { numRuns: 200 },
    ));
});

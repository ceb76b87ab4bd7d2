import { expect, it } from '@jest/globals';
import { randomFrom } from '../random/index.js';
import { aProblem, group, id, student } from './problemsForTests.js';
import { Search } from './search.js';
import { seatEveryone } from './start.js';
import { compile } from './units.js';
import { weigh } from './weigh.js';

it('the last polish ends where costs are so large that their sums are rounded', () => {
  const problem = aProblem(
    [student(0, { lab: 'some', hours: '4' }), student(1, { lab: 'none' }), student(2, { lab: 'some' }, 'g0')],
    [group(0, 6), group(1, 3), group(2, 5, true), group(3, 1)],
    [
      { kind: 'spread', attribute: 'hours', as: 'number' },
      { kind: 'fresh', sets: [{ name: 'Before', groups: [[], [id(1), id(2)], [id(0)]] }] },
      { kind: 'spread', attribute: 'lab', as: 'category' },
    ],
    994,
  );
  const compiled = compile(problem);
  const random = randomFrom(problem.seed);
  const start = seatEveryone(problem, compiled, random);
  if (!start.ok) throw new Error('it can be dealt');
  let asked = 0;
  const wishes = weigh(problem, start.table).map((wish) => ({
    ...wish,
    measured: {
      ...wish.measured,
      cost: (...of: Parameters<typeof wish.measured.cost>) => {
        asked += 1;
        if (asked > 100_000) throw new Error('it goes on for ever');
        return wish.measured.cost(...of);
      },
    },
  }));
  const search = new Search(compiled, start.table, wishes, random);
  search.run(200, 1, 0);
  for (const _round of search.polish());
  expect(search.best.groupOf[2]).toBe(0);
});

import { expect, it } from '@jest/globals';
import { counted, namesTogether } from './index.js';

it('sets a number beside its noun', () =>
  expect(
    [0, 1, 2]
      .map((count) => counted(count, 'student'))
      .concat(counted(2, 'entry', 'entries'), counted(18807, 'post')),
  ).toEqual(['0 students', '1 student', '2 students', '2 entries', '18,807 posts']));

it('lists names, and says how many more there are', () => {
  const names = ['Ada', 'Ben', 'Cleo', 'Dina'];
  expect(names.map((_, at) => namesTogether(names.slice(0, at + 1)))).toEqual([
    'Ada',
    'Ada and Ben',
    'Ada, Ben and Cleo',
    'Ada, Ben, Cleo and Dina',
  ]);
  expect(namesTogether(names, 3)).toBe('Ada, Ben, Cleo and 1 more');
  expect(namesTogether([])).toBe('');
});

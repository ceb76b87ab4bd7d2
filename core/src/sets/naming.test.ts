import { describe, expect, it } from '@jest/globals';
import { lettersOf, nameByPattern, namesFor } from './index.js';

describe('names of groups', () => {
  it('fills the blank with the number or with letters', () => {
    expect(nameByPattern('Bench {n}', 3)).toBe('Bench 3');
    expect(nameByPattern('Bench {A}', 3)).toBe('Bench C');
  });
  it('goes on after Z with AA', () =>
    expect([25, 26, 27, 52, 53].map(lettersOf)).toEqual(['Y', 'Z', 'AA', 'AZ', 'BA']));
  it('never starts two groups with one name', () => expect(nameByPattern('Bench', 2)).toBe('Bench 2'));
  it('takes pasted names first and goes on by the pattern', () =>
    expect(namesFor(4, 'Bench {n}', ['Crock', '  ', ' Carboy '])).toEqual([
      'Crock',
      'Carboy',
      'Bench 3',
      'Bench 4',
    ]));
});

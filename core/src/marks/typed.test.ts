import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { keptDecimal } from '../text/index.js';
import { readPoints } from './index.js';

describe('points as they are typed', () => {
  it.each([
    ['', null],
    ['  ', null],
    ['31.5', '31.5'],
    ['1,5', '1.5'],
    [' 7 ', '7'],
    ['+2', '2'],
    ['007.50', '7.5'],
    ['3.', '3'],
    ['.5', '0.5'],
    ['0', '0'],
    ['-0', '0'],
    ['40', '40'],
  ])('are %j read as %j', (text, points) => expect(readPoints(text, '40')).toEqual({ ok: true, points }));

  it.each([
    ['two', 'Write a number, like 31.5.'],
    ['1.2.3', 'Write a number, like 31.5.'],
    ['-', 'Write a number, like 31.5.'],
    ['1e3', 'Write a number, like 31.5.'],
    ['+1.555', 'At most 2 decimals.'],
    ['.125', 'At most 2 decimals.'],
    ['40.01', 'From 0 to 40.'],
    ['99999', 'From 0 to 40.'],
    ['-1', 'From 0 to 40.'],
  ])('are refused in words where they cannot be meant: %j', (text, says) =>
    expect(readPoints(text, '40')).toEqual({ ok: false, says }),
  );

  it('may be taken away where that is asked for', () => {
    expect(readPoints('−2,5', '40', '-40')).toEqual({ ok: true, points: '-2.5' });
    expect(readPoints('-41', '40', '-40')).toEqual({ ok: false, says: 'From −40 to 40.' });
  });

  it('are kept in the one form that the database takes, whatever is typed', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'0 1 2 3 4 5 6 7 8 9 . , + - − e'.split(' '), ' ') }),
        (text) => {
          const read = readPoints(text, '99999', '-99999');
          if (read.ok && read.points !== null) expect(read.points).toMatch(keptDecimal);
        },
      ),
    ));
});

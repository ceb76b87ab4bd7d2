import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { fitsKind, guessKind, halfDays, readHalfDays, readNumber, writeHalfDays } from './index.js';

describe('free half-days', () => {
  it('are read as people write them', () => {
    const read = (text: string) => [...(readHalfDays(text) ?? ['not'])];
    expect(read('Mon am, Tuesday afternoon')).toEqual(['Mon am', 'Tue pm']);
    expect(read('FRI')).toEqual(['Fri am', 'Fri pm']);
    expect(read('thurs mornings; sat pm / sun')).toEqual(['Thu am', 'Sat pm', 'Sun am', 'Sun pm']);
    expect(read('none')).toEqual([]);
  });

  it('are not read into what is something else', () => {
    for (const text of ['', 'some', 'Mo', 'Mon noon', 'Mon am early', 'monastery', 'Mon, maybe', '3'])
      expect(readHalfDays(text)).toBeNull();
  });

  it('are read back as they were written', () =>
    fc.assert(
      fc.property(fc.subarray([...halfDays]), (chosen) => {
        expect(readHalfDays(writeHalfDays(new Set(chosen)))).toEqual(new Set(chosen));
      }),
    ));
});

describe('numbers', () => {
  it('take both decimal signs and nothing around them', () => {
    expect(['3', '-2.5', '2,5', '+1'].map(readNumber)).toEqual([3, -2.5, 2.5, 1]);
    expect(['', '3 h', '1,000,0', '1e5', '٣', '.5'].map(readNumber)).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
    ]);
  });
});

describe('the kind of an attribute', () => {
  it('is guessed from its values', () => {
    expect(guessKind(['some', 'none', 'some'])).toBe('category');
    expect(guessKind(['3', '2,5', '10'])).toBe('number');
    expect(guessKind(['Mon am', 'Tue', 'Wed, Fri pm', 'none', 'anytime'])).toBe('half-days');
    expect(guessKind(Array.from({ length: 30 }, (_, at) => `Words of person ${at}`))).toBe('text');
    expect(guessKind(Array.from({ length: 48 }, (_, at) => `Language ${at % 30}`))).toBe('category');
    expect(guessKind([])).toBe('text');
  });

  it('tells values that cannot be used as such', () => {
    expect(fitsKind('three', 'number')).toBe(false);
    expect(fitsKind('anytime', 'half-days')).toBe(false);
    expect(fitsKind('anything', 'category')).toBe(true);
  });
});

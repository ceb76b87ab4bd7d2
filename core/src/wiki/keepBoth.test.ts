import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { RichTextNode } from '../text/index.js';
import { plainText } from '../text/index.js';
import { keepBoth } from './index.js';

const text = (...lines: readonly string[]): RichTextNode => ({
  type: 'doc',
  content: lines.map((line) => ({ type: 'paragraph', content: [{ type: 'text', text: line }] })),
});
const both = (base: readonly string[], mine: readonly string[], theirs: readonly string[]) =>
  plainText(keepBoth(text(...base), text(...mine), text(...theirs))).split('\n');

describe('keeping both of two texts', () => {
  it('has what each of them added, theirs first at the same place', () => {
    expect(both(['a', 'b'], ['a', 'mine', 'b'], ['a', 'b', 'theirs'])).toEqual(['a', 'mine', 'b', 'theirs']);
    expect(both(['a'], ['a', 'mine'], ['a', 'theirs'])).toEqual(['a', 'theirs', 'mine']);
    expect(both(['a'], ['a', 'same'], ['a', 'same'])).toEqual(['a', 'same']);
  });

  it('leaves out what either took out, and has both of what both changed', () => {
    expect(both(['a', 'b', 'c'], ['b', 'c'], ['a', 'b'])).toEqual(['b']);
    expect(both(['a', 'b'], ['a', 'b by me'], ['a', 'b by them'])).toEqual(['a', 'b by them', 'b by me']);
    expect(both(['a', 'b'], ['a changed', 'b'], ['a', 'b changed'])).toEqual(['a changed', 'b changed']);
  });

  it('loses nothing that either wrote anew', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 6 });
    const own = (name: string) =>
      fc.array(fc.constantFrom('a', 'b', 'c', 'd', `${name} one`, `${name} two`), { maxLength: 8 });
    fc.assert(
      fc.property(lines, own('mine'), own('theirs'), (base, mine, theirs) => {
        const merged = both(base, mine, theirs);
        for (const line of [...mine, ...theirs].filter((each) => / (one|two)$/.test(each)))
          expect(merged).toContain(line);
      }),
    );
  });

  it('is the other text where only one of them changed something', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(lines, lines, (base, other) => {
        expect(both(base, base, other)).toEqual(other);
        expect(both(base, other, base)).toEqual(other);
      }),
    );
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges, compare, countChanges } from './index.js';

const say = (before: string, after: string) =>
  compare(before, after)
    .map(({ kind, text }) => (kind === 'same' ? text : kind === 'added' ? `[+${text}]` : `[-${text}]`))
    .join('');

describe('comparing two versions of a page', () => {
  it('shows the words that were put in and taken out', () =>
    expect(
      say(
        'Opened jars 2 and 3 in the evening. Jar 2 smells of toast.',
        'Opened jars 2 and 3 at 18:30. Jar 2 smells of bread crust.',
      ),
    ).toBe('Opened jars 2 and 3 [-in the evening][+at 18:30]. Jar 2 smells of [-toast][+bread crust].'));
  it('leaves lines that did not change alone', () =>
    expect(say('Day 18\nold\nDay 19', 'Day 18\nnew\nDay 19')).toBe('Day 18\n[-old][+new]\nDay 19'));
  it('says nothing of two equal texts, and all of a blanked one', () => {
    expect(say('same', 'same')).toBe('same');
    expect(say('all of it', '')).toBe('[-all of it]');
  });
  it('compares words in scripts with accents and marks as words', () =>
    expect(say('Añejo नमक गाढ़ा', 'Añejo नमक पतला')).toBe('Añejo नमक [-गाढ़ा][+पतला]'));
  it('counts words, not signs', () =>
    expect(countChanges(compare('one, two', 'one; two three'))).toEqual({ added: 1, removed: 0 }));
  it('refuses changes that were made from another text', () => {
    expect(() => applyChanges('another text', compare('one', 'two'))).toThrow(RangeError);
    expect(() => applyChanges('one and more', compare('one', 'two'))).toThrow(RangeError);
  });
  it('is done with two long texts that have nothing in common', () => {
    const long = (word: string) => Array.from({ length: 20_000 }, (_, at) => `${word}${at}`).join(' ');
    const changes = compare(long('a'), long('b'));
    expect(applyChanges(long('a'), changes)).toBe(long('b'));
  });
});

const aText = fc
  .array(
    fc.oneof(
      fc.constantFrom('salt', 'brine', 'jar', 'day', ' ', ' ', ' ', '\n', '.', ','),
      fc.string({ unit: 'grapheme', maxLength: 3 }),
    ),
    {
      maxLength: 60,
    },
  )
  .map((pieces) => pieces.join(''));

describe('comparing over generated texts', () => {
  it('makes the later text from the earlier one, and each from its own stretches', () =>
    fc.assert(
      fc.property(aText, aText, (before, after) => {
        const changes = compare(before, after);
        expect(applyChanges(before, changes)).toBe(after);
        const without = (kind: string) =>
          changes.flatMap((change) => (change.kind === kind ? [] : [change.text])).join('');
        expect(without('added')).toBe(before);
        expect(without('removed')).toBe(after);
      }),
      { numRuns: 500 },
    ));
  it('never gives two neighbours of one kind, nor an empty stretch', () =>
    fc.assert(
      fc.property(aText, aText, (before, after) => {
        const changes = compare(before, after);
        for (const [at, change] of changes.entries()) {
          expect(change.text).not.toBe('');
          expect(changes[at + 1]?.kind).not.toBe(change.kind);
        }
      }),
    ));
  it('finds nothing between a text and itself', () =>
    fc.assert(
      fc.property(aText, (text) =>
        expect(countChanges(compare(text, text))).toEqual({ added: 0, removed: 0 }),
      ),
    ));
});

import { describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import { countWords } from './index.js';

/** By the segmenter alone, in one go: what the count has to be, in the time of its square. */
const reference = (text: string): number =>
  [...new Intl.Segmenter('en', { granularity: 'word' }).segment(text)].filter((each) => each.isWordLike)
    .length;

describe('the words of a text', () => {
  it.each([
    ['', 0],
    ['  \n ', 0],
    ['The pH fell to 3.4.', 5],
    ['can’t won\'t "quoted" (so) e.g. well-known a_b 1,234.5 … — &', 9],
    ['한서연 발효 보고서', 3],
    ['🧀 🧪', 0],
  ])('%j are %s', (text, count) => expect(countWords(text)).toBe(count));

  const letters = fc.constantFrom(
    ...Array.from('aZé\u0301ßﬁª1٣ⓐ_.,:;\'’-–…"()+$€ \n\t\u00a0\u200d漢字かカ한ก🧀🇵🇹שׁعא\u00ad/@%'),
  );
  it('are the segmenter’s, whatever signs they are made of', () =>
    fc.assert(
      fc.property(fc.string({ unit: letters, maxLength: 60 }), (text) =>
        expect(countWords(text)).toBe(reference(text)),
      ),
      { numRuns: 5000 },
    ));

  it('are the same where pieces meet in a text without blanks', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...Array.from('ab1.,’漢字')), minLength: 250, maxLength: 1500 }),
        (text) => expect(countWords(text)).toBe(reference(text)),
      ),
      { numRuns: 60 },
    ));

  it('cost the segmenter little at once, however long the text is', () => {
    const given: number[] = [];
    const segment = jest.spyOn(Intl.Segmenter.prototype, 'segment');
    segment.mockImplementation(function (this: Intl.Segmenter, text: string) {
      given.push(text.length);
      segment.mockRestore();
      return this.segment(text);
    });
    countWords('漢字'.repeat(50_000));
    segment.mockRestore();
    expect(Math.max(...given)).toBeLessThan(1000);
  });

  it('of one word of 200,000 letters are one', () => expect(countWords('a'.repeat(200_000))).toBe(1));
});

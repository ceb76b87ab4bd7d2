import { describe, expect, it } from '@jest/globals';
import { startingWithArticle, withArticle } from './article.js';

describe('a noun with its article', () => {
  it.each([
    ['assignment', 'an assignment', 'An assignment'],
    ['event', 'an event', 'An event'],
    ['wiki', 'a wiki', 'A wiki'],
    ['standing call', 'a standing call', 'A standing call'],
  ])('%s', (noun, within, atStart) => {
    expect(withArticle(noun)).toBe(within);
    expect(startingWithArticle(noun)).toBe(atStart);
  });
});

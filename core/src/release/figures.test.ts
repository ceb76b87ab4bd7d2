import { describe, expect, it } from '@jest/globals';
import { whoseFigures } from './index.js';

describe('figures about single people', () => {
  it.each([
    ['what-each-did', 'own', 'all', 'all', 'none'],
    ['suggested-marks', 'none', 'all', 'all', 'none'],
    ['answers-of-each', 'own', 'all', 'all', 'none'],
    ['share-of-the-text', 'all', 'all', 'all', 'none'],
  ] as const)('of %s: a member sees %s, staff %s, an observer %s, another group %s', (figure, ...whose) =>
    expect([
      whoseFigures(figure, 'member', 'student'),
      whoseFigures(figure, 'staff', 'assistant'),
      whoseFigures(figure, 'reader', 'observer'),
      whoseFigures(figure, 'reader', 'student'),
    ]).toEqual(whose),
  );
});

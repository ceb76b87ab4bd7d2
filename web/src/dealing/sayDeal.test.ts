import { describe, expect, it } from '@jest/globals';
import type { DealRule } from '@jigsaw/contract/sets';
import type { Deal, Outcome } from '@jigsaw/core/dealing';
import { importanceOf, sayLimit, sayProof, sayQuality, sayReach } from './sayDeal.js';

const outcome = (more: Partial<Outcome>): Outcome => ({
  says: '',
  met: 11,
  of: 12,
  part: 11 / 12,
  gap: 0.1,
  most: null,
  isBest: false,
  concerned: [],
  ...more,
});
const deal = (more: Partial<Deal>): Deal =>
  ({ objective: 1.2, bound: 1, reached: [{}], ...more }) as unknown as Deal;

describe('a rule', () => {
  it('says how much it matters by its place among the wishes; what must hold says so', () => {
    const wish = (attribute: string): DealRule => ({ kind: 'nobody-alone', attribute });
    const rules: DealRule[] = [
      wish('a'),
      { kind: 'apart', students: [] },
      wish('b'),
      wish('c'),
      wish('d'),
      wish('e'),
    ];
    expect(rules.map((_, at) => importanceOf(rules, at))).toEqual([
      'Most important', 'Must', 'Important', 'Less important', 'If possible', 'If possible',
    ]); // prettier-ignore
  });
  it('says what of it cannot be reached, only where that is proven', () => {
    expect(sayReach(outcome({}))).toBe('');
    expect(sayReach(outcome({ isBest: true }))).toBe('12 cannot be reached');
    expect(sayReach(outcome({ isBest: true, met: 9, part: 9 / 12 }))).toBe('more than 9 cannot be reached');
    expect(sayReach(outcome({ most: 11 }))).toBe('more than 11 cannot be reached');
    expect(sayReach(outcome({ most: 12 }))).toBe('');
    expect(sayReach(outcome({ met: 12, part: 1, isBest: true }))).toBe('');
  });
  it('says in the proof how near it came to its limit', () => {
    expect(sayLimit(outcome({ isBest: true }))).toBe('no deal does better');
    expect(sayLimit(outcome({ most: 11 }))).toBe('at most 11 of 12 can be reached');
    expect(sayLimit(outcome({}))).toBe('90 % of the way to the limit');
    expect(sayLimit(outcome({ gap: null }))).toBe('always kept');
  });
});

describe('a deal', () => {
  it('says how good it is, and the figure in the proof', () => {
    expect(sayQuality(deal({ reached: [] }), false)).toBe('No rules, so the deal is random.');
    expect(sayQuality(deal({}), false)).toBe('This is the best deal found so far.');
    expect(sayQuality(deal({}), true)).toBe('Stopped early. A better deal may exist.');
    expect(sayQuality(deal({ objective: 1 }), true)).toBe('This is the best possible deal for these rules.');
    expect(sayProof(deal({ objective: 1 }))).toBe('Proven: no deal meets these rules better.');
    expect(sayProof(deal({}))).toContain('This deal reaches 80 %.');
  });
});

import { describe, expect, it } from '@jest/globals';
import type { BoardStudent } from '@jigsaw/contract/placing';
import { figuresOf } from './cardFigures.js';

const student = (attributes: Record<string, string>) => ({ attributes }) as unknown as BoardStudent;

describe('the figures under a group', () => {
  const members = [
    student({ Lab: 'some', Years: '1', Free: 'Mon am, Tue' }),
    student({ Lab: 'none', Years: '2', Free: 'Mon am, Tue pm' }),
    student({ Lab: 'some', Years: '4.5' }),
  ];
  it('tell what its rules are about, two at most', () => {
    expect(figuresOf(members, [{ kind: 'spread', attribute: 'Lab', as: 'category' }])).toEqual([
      '2 some, 1 none',
    ]);
    expect(figuresOf(members, [{ kind: 'spread', attribute: 'Years', as: 'number' }])).toEqual(['Years 2.5']);
    expect(figuresOf(members, [{ kind: 'common-time', attribute: 'Free', wanted: 1 }])).toEqual([
      '2 free half-days',
    ]);
    expect(
      figuresOf(members, [
        { kind: 'spread', attribute: 'Years', as: 'number' },
        { kind: 'common-time', attribute: 'Free', wanted: 1 },
        { kind: 'spread', attribute: 'Lab', as: 'category' },
      ]),
    ).toEqual(['Years 2.5', '2 free half-days']);
  });
  it('are none without rules, members or values', () => {
    expect(figuresOf(members, [])).toEqual([]);
    expect(figuresOf([], [{ kind: 'spread', attribute: 'Lab', as: 'category' }])).toEqual([]);
    expect(figuresOf([student({})], [{ kind: 'common-time', attribute: 'Free', wanted: 1 }])).toEqual([]);
  });
});

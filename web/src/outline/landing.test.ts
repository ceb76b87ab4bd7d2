import { describe, expect, it } from '@jest/globals';
import type { ActivityId } from '@jigsaw/core/ids';
import { landingOf } from './landing.js';

const ids = ['log', 'memo', 'report'] as unknown as readonly ActivityId[];
const drop = (id: string, key: string, dropPosition: 'before' | 'after') =>
  landingOf(ids, id as ActivityId, { key, dropPosition });

describe('where a drop lands', () => {
  it('is before or after what it was dropped at', () => {
    expect(drop('report', 'log', 'before')).toBe('log');
    expect(drop('report', 'log', 'after')).toBe('memo');
    expect(drop('log', 'report', 'before')).toBe('report');
    expect(drop('log', 'report', 'after')).toBeNull();
    expect(drop('other', 'report', 'after')).toBeNull();
    expect(drop('other', 'log', 'before')).toBe('log');
  });

  it('is nowhere else for what is dropped at itself or beside where it was', () => {
    for (const at of ['before', 'after'] as const) expect(drop('memo', 'memo', at)).toBeUndefined();
    expect(drop('memo', 'log', 'after')).toBeUndefined();
    expect(drop('memo', 'report', 'before')).toBeUndefined();
    expect(drop('report', 'memo', 'after')).toBeUndefined();
  });
});

import { describe, expect, it } from '@jest/globals';
import { inOrder } from './inOrder.js';

describe('one after the other', () => {
  it('keeps the order in which values came, also when an earlier one takes longer or fails', async () => {
    const done: string[] = [];
    const waits = new Map<string, () => void>();
    const wait = (value: string) => new Promise<void>((resolve) => waits.set(value, resolve));
    const errors: unknown[] = [];
    const act = async (value: string) => {
      if (value === 'slow') await wait(value);
      if (value === 'broken') throw new Error('broken');
      done.push(value);
    };
    const take = inOrder(act, (error) => errors.push(error));
    for (const value of ['slow', 'broken', 'quick']) take(value);
    await new Promise(setImmediate);
    expect(done).toEqual([]);
    waits.get('slow')?.();
    await new Promise(setImmediate);
    expect(done).toEqual(['slow', 'quick']);
    expect(errors).toEqual([new Error('broken')]);
  });
});

import { describe, expect, it } from '@jest/globals';
import { FairQueue } from './fairQueue.js';

const full = () => new Error('full');

/** Jobs that wait to be ended by hand, and what has begun so far. */
function aQueue(atOnce: number, mostEach = 100) {
  const queue = new FairQueue(atOnce, mostEach, full);
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const add = (owner: string, name: string) =>
    queue.run(owner, () => {
      begun.push(name);
      return new Promise<void>((resolve) => ends.set(name, resolve));
    });
  const end = async (name: string) => {
    await new Promise(setImmediate); // whose turn it is has begun by now
    ends.get(name)?.();
    await new Promise(setImmediate);
  };
  return { queue, begun, add, end };
}

describe('a fair queue', () => {
  it('runs so many at once, and owners in turn: one job of another does not wait behind a hundred', async () => {
    const { begun, add, end } = aQueue(2);
    const all = ['a1', 'a2', 'a3', 'a4'].map((name) => add('mallory', name));
    all.push(add('noor', 'n1'));
    await end('nothing');
    expect(begun).toEqual(['a1', 'a2']);
    await end('a1');
    await end('a2');
    expect(begun.slice(2).sort()).toEqual(['a3', 'n1']);
    for (const name of ['a3', 'n1', 'a4']) await end(name);
    await Promise.all(all);
    expect(begun).toHaveLength(5);
  });

  it('goes on after a job that fails, and hands its failure on', async () => {
    const { queue, begun, add, end } = aQueue(1);
    await expect(queue.run('noor', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    const one = add('noor', 'n1');
    await end('n1');
    await one;
    expect(begun).toEqual(['n1']);
  });

  it('refuses an owner who has too many waiting, and no one else', async () => {
    const { add, end } = aQueue(1, 2);
    const first = [add('mallory', 'a1'), add('mallory', 'a2'), add('mallory', 'a3')];
    await expect(add('mallory', 'a4')).rejects.toThrow('full');
    const other = add('noor', 'n1');
    await end('a1');
    for (const name of ['a2', 'n1', 'a3']) await end(name);
    await Promise.all([...first, other]);
  });
});

import { expect, it } from '@jest/globals';
import { AtOnce } from './atOnce.js';

/** Work that ends when the test says so. */
function held() {
  const ends: (() => void)[] = [];
  let running = 0;
  let most = 0;
  const work = async () => {
    running += 1;
    most = Math.max(most, running);
    await new Promise<void>((end) => ends.push(end));
    running -= 1;
  };
  return { ends, work, running: () => running, most: () => most };
}
const turn = () => new Promise((resolve) => setImmediate(resolve));

it('runs so many of an owner, lets so many wait, and refuses more; another owner is not held up', async () => {
  const atOnce = new AtOnce(2, 3, () => new Error('too many'));
  const mine = held();
  const all = Array.from({ length: 5 }, () => atOnce.run('noor', mine.work));
  await expect(atOnce.run('noor', mine.work)).rejects.toThrow('too many');
  const theirs = held();
  const other = atOnce.run('jorge', theirs.work);
  await turn();
  expect([mine.running(), theirs.running()]).toEqual([2, 1]);
  for (let at = 0; at < 5; at += 1) {
    mine.ends.shift()?.();
    await turn();
  }
  await Promise.all(all);
  expect(mine.most()).toBe(2);
  theirs.ends.shift()?.();
  await other;
});

it('hands the place on when work fails, and forgets owners who have nothing going on', async () => {
  const atOnce = new AtOnce(1, 1, () => new Error('too many'));
  const failing = atOnce.run('noor', () => Promise.reject(new Error('broke')));
  const next = atOnce.run('noor', () => Promise.resolve('done'));
  await expect(failing).rejects.toThrow('broke');
  expect(await next).toBe('done');
  expect(await atOnce.run('noor', () => Promise.resolve('again'))).toBe('again');
  expect((atOnce as unknown as { going: Map<string, unknown> }).going.size).toBe(0);
});

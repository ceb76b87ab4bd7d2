import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { Autosaver } from './autosaver.js';

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

/** A saver whose saves are answered by hand. */
function aSaver() {
  const saver = new Autosaver<string>();
  const saves: { value: string; answer: (error?: unknown) => void }[] = [];
  const save = (value: string) =>
    new Promise<void>((resolve, reject) =>
      saves.push({ value, answer: (error?: unknown) => (error === undefined ? resolve() : reject(error)) }),
    );
  saver.use(save, () => undefined);
  return { saver, saves, settle: () => jest.advanceTimersByTimeAsync(1000) };
}
const refusal = (type: string, current?: unknown) => ({
  data: { type: `/problems/${type}`, title: 'No', status: 409, detail: 'Cancel.', current },
});

describe('saving as it is typed', () => {
  it('saves once after a pause, with the last of what was typed', async () => {
    const { saver, saves, settle } = aSaver();
    for (const text of ['a', 'ab', 'abc']) saver.change(text);
    expect(saver.hasUnsaved).toBe(true);
    await settle();
    expect(saves.map((save) => save.value)).toEqual(['abc']);
    sure(saves[0]).answer();
    await settle();
    expect(saver.state.kind).toBe('saved');
    expect(saver.hasUnsaved).toBe(false);
  });

  it('never has two saves under way, and saves what was typed meanwhile afterwards', async () => {
    const { saver, saves, settle } = aSaver();
    saver.change('first');
    await settle();
    saver.change('second');
    await settle();
    expect(saves).toHaveLength(1);
    sure(saves[0]).answer();
    await settle();
    expect(saves.map((save) => save.value)).toEqual(['first', 'second']);
  });

  it('keeps what could not be saved and saves it with the next try', async () => {
    const { saver, saves, settle } = aSaver();
    saver.change('precious');
    await settle();
    sure(saves[0]).answer(new TypeError('failed to fetch'));
    await settle();
    expect(saver.state).toMatchObject({ kind: 'failed' });
    expect(saver.hasUnsaved).toBe(true);
    void saver.flush();
    await settle();
    expect(sure(saves[1]).value).toBe('precious');
  });

  it('shows what is there when someone else changed it, and stops until the person chose', async () => {
    const { saver, saves, settle } = aSaver();
    saver.change('mine');
    await settle();
    sure(saves[0]).answer(refusal('stale-write', { title: 'theirs' }));
    await settle();
    expect(saver.state).toEqual({ kind: 'conflict', current: { title: 'theirs' }, sentence: 'Cancel.' });
    saver.settle();
    expect(saver.hasUnsaved).toBe(false);
  });

  it('flushes at once when asked, and says whether all is saved', async () => {
    const { saver, saves } = aSaver();
    saver.change('now');
    const flushed = saver.flush();
    sure(saves[0]).answer();
    await expect(flushed).resolves.toBe(true);
    await expect(saver.flush()).resolves.toBe(true);
  });

  it('tries again by itself while the server is away, and not once someone else goes on with it', async () => {
    const { saver, saves, settle } = aSaver();
    saver.change('a');
    await settle();
    sure(saves[0]).answer(new Error('no line'));
    await jest.advanceTimersByTimeAsync(4_100);
    expect(saves.map((save) => save.value)).toEqual(['a', 'a']);
    sure(saves[1]).answer(new Error('no line'));
    await settle();
    saver.stop();
    await jest.advanceTimersByTimeAsync(20_000);
    expect(saves).toHaveLength(2);
    expect(saver.hasUnsaved).toBe(false);
  });
});

import { afterEach, beforeEach, expect, it, jest } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import { noteServerTime, useNow } from './useNow.js';

beforeEach(() => {
  jest.useFakeTimers({ now: Date.parse('2026-11-12T16:59:50Z') });
});
afterEach(() => {
  noteServerTime(new Date().toISOString());
  jest.useRealTimers();
});
const due = '2026-11-12T17:00:00.000Z';
const wait = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));

it('tells the moment when it comes, and goes on every few seconds', async () => {
  const { result } = renderHook(() => useNow(due, null));
  const isPast = () => result.current >= Date.parse(due);
  expect(isPast()).toBe(false);
  await wait(9_900);
  expect(isPast()).toBe(false);
  await wait(200);
  expect(isPast()).toBe(true);
  await wait(30_000);
  expect(result.current).toBeGreaterThanOrEqual(Date.parse(due) + 20_000);
});

it('goes by the server’s clock', async () => {
  noteServerTime('2026-11-12T17:00:05Z'); // 15 s ahead of this machine
  const { result } = renderHook(() => useNow(due));
  expect(result.current).toBe(Date.parse('2026-11-12T17:00:05Z'));
  await wait(0);
});

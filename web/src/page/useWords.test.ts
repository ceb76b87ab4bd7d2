import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import { useWords } from './useWords.js';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe('words while someone types', () => {
  it('are counted at once in a short text', () => {
    const { result, rerender } = renderHook(useWords, { initialProps: 'one' });
    expect(result.current).toBe(1);
    rerender('one two');
    expect(result.current).toBe(2);
  });

  it('are counted in a long text when the keys rest', () => {
    const long = 'brine '.repeat(2000);
    const { result, rerender } = renderHook(useWords, { initialProps: long });
    expect(result.current).toBe(2000);
    rerender(`${long}and`);
    act(() => jest.advanceTimersByTime(300));
    rerender(`${long}and salt`);
    act(() => jest.advanceTimersByTime(300));
    expect(result.current).toBe(2000);
    act(() => jest.advanceTimersByTime(200));
    expect(result.current).toBe(2002);
  });
});

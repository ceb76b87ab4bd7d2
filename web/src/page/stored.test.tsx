import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import { z } from 'zod';
import { readStored, store, useStored } from './index.js';

const Names = z.array(z.string());
beforeEach(() => localStorage.clear());

describe('what a browser keeps', () => {
  it('is there again after a reload', () => {
    const first = renderHook(() => useStored('names', Names));
    expect(first.result.current[0]).toBeNull();
    act(() => first.result.current[1](['Crock']));
    expect(first.result.current[0]).toEqual(['Crock']);
    first.unmount();
    expect(renderHook(() => useStored('names', Names)).result.current[0]).toEqual(['Crock']);
  });

  it('is the same for all who use it on a page, until nothing is kept', () => {
    const [one, other] = [
      renderHook(() => useStored('names', Names)),
      renderHook(() => useStored('names', Names)),
    ];
    act(() => one.result.current[1](['Crock']));
    expect(other.result.current[0]).toEqual(['Crock']);
    act(() => other.result.current[1](null));
    expect([one.result.current[0], readStored('names', Names)]).toEqual([null, null]);
  });

  it.each([['{"half'], ['{"a":1}'], ['[1]'], ['null']])('is passed over when it does not fit: %s', (text) => {
    localStorage.setItem('names', text);
    expect(readStored('names', Names)).toBeNull();
  });

  it('stays as it was when there is no room, and says so', () => {
    expect(store('names', ['Crock'])).toBe(true);
    const noRoom = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(store('names', ['Tun'])).toBe(false);
    noRoom.mockRestore();
    expect(readStored('names', Names)).toEqual(['Crock']);
  });

  it('is neither found by a page that sits in nor written by it, but for what is about its reader', () => {
    store('draft', 'own', 'tab');
    store('way', '/c/1', 'reader');
    window.history.replaceState(null, '', '/sit-in/1/c/1/due');
    expect(readStored('draft', z.string(), 'tab')).toBeNull();
    store('draft', 'as Noor', 'tab');
    store('names', ['Noor']);
    expect(readStored('draft', z.string(), 'tab')).toBeNull();
    expect(readStored('way', z.string(), 'reader')).toBe('/c/1');
    window.history.replaceState(null, '', '/');
    expect([readStored('draft', z.string(), 'tab'), readStored('names', Names)]).toEqual(['own', null]);
    sessionStorage.clear();
  });

  it('is gone when it is let go of', () => {
    store('names', ['Crock']);
    store('names', null);
    expect(localStorage.getItem('names')).toBeNull();
  });
});

import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import type { UnknownAction } from '@reduxjs/toolkit';
import { configureStore } from '@reduxjs/toolkit';
import { sure } from '@jigsaw/core/lists';
import { api, tagTypes } from '../api/index.js';
import { useLiveChanges } from './useLiveChanges.js';

/** The server's side of the lines that the page opens. */
class Line extends EventTarget {
  static open: Line[] = [];
  readonly CLOSED = 2;
  readyState = 0;
  constructor(readonly url: string) {
    super();
    Line.open.push(this);
  }
  close() {
    this.readyState = 2;
  }
  opens() {
    this.readyState = 1;
    this.dispatchEvent(new Event('open'));
  }
  breaks(isRefused: boolean) {
    this.readyState = isRefused ? 2 : 0;
    this.dispatchEvent(new Event('error'));
  }
  says(data: object) {
    this.dispatchEvent(new MessageEvent('change', { data: JSON.stringify(data) }));
  }
}

let asked: string[][];
const before = globalThis.EventSource;
beforeEach(() => {
  jest.useFakeTimers();
  Line.open = [];
  asked = [];
  Object.assign(globalThis, { EventSource: Line });
});
afterEach(() => {
  jest.useRealTimers();
  Object.assign(globalThis, { EventSource: before });
});

function follow() {
  const store = configureStore({
    reducer: (_state: unknown, action: UnknownAction) => {
      if (action.type === `${api.reducerPath}/invalidateTags`) asked.push(action['payload'] as string[]);
      return null;
    },
  });
  const wrapper = ({ children }: { readonly children: ReactNode }) => (
    <Provider store={store}>{children}</Provider>
  );
  return renderHook(() => useLiveChanges('course'), { wrapper });
}
const line = (at: number) => sure(Line.open[at]);
const all = [...tagTypes];

describe('live changes in the page', () => {
  it('ask for what a change makes old, and for everything after a line was broken', () => {
    follow();
    line(0).opens();
    expect(asked).toEqual([]);
    line(0).says({ type: 'roster.invited', isYours: false });
    expect(asked.splice(0)).toEqual([['Roster', 'Outbox', 'Figures', 'Audit']]);
    line(0).says({ type: 'mark.drafted', isYours: true }); // shown by the act already
    expect(asked).toEqual([]);
    line(0).says({ type: 'post.added', isYours: false }); // not the whole talk again, only what is new in it
    line(0).says({ type: 'page.saved', isYours: false });
    line(0).says({ type: 'post.added', isYours: true });
    const inCopy = ['Copy', 'Room', 'Desk', 'Gradebook', 'Mark'];
    expect(asked.splice(0)).toEqual([
      [...inCopy, 'Post', 'Figures', 'Audit'],
      [...inCopy, 'Figures', 'Audit'],
      ['Desk', 'Gradebook', 'Mark', 'Audit'],
    ]);
    line(0).says({ type: 'activity.went-live', isYours: false });
    expect(asked.splice(0)).toEqual([
      ['Activity', 'Room', 'Copy', 'Call', 'Talk', 'Desk', 'Gradebook', 'MyMarks', 'Figures', 'Audit'],
    ]);
    line(0).breaks(false);
    line(0).opens();
    expect(asked).toEqual([all]);
    expect(Line.open).toHaveLength(1);
  });

  it('ask once when the line is refused, which tells whether the session is over, and connect again by themselves', () => {
    const { unmount } = follow();
    line(0).opens();
    line(0).breaks(true);
    expect(asked.splice(0)).toEqual([all]);
    jest.advanceTimersByTime(5_000);
    line(1).breaks(true);
    expect(asked).toEqual([]);
    jest.advanceTimersByTime(5_000);
    line(2).opens();
    expect(asked).toEqual([all]);
    line(2).breaks(true);
    unmount();
    jest.advanceTimersByTime(60_000);
    expect(Line.open).toHaveLength(3);
  });
});

import { describe, expect, it } from '@jest/globals';
import { waitFor } from '@testing-library/react';
import { makeStore } from './index.js';
import { api } from './api.js';
import { forgetAnswers } from './unchanged.js';

const wordApi = api.injectEndpoints({
  endpoints: (build) => ({
    readWord: build.query<{ word: string }, string>({ query: (at) => at, providesTags: ['Roster'] }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
  }),
  overrideExisting: true,
});

/** A server that has one word and says "unchanged" to anyone who has it already. */
function aServer() {
  const asked: (string | null)[] = [];
  const state = { word: 'brine' };
  let held: Promise<void> = Promise.resolve();
  globalThis.fetch = async (input) => {
    const { headers, method } = input as Request;
    if (method !== 'GET') return Response.json({ done: true });
    const mark = headers.get('If-None-Match');
    asked.push(mark);
    const { word } = state;
    const now = `"${word}"`;
    await held;
    return mark === now
      ? new Response(null, { status: 304 })
      : Response.json({ word }, { headers: { ETag: now } });
  };
  /** Answers that are made from now on leave when they are let go. */
  const hold = () => {
    let letGo = () => undefined as void;
    held = new Promise<void>((resolve) => (letGo = resolve));
    return () => {
      letGo();
      held = Promise.resolve();
    };
  };
  return { asked, state, hold };
}

describe('an answer that is as it was', () => {
  it('is not asked for whole, stays what it is, and is replaced by another', async () => {
    const { asked, state } = aServer();
    const store = makeStore();
    const read = () => store.dispatch(wordApi.endpoints.readWord.initiate('one', { forceRefetch: true }));
    const first = await read();
    const second = await read();
    expect(asked).toEqual([null, '"brine"']);
    expect(second.data).toBe(first.data);
    expect(second.isSuccess).toBe(true);
    state.word = 'salt';
    expect((await read()).data).toEqual({ word: 'salt' });
    expect((await read()).data).toEqual({ word: 'salt' });
    expect(asked).toEqual([null, '"brine"', '"brine"', '"salt"']);
  });

  it('is what it was when it was asked for, whatever was forgotten or came in between', async () => {
    const { asked, state, hold } = aServer();
    const store = makeStore();
    const read = () => store.dispatch(wordApi.endpoints.readWord.initiate('three', { forceRefetch: true }));
    await read();
    const letGo = hold();
    const slow = read();
    await waitFor(() => expect(asked).toEqual([null, '"brine"']));
    forgetAnswers();
    state.word = 'salt'; // and what the slow one was told is from before
    letGo();
    expect((await slow).data).toEqual({ word: 'brine' });
    expect((await read()).data).toEqual({ word: 'salt' });
  });

  it('is forgotten when someone else may sit down', async () => {
    const { asked } = aServer();
    const store = makeStore();
    const read = () => store.dispatch(wordApi.endpoints.readWord.initiate('two', { forceRefetch: true }));
    await read();
    await store.dispatch(wordApi.endpoints.signOut.initiate());
    await read();
    expect(asked).toEqual([null, null]);
  });
});

import { describe, expect, it } from '@jest/globals';
import { makeStore } from './index.js';
import { api } from './api.js';

const wordApi = api.injectEndpoints({
  endpoints: (build) => ({
    readWord: build.query<{ word: string }, string>({ query: (at) => at, providesTags: ['Roster'] }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'session', method: 'DELETE' }) }),
  }),
  overrideExisting: true,
});

/** A server that has one word and says "unchanged" to whoever has it already. */
function aServer() {
  const asked: (string | null)[] = [];
  const state = { word: 'brine' };
  globalThis.fetch = async (input) => {
    const { headers, method } = input as Request;
    if (method !== 'GET') return Response.json({ done: true });
    const mark = headers.get('If-None-Match');
    asked.push(mark);
    const now = `"${state.word}"`;
    return mark === now
      ? new Response(null, { status: 304 })
      : Response.json({ word: state.word }, { headers: { ETag: now } });
  };
  return { asked, state };
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

  it('is forgotten when somebody else may sit down', async () => {
    const { asked } = aServer();
    const store = makeStore();
    const read = () => store.dispatch(wordApi.endpoints.readWord.initiate('two', { forceRefetch: true }));
    await read();
    await store.dispatch(wordApi.endpoints.signOut.initiate());
    await read();
    expect(asked).toEqual([null, null]);
  });
});

import { expect, it } from '@jest/globals';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { makeStore } from '../api/index.js';
import { mergeParts } from './merge.js';
import { useVersionedDraft } from './useVersionedDraft.js';

interface Sheet {
  readonly mark: string;
  readonly feedback: string;
}

/** A draft of what one server keeps, which others write, too. */
function aDraft() {
  const server = { value: { mark: '30', feedback: '' } as Sheet, version: 1 };
  const store = makeStore();
  const { result } = renderHook(
    () =>
      useVersionedDraft<Sheet>({
        begin: () => server,
        save: (value, version) => {
          if (version !== server.version)
            return Promise.reject({
              data: {
                type: '/problems/stale-write',
                title: 'No',
                status: 409,
                detail: 'Changed.',
                current: null,
              },
            });
          Object.assign(server, { value, version: version + 1 });
          return Promise.resolve({ version: server.version });
        },
        read: () => Promise.resolve({ ...server }),
        inTab: { name: 'sheet', pack: (value) => value, unpack: () => null },
        merge: (base, mine, theirs) => mergeParts(base, mine, theirs),
      }),
    {
      wrapper: ({ children }: { readonly children: ReactNode }) => (
        <Provider store={store}>{children}</Provider>
      ),
    },
  );
  const change = async (value: Sheet) => {
    act(() => result.current.change(value));
    await act(async () => {
      await result.current.flush();
    });
  };
  return { server, result, change };
}

it('puts only what was changed since it last followed the server on top of what others wrote', async () => {
  const { server, result, change } = aDraft();
  await change({ mark: '31', feedback: 'Mine.' });
  // Another act of the page made it something else again, such as discarding the change.
  Object.assign(server, { value: { mark: '30', feedback: '' }, version: 3 });
  act(() => result.current.follow({ ...server }));
  expect(result.current.value).toEqual({ mark: '30', feedback: '' });
  // Someone else gives a mark, while feedback is written here.
  Object.assign(server, { value: { mark: '12', feedback: '' }, version: 4 });
  await change({ mark: '30', feedback: 'Again.' });
  await waitFor(() => expect(server.value).toEqual({ mark: '12', feedback: 'Again.' }));
  expect(result.current.state.kind).toBe('saved');
});

import { afterEach, describe, expect, it } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { makeStore } from '../api/index.js';
import { Notices } from '../look/notices.js';
import { useCopy } from './index.js';

function Page() {
  const copy = useCopy();
  return <button onClick={() => void copy('brine', 'Link copied', 'Select it.')}>Copy</button>;
}

const show = () =>
  render(
    <Provider store={makeStore()}>
      <Page />
      <Notices />
    </Provider>,
  );

const given = Object.getOwnPropertyDescriptor(navigator, 'clipboard');
const clipboardIs = (value: unknown) =>
  Object.defineProperty(navigator, 'clipboard', { value, configurable: true });

afterEach(() => {
  if (given) Object.defineProperty(navigator, 'clipboard', given);
  else Reflect.deleteProperty(navigator, 'clipboard');
});

describe('copying', () => {
  const refusing = { writeText: () => Promise.reject(new Error('not now')) };
  it.each([
    ['a page without a clipboard', undefined],
    ['a browser that refuses', refusing],
  ])('says how else with %s', async (_, clipboard) => {
    show();
    const user = userEvent.setup();
    clipboardIs(clipboard);
    await user.click(screen.getByRole('button', { name: 'Copy' }));
    expect(await screen.findByText(/does not let this page copy. Select it./)).toBeTruthy();
  });

  it('says what was copied', async () => {
    show();
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Copy' }));
    expect(await navigator.clipboard.readText()).toBe('brine');
    expect(await screen.findByText('Link copied')).toBeTruthy();
  });
});

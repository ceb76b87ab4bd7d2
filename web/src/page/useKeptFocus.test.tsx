import { act, fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from '@jest/globals';
import { useKeptFocus } from './useKeptFocus.js';

const frames = () =>
  act(async () => {
    for (let at = 0; at < 4; at += 1) await new Promise((resolve) => requestAnimationFrame(resolve));
  });

interface Shown {
  readonly page: 'first' | 'loading' | 'second';
  readonly rows?: readonly string[];
  readonly isSaving?: boolean;
}

function App({ page, rows = ['Crock', 'Tun'], isSaving = false }: Shown) {
  useKeptFocus();
  return (
    <div>
      <header>
        <a href="#groups">Groups</a>
      </header>
      {page === 'first' && (
        <main>
          <ul aria-label="Groups">
            {rows.map((row) => (
              <li key={row}>
                <button>Delete {row}</button>
              </li>
            ))}
          </ul>
          <form aria-label="Names">
            <button disabled={isSaving}>Save names</button>
            <button type="button">Cancel</button>
          </form>
        </main>
      )}
      {page === 'loading' && <p>Loading</p>}
      {page === 'second' && <main aria-label="The second page">Here</main>}
    </div>
  );
}

describe('the focus of a page', () => {
  let show: (shown: Shown) => Promise<void>;
  beforeEach(() => {
    const { rerender } = render(<App page="first" />);
    show = async (shown) => {
      rerender(<App {...shown} />);
      await frames();
    };
  });
  const focus = (name: string) => act(() => screen.getByRole('button', { name }).focus());

  it('goes to the list when its row is deleted, not to the next row’s button', async () => {
    focus('Delete Crock');
    await show({ page: 'first', rows: ['Tun'] });
    expect(screen.getByRole('list', { name: 'Groups' })).toHaveFocus();
  });

  it('stays beside a button that can no longer be pressed', async () => {
    focus('Save names');
    await show({ page: 'first', isSaving: true });
    expect(screen.getByRole('form', { name: 'Names' })).toHaveFocus();
  });

  it('waits for the page that comes, and is at its beginning then', async () => {
    focus('Delete Tun');
    await show({ page: 'loading' });
    expect(document.body).toHaveFocus();
    await show({ page: 'second' });
    expect(screen.getByRole('main', { name: 'The second page' })).toHaveFocus();
  });

  it('is left where someone put it', async () => {
    focus('Delete Tun');
    act(() => screen.getByRole('link', { name: 'Groups' }).focus());
    await show({ page: 'second' });
    expect(screen.getByRole('link', { name: 'Groups' })).toHaveFocus();
  });

  it('is let go of by a press beside everything', async () => {
    focus('Delete Tun');
    fireEvent.pointerDown(document.body);
    act(() => (document.activeElement as HTMLElement).blur());
    await show({ page: 'second' });
    expect(document.body).toHaveFocus();
  });
});

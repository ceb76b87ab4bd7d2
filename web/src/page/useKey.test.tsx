import { describe, expect, it, jest } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import { useKey } from './index.js';

function Page({ act }: { readonly act: () => void }) {
  useKey('n', act);
  return (
    <>
      <button>Somewhere</button>
      <div role="dialog">
        <button>In a sheet</button>
      </div>
      <div role="listbox">
        <div role="option" aria-selected="false" tabIndex={0}>
          Nino
        </div>
      </div>
      <textarea aria-label="Text" />
      <div contentEditable suppressContentEditableWarning data-testid="editor" />
    </>
  );
}

describe('a key of a page', () => {
  it('acts wherever the focus is, but in a text', () => {
    const act = jest.fn();
    render(<Page act={act} />);
    fireEvent.keyDown(screen.getByRole('button', { name: 'Somewhere' }), { key: 'n' });
    expect(act).toHaveBeenCalledTimes(1);
    fireEvent.keyDown(screen.getByLabelText('Text'), { key: 'n' });
    fireEvent.keyDown(screen.getByTestId('editor'), { key: 'n' });
    expect(act).toHaveBeenCalledTimes(1);
  });

  it('does nothing behind what opened over the page', () => {
    const act = jest.fn();
    render(<Page act={act} />);
    fireEvent.keyDown(screen.getByRole('button', { name: 'In a sheet' }), { key: 'n' });
    fireEvent.keyDown(screen.getByRole('option'), { key: 'n' });
    expect(act).not.toHaveBeenCalled();
  });

  it('is not one of the browser’s, and does not type itself', () => {
    const act = jest.fn();
    render(<Page act={act} />);
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      fireEvent.keyDown(document.body, { key: 'n', ...held });
    expect(act).not.toHaveBeenCalled();
    expect(fireEvent.keyDown(document.body, { key: 'n' })).toBe(false); // taken
  });

  it('is let go of with its page', () => {
    const act = jest.fn();
    render(<Page act={act} />).unmount();
    fireEvent.keyDown(document.body, { key: 'n' });
    expect(act).not.toHaveBeenCalled();
  });
});

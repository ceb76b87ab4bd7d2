import { describe, expect, it, jest } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { ImportPreview } from '@jigsaw/contract/roster';
import { ImportPreviewPanel } from './ImportPreviewPanel.js';

const aPerson = (name: string) => ({ email: `${name.toLowerCase()}@b.example`, name, familyName: null, reading: null, number: null, attributes: {} });
const aPreview = (more: Partial<ImportPreview> = {}): ImportPreview => ({
  columns: [
    { heading: 'Mail', meaning: 'email', sureness: 'sure', samples: ['a@b.example'] },
    { heading: 'Who', meaning: 'name', sureness: 'guess', samples: ['Ada'] },
  ],
  encoding: 'UTF-8',
  delimiter: ';',
  hasHeader: true,
  columnProblem: null,
  rows: [
    { kind: 'unchanged', line: 2, person: aPerson('Ben') },
    { kind: 'new', line: 3, person: aPerson('Ada') },
    { kind: 'changed', line: 4, person: aPerson('Cho'), changes: [{ field: 'Lab', from: 'none', to: 'some' }] },
    { kind: 'problem', line: 5, cells: ['nope', 'Dia'], sentences: ['“nope” is not a mail address.'] },
  ],
  counts: { new: 1, changed: 1, unchanged: 1, problem: 1 },
  fingerprint: 'x',
  ...more,
});
const show = (preview: ImportPreview) => {
  const onBringIn = jest.fn<(lines: number[]) => void>();
  const onMeanings = jest.fn<(meanings: string[]) => void>();
  render(
    <ImportPreviewPanel
      title="class.csv"
      preview={preview}
      isBusy={false}
      error={undefined}
      onMeanings={onMeanings}
      onBringIn={onBringIn}
      onPutAside={() => undefined}
    />,
  );
  return { onBringIn, onMeanings };
};

describe('the preview of a class file', () => {
  it('brings nothing in while a row needs somebody, and says how many', async () => {
    const { onBringIn } = show(aPreview());
    expect(screen.getByRole('button', { name: 'Bring in 2 rows' })).toBeDisabled();
    expect(screen.getByText('1 row needs you first')).toBeInTheDocument();
    const faulty = screen.getByRole('row', { name: /nope/ });
    expect(faulty).toHaveTextContent('5');
    await userEvent.click(within(faulty).getByRole('button', { name: 'Leave it out' }));
    await userEvent.click(screen.getByRole('button', { name: 'Bring in 2 rows' }));
    expect(onBringIn).toHaveBeenCalledWith([5]);
  });

  it('puts faults first and what stays as it is last', () => {
    show(aPreview());
    const lines = screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => within(row).getAllByRole('cell')[0]!.textContent);
    expect(lines).toEqual(['5', '4', '3', '2']);
    expect(screen.getByText('Lab: none → some')).toBeInTheDocument();
  });

  it('asks about the columns before anything else', () => {
    show(aPreview({ rows: [], columnProblem: 'Say which column holds the names.', counts: { new: 0, changed: 0, unchanged: 0, problem: 0 } }));
    expect(screen.getByRole('alert')).toHaveTextContent('Say which column holds the names.');
    expect(screen.getByRole('button', { name: /Bring in/ })).toBeDisabled();
  });
});

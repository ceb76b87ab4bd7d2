import { describe, expect, it, jest } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { ImportPreview } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { id } from '../test/data.js';
import { ImportPreviewPanel } from './ImportPreviewPanel.js';

const aPerson = (name: string) => ({
  email: `${name.toLowerCase()}@b.example`,
  name,
  familyName: null,
  reading: null,
  number: null,
  role: null,
  places: [],
  attributes: {},
});
const aPreview = (more: Partial<ImportPreview> = {}): ImportPreview => ({
  columns: [
    { heading: 'Mail', meaning: 'email', sureness: 'sure', set: null, samples: ['a@b.example'] },
    { heading: 'Who', meaning: 'name', sureness: 'guess', set: null, samples: ['Ada'] },
  ],
  encoding: 'UTF-8',
  delimiter: ';',
  hasHeader: true,
  place: null,
  columnProblem: null,
  rows: [
    { kind: 'unchanged', line: 2, person: aPerson('Ben') },
    { kind: 'new', line: 3, person: aPerson('Ada') },
    {
      kind: 'changed',
      hasNewAddress: false,
      line: 4,
      person: aPerson('Cho'),
      changes: [{ field: 'Lab', from: 'none', to: 'some' }],
    },
    {
      kind: 'problem',
      faultyCell: null,
      line: 5,
      cells: ['nope', 'Dia'],
      sentences: ['“nope” is not an email address.'],
      mayBe: null,
    },
  ],
  missing: [
    { enrolmentId: id('eli'), name: 'Eli', email: 'eli@b.example', groups: ['Crock'], isDropped: false },
  ],
  newGroups: [],
  warning: null,
  counts: { new: 1, changed: 1, unchanged: 1, problem: 1 },
  fingerprint: 'x',
  ...more,
});
const show = (
  preview: ImportPreview,
  more: { hasMissing?: boolean; mends?: ReadonlyMap<number, readonly string[]> } = {},
) => {
  const onImport = jest.fn<(lines: number[], drop: string[]) => void>();
  const onMend = jest.fn<(line: number, cells: readonly string[] | null) => void>();
  const onNewAddresses = jest.fn<(lines: readonly number[], have: boolean) => void>();
  const onMeanings = jest.fn<(meanings: string[]) => void>();
  render(
    <ImportPreviewPanel
      title="class.csv"
      preview={preview}
      isBusy={false}
      error={undefined}
      onDelimiter={undefined}
      onMeanings={onMeanings}
      onImport={onImport}
      onMend={onMend}
      onNewAddresses={onNewAddresses}
      mends={more.mends ?? new Map()}
      hasMissing={more.hasMissing ?? false}
      onPlace={jest.fn()}
      onCancel={() => undefined}
    />,
  );
  return { onImport, onMeanings, onMend, onNewAddresses };
};

describe('the preview of a class file', () => {
  it('offers that someone with a known number has a new address, one by one or all at once', async () => {
    const sentences = ['n1 is the number of Ada, who has another address.'];
    const rows = [2, 3].map((line) => ({
      kind: 'problem' as const,
      faultyCell: 1,
      line,
      cells: [`new${line}@b.example`, 'Ada'],
      sentences,
      mayBe: { name: 'Ada', isAlike: true },
    }));
    const other = { ...sure(rows[0]), line: 5, mayBe: { name: 'Ada', isAlike: false } };
    const moved = {
      kind: 'changed' as const,
      line: 4,
      person: aPerson('Cho'),
      changes: [],
      hasNewAddress: true,
    };
    const { onNewAddresses } = show(aPreview({ rows: [...rows, moved, other] }));
    await userEvent.click(screen.getByRole('button', { name: 'Line 2 is Ada, with a new address' }));
    await userEvent.click(screen.getByRole('button', { name: 'Update 2 addresses' }));
    await userEvent.click(screen.getByRole('button', { name: 'Line 4 is a different person' }));
    expect(onNewAddresses.mock.calls).toEqual([
      [[2], true],
      [[2, 3], true],
      [[4], false],
    ]);
  });

  it('brings nothing in while a row needs someone, and says how many', async () => {
    const { onImport } = show(aPreview());
    expect(screen.getByRole('button', { name: 'Import 2 rows' })).toBeDisabled();
    expect(screen.getByText('1 row needs you first')).toBeInTheDocument();
    const faulty = screen.getByRole('row', { name: /nope/ });
    expect(faulty).toHaveTextContent('5');
    await userEvent.click(within(faulty).getByRole('button', { name: 'Skip line 5' }));
    await userEvent.click(screen.getByRole('button', { name: 'Import 2 rows' }));
    expect(onImport).toHaveBeenCalledWith([5], []);
  });

  it('puts faults first and what stays as it is last', () => {
    show(aPreview());
    const lines = screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => sure(within(row).getAllByRole('cell')[0]).textContent);
    expect(lines).toEqual(['5', '4', '3', '2']);
    expect(screen.getByText('Lab: none → some')).toBeInTheDocument();
  });

  it('corrects a faulty row in place, cell by cell, and gives the file’s own back', async () => {
    const { onMend } = show(aPreview());
    await userEvent.click(screen.getByRole('button', { name: 'Correct line 5' }));
    const form = within(screen.getByRole('form', { name: 'Line 5' }));
    await userEvent.clear(form.getByLabelText('Mail'));
    await userEvent.type(form.getByLabelText('Mail'), 'dia@b.example{Enter}');
    expect(onMend).toHaveBeenCalledWith(5, ['dia@b.example', 'Dia']);
  });

  it('marks what was corrected, with the way back', async () => {
    const { onMend } = show(aPreview(), { mends: new Map([[3, ['ada@b.example', 'Ada']]]) });
    expect(screen.getByRole('row', { name: /Ada/ })).toHaveTextContent('as corrected');
    await userEvent.click(screen.getByRole('button', { name: 'Line 3 as in the file' }));
    expect(onMend).toHaveBeenCalledWith(3, null);
  });

  it('keeps who is not in the file unless someone says they leave, and says what they leave', async () => {
    const { onImport } = show(
      aPreview({
        rows: aPreview().rows.slice(0, 1),
        counts: { new: 0, changed: 0, unchanged: 1, problem: 0 },
      }),
      { hasMissing: true },
    );
    expect(screen.getByRole('row', { name: /Eli/ })).toHaveTextContent('Not in file, stays');
    expect(screen.getByRole('button', { name: 'Import 0 rows' })).toBeDisabled();
    await userEvent.click(screen.getByRole('button', { name: 'Remove Eli' }));
    expect(screen.getByRole('row', { name: /Eli/ })).toHaveTextContent(
      'Leaves Crock; work and marks are kept',
    );
    await userEvent.click(screen.getByRole('button', { name: 'Remove 1' }));
    expect(onImport).toHaveBeenCalledWith([], [id('eli')]);
  });

  it('asks about the columns before anything else', () => {
    show(
      aPreview({
        rows: [],
        columnProblem: 'Say which column holds the names.',
        counts: { new: 0, changed: 0, unchanged: 0, problem: 0 },
      }),
    );
    expect(screen.getByRole('alert')).toHaveTextContent('Say which column holds the names.');
    expect(screen.getByRole('button', { name: /Import/ })).toBeDisabled();
  });
});

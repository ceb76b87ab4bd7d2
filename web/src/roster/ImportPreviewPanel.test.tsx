import { describe, expect, it, jest } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/import';
import { sure } from '@jigsaw/core/lists';
import { id } from '../test/data.js';
import { aPerson, aPreview } from '../test/importing.js';
import { ImportPreviewPanel } from './ImportPreviewPanel.js';

/** A row of each kind, and someone who is in none. */
const ofEachKind = (more: Partial<ImportPreview> = {}) =>
  aPreview({
    hasHeader: true,
    rows: [
      { kind: 'unchanged', line: 2, person: aPerson('Ben'), otherRole: null },
      { kind: 'new', line: 3, person: aPerson('Ada') },
      {
        kind: 'changed',
        hasNewAddress: false,
        otherRole: null,
        line: 4,
        person: aPerson('Cho'),
        changes: [{ field: 'Lab', from: 'none', to: 'some' }],
      },
      {
        kind: 'problem',
        faultyCell: 0,
        line: 5,
        cells: ['nope', 'Dia'],
        sentences: ['“nope” is not an email address.'],
        mayBe: null,
      },
    ],
    missing: [
      { enrolmentId: id('eli'), name: 'Eli', email: 'eli@b.example', groups: ['Crock'], isDropped: false },
    ],
    counts: { new: 1, changed: 1, unchanged: 1, problem: 1 },
    ...more,
  });

const show = (
  preview: ImportPreview,
  more: { hasMissing?: boolean; mends?: ReadonlyMap<number, readonly string[]> } = {},
) => {
  const onImport = jest.fn<(lines: number[], drop: string[]) => void>();
  const onMend = jest.fn<(line: number, cells: readonly string[] | null) => void>();
  const onSayOfLines = jest.fn<(what: string, lines: readonly number[], isSo: boolean) => void>();
  const onPlace = jest.fn<(chosen: object) => void>();
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
      onSayOfLines={onSayOfLines}
      mends={more.mends ?? new Map()}
      hasMissing={more.hasMissing ?? false}
      onPlace={onPlace}
      onCancel={() => undefined}
    />,
  );
  return { onImport, onMeanings, onMend, onSayOfLines, onPlace };
};

describe('the preview of a class file', () => {
  it('skips any row, and makes no group that only skipped rows name', async () => {
    const inGroup = (name: string, group: string) => ({
      ...aPerson(name),
      places: [{ set: 'Benches', group }],
    });
    const preview = aPreview({
      rows: [
        { kind: 'new', line: 2, person: inGroup('Ada', 'Crock') },
        { kind: 'new', line: 3, person: inGroup('Ben', 'Tun') },
      ],
      newGroups: [{ set: 'Benches', isNew: true, groups: ['Crock', 'Tun'] }],
      counts: { new: 2, changed: 0, unchanged: 0, problem: 0 },
    });
    const { onImport } = show(preview);
    expect(screen.getByText(/New set Benches: Crock, Tun\./)).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Skip line 3' }));
    expect(screen.getByText(/New set Benches: Crock\./)).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Import 1 row' }));
    expect(onImport).toHaveBeenCalledWith([3], []);
    await userEvent.click(screen.getByRole('button', { name: 'Import line 3 after all' }));
    expect(screen.getByRole('button', { name: 'Import 2 rows' })).toBeInTheDocument();
  });

  it('changes the role of someone known only when it is said, one by one or for all', async () => {
    const known = (name: string, line: number, isTaken: boolean): PreviewRowView => ({
      kind: 'unchanged',
      line,
      person: { ...aPerson(name), role: 'student' },
      otherRole: { told: 'assistant', isTaken },
    });
    const { onSayOfLines } = show(
      aPreview({ rows: [known('Ada', 2, false), known('Ben', 3, true), known('Cho', 4, false)] }),
    );
    expect(screen.getAllByText(/listed as assistant, stays student/)).toHaveLength(2);
    await userEvent.click(screen.getByRole('button', { name: 'Make Ada assistant' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep the role of Ben' }));
    await userEvent.click(screen.getByRole('button', { name: 'Update 2 roles' }));
    expect(onSayOfLines.mock.calls).toEqual([
      ['newRoles', [2], true],
      ['newRoles', [3], false],
      ['newRoles', [2, 4], true],
    ]);
  });

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
      otherRole: null,
    };
    const { onSayOfLines } = show(ofEachKind({ rows: [...rows, moved, other] }));
    await userEvent.click(screen.getByRole('button', { name: 'Line 2 is Ada, with a new address' }));
    await userEvent.click(screen.getByRole('button', { name: 'Update 2 addresses' }));
    await userEvent.click(screen.getByRole('button', { name: 'Line 4 is a different person' }));
    expect(onSayOfLines.mock.calls).toEqual([
      ['newAddresses', [2], true],
      ['newAddresses', [2, 3], true],
      ['newAddresses', [4], false],
    ]);
  });

  it('brings nothing in while a row needs someone, and says how many', async () => {
    const { onImport } = show(ofEachKind());
    expect(screen.getByRole('button', { name: 'Import 2 rows' })).toBeDisabled();
    expect(screen.getByText('1 row needs you first')).toBeInTheDocument();
    const faulty = screen.getByRole('row', { name: /nope/ });
    expect(faulty).toHaveTextContent('5');
    await userEvent.click(within(faulty).getByRole('button', { name: 'Skip line 5' }));
    await userEvent.click(screen.getByRole('button', { name: 'Import 2 rows' }));
    expect(onImport).toHaveBeenCalledWith([5], []);
  });

  it('puts faults first and what stays as it is last', () => {
    show(ofEachKind());
    const lines = screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => sure(within(row).getAllByRole('cell')[0]).textContent);
    expect(lines).toEqual(['5', '4', '3', '2']);
    expect(screen.getByText('Lab: none → some')).toBeInTheDocument();
  });

  it('corrects a faulty row in place, cell by cell, and gives the file’s own back', async () => {
    const { onMend } = show(ofEachKind());
    await userEvent.click(screen.getByRole('button', { name: 'Correct line 5' }));
    const form = within(screen.getByRole('form', { name: 'Line 5' }));
    expect(form.getByLabelText('Address')).toHaveFocus();
    await userEvent.clear(form.getByLabelText('Address'));
    await userEvent.type(form.getByLabelText('Address'), 'dia@b.example{Enter}');
    expect(onMend).toHaveBeenCalledWith(5, ['dia@b.example', 'Dia']);
  });

  it('begins a correction in the cell that is at fault', async () => {
    const [row] = ofEachKind().rows.filter(({ kind }) => kind === 'problem');
    show(ofEachKind({ rows: [{ ...sure(row), faultyCell: 1 } as PreviewRowView] }));
    await userEvent.click(screen.getByRole('button', { name: 'Correct line 5' }));
    const name = within(screen.getByRole('form', { name: 'Line 5' })).getByLabelText('Name');
    expect(name).toHaveFocus();
    expect(name).toHaveAttribute('aria-invalid', 'true');
  });

  it('says where the people were found, and reads another sheet or other headings', async () => {
    const place = {
      sheets: [
        { name: 'Cover', rows: 2 },
        { name: 'Class', rows: 4 },
      ],
      sheet: 1,
      headingLine: 2,
      firstRows: [
        { line: 1, text: 'Class list' },
        { line: 2, text: 'Address · Name' },
      ],
      skipped: [
        { line: 1, because: 'above-headings' as const, text: 'Class list' },
        { line: 9, because: 'total' as const, text: 'Total · 3' },
      ],
    };
    const { onPlace } = show(ofEachKind({ place }));
    await userEvent.click(screen.getByRole('button', { name: '2 rows skipped…' }));
    expect(screen.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
      'Line 1: Class list above the headings',
      'Line 9: Total · 3 a total',
    ]);
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: /^Sheet Class/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Sheet Cover' }));
    await userEvent.click(screen.getByRole('button', { name: /^Headings in line 2/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'No headings' }));
    expect(onPlace.mock.calls).toEqual([[{ sheet: 0, headingLine: null }], [{ sheet: 1, headingLine: 0 }]]);
  });

  it('says of a column of groups which set they are in', () => {
    const column = {
      heading: 'Tutorial',
      meaning: 'group' as const,
      sureness: 'sure' as const,
      samples: ['T1'],
    };
    show(
      ofEachKind({
        columns: [
          { ...column, set: { name: 'Lab sections', isNew: false } },
          { ...column, set: { name: 'Tutorial', isNew: true } },
        ],
      }),
    );
    expect(screen.getByText('Groups of Lab sections')).toBeInTheDocument();
    expect(screen.getByText('New group set “Tutorial”')).toBeInTheDocument();
  });

  it('marks what was corrected, with the way back', async () => {
    const { onMend } = show(ofEachKind(), { mends: new Map([[3, ['ada@b.example', 'Ada']]]) });
    expect(screen.getByRole('row', { name: /Ada/ })).toHaveTextContent('as corrected');
    await userEvent.click(screen.getByRole('button', { name: 'Line 3 as in the file' }));
    expect(onMend).toHaveBeenCalledWith(3, null);
  });

  it('keeps who is not in the file unless someone says they leave, and says what they leave', async () => {
    const { onImport } = show(
      ofEachKind({
        rows: ofEachKind().rows.slice(0, 1),
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
      ofEachKind({
        rows: [],
        columnProblem: 'Say which column holds the names.',
        counts: { new: 0, changed: 0, unchanged: 0, problem: 0 },
      }),
    );
    expect(screen.getByRole('alert')).toHaveTextContent('Say which column holds the names.');
    expect(screen.getByRole('button', { name: /Import/ })).toBeDisabled();
  });
});
